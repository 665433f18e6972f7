using System.Globalization;

namespace Polycline.Bench;

/// <summary>Something whose speed is measured, in so many a second.</summary>
/// <param name="Name">As it stands in the table.</param>
/// <param name="Measure">Runs it for a while and says how many a second it came to.</param>
public sealed record Contender(string Name, Func<Task<double>> Measure);

/// <summary>What a contender came to.</summary>
public sealed record Measured(string Name, double Median, double Least, double Most);

/// <summary>
/// Measures contenders side by side: rounds to warm up, until none is faster than in the round before, as code is in its last
/// tier then; and five rounds that count, in which every one has its turn, so that whatever the machine does meanwhile is done to
/// all. The median of the rounds counts, and only as a ratio to another contender of the same run.
/// </summary>
public static class Interleaved
{
    private const int Rounds = 5;
    private const int MostToWarmUp = 10;

    // As much faster than in the round before is still warming up.
    private const double Faster = 1.05;

    /// <param name="before">Puts what the last round left behind back, before every round; null: nothing is left behind.</param>
    public static async Task<IReadOnlyList<Measured>> Run(IReadOnlyList<Contender> contenders, Func<Task>? before = null)
    {
        before ??= () => Task.CompletedTask;
        await WarmUp(contenders, before);
        var results = contenders.ToDictionary(contender => contender.Name, _ => new List<double>());
        for (var round = 1; round <= Rounds; round++)
        {
            await Console.Error.WriteLineAsync($"round {round} of {Rounds}");
            await before();
            foreach (var contender in contenders)
                results[contender.Name].Add(await contender.Measure());
        }
        return
        [
            .. contenders
                .Select(contender => results[contender.Name].Order().ToList())
                .Zip(contenders, (rounds, contender) => new Measured(contender.Name, rounds[Rounds / 2], rounds[0], rounds[^1])),
        ];
    }

    private static async Task WarmUp(IReadOnlyList<Contender> contenders, Func<Task> before)
    {
        var last = new double[contenders.Count];
        for (var round = 1; round <= MostToWarmUp; round++)
        {
            await before();
            var now = new double[contenders.Count];
            for (var n = 0; n < contenders.Count; n++)
                now[n] = await contenders[n].Measure();
            if (round > 1 && now.Zip(last).All(pair => pair.First < pair.Second * Faster))
                return;
            last = now;
        }
    }

    /// <summary>A table with one column for each denominator: how many of it one of the row is worth.</summary>
    public static void Print(string what, IReadOnlyList<Measured> measured, IReadOnlyList<string> denominators)
    {
        Console.WriteLine();
        Console.WriteLine($"| {what} | a second, median (least – most) | {string.Join(" | ", denominators.Select(name => $"÷ {name}"))} |");
        Console.WriteLine($"|---|---|{string.Concat(Enumerable.Repeat("---|", denominators.Count))}");
        foreach (var row in measured)
        {
            var ratios = denominators.Select(name =>
                (row.Median / measured.Single(other => other.Name == name).Median).ToString("0.00", CultureInfo.InvariantCulture)
            );
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {row.Name} | {row.Median:0} ({row.Least:0} – {row.Most:0}) | {string.Join(" | ", ratios)} |"
                )
            );
        }
    }
}
