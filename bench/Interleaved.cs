using System.Globalization;

namespace Polycline.Bench;

/// <summary>Something whose speed is measured, in so many a second.</summary>
/// <param name="Name">As it stands in the table.</param>
/// <param name="Measure">Runs it for a while and says how many a second it came to.</param>
public sealed record Contender(string Name, Func<Task<double>> Measure);

/// <summary>What a contender came to.</summary>
public sealed record Measured(string Name, double Median, double Least, double Most);

/// <summary>
/// Measures contenders side by side: each once to warm up, then five rounds in which every one has its turn, so that
/// whatever the machine does meanwhile is done to all. The median of the rounds counts, and only as a ratio to another
/// contender of the same run.
/// </summary>
public static class Interleaved
{
    private const int Rounds = 5;

    public static async Task<IReadOnlyList<Measured>> Run(IReadOnlyList<Contender> contenders)
    {
        foreach (var contender in contenders)
            await contender.Measure();
        var results = contenders.ToDictionary(contender => contender.Name, _ => new List<double>());
        for (var round = 1; round <= Rounds; round++)
        {
            await Console.Error.WriteLineAsync($"round {round} of {Rounds}");
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
