using NodaTime;

namespace Polycline.Core.Release.Compiled;

/// <summary>One student's facts on the items of one section, in the order in which they count, by number.</summary>
public sealed class FactTable
{
    private FactTable(Entry[] entries, Attempts[] attempts, PickSlots[] picks, int joinedDay)
    {
        Entries = entries;
        AttemptsOn = attempts;
        PicksOn = picks;
        JoinedDay = joinedDay;
    }

    internal Entry[] Entries { get; }

    /// <summary>By item: its slots for scores, one for each attempt, in their order.</summary>
    internal Attempts[] AttemptsOn { get; }

    /// <summary>By item: its slots for picks, one for each option ever picked.</summary>
    internal PickSlots[] PicksOn { get; }

    /// <summary>What was due on this day or an earlier one is never overdue.</summary>
    internal int JoinedDay { get; }

    /// <summary>How many facts it holds.</summary>
    public int Count => Entries.Length;

    /// <summary>Facts on items of other sections are left out: no gate of this one can ask for them.</summary>
    public static FactTable Of(SectionTable section, StudentRecord student)
    {
        var facts = student.Facts.All.Where(fact => section.NumberOf(fact.Item) is not null).OrderBy(fact => fact.At).ToArray();
        var attempts = new Attempts[section.Count];
        var slots = new Dictionary<(int, int), int>();
        foreach (var item in facts.Where(fact => fact.Event == FactEvent.Scored).GroupBy(fact => section.NumberOf(fact.Item)!.Value))
        {
            var first = slots.Count;
            foreach (var attempt in item.Select(fact => fact.Attempt).Distinct().Order())
                slots.Add((item.Key, attempt), slots.Count);
            attempts[item.Key] = new(first, slots.Count - first);
        }
        var picks = new PickSlots[section.Count];
        var options = new Dictionary<(int, string), int>();
        foreach (
            var item in facts
                .Where(fact => fact is { Event: FactEvent.Picked, Option: not null })
                .GroupBy(fact => section.NumberOf(fact.Item)!.Value)
        )
        {
            var first = options.Count;
            var own = item.Select(fact => fact.Option!).Distinct().ToArray();
            foreach (var option in own)
                options.Add((item.Key, option), options.Count);
            picks[item.Key] = new(
                first,
                [.. own.Select(option => section.OptionOf(option) ?? -1)],
                section.Schedule.Items[item.Key].Item.Item.Picks
            );
        }
        var entries = facts
            .Select(fact =>
            {
                var item = section.NumberOf(fact.Item)!.Value;
                return fact switch
                {
                    { Event: FactEvent.Scored } => new Entry(
                        Ticks.Of(fact.At),
                        item,
                        fact.Event,
                        slots[(item, fact.Attempt)],
                        section.PartOf(item, fact.Score!.Value)
                    ),
                    { Event: FactEvent.Picked } => new(
                        Ticks.Of(fact.At),
                        item,
                        fact.Event,
                        fact.Option is { } option ? options[(item, option)] : -1
                    ),
                    _ => new(Ticks.Of(fact.At), item, fact.Event, fact.Again ? 1 : 0),
                };
            })
            .ToArray();
        return new(entries, attempts, picks, student.JoinedOn?.DayNumber() ?? int.MinValue);
    }

    /// <summary>Reads every fact once, doing nothing with it: what speed is measured against.</summary>
    /// <returns>A sum of all that was read.</returns>
    internal long ReadThrough()
    {
        var sum = 0L;
        foreach (ref readonly var fact in Entries.AsSpan())
            sum += fact.At + fact.Item + (int)fact.Event + fact.Slot + fact.Part;
        return sum;
    }

    /// <summary>Nothing has happened.</summary>
    internal static FactTable None(SectionTable section) =>
        new([], new Attempts[section.Count], new PickSlots[section.Count], int.MinValue);

    /// <param name="At">In ticks.</param>
    /// <param name="Slot">Of a score its attempt's; of a pick its option's, or -1 where it withdraws all; of a giving back 1 for trying
    /// again.</param>
    /// <param name="Part">Of a score: in which part it lies.</param>
    internal readonly record struct Entry(long At, int Item, FactEvent Event, int Slot = 0, int Part = 0);

    internal readonly record struct Attempts(int First, int Count);

    /// <param name="Options">The number of each slot's option; -1: one that nothing asks for.</param>
    /// <param name="Most">How many of them count at once.</param>
    internal readonly record struct PickSlots(int First, int[]? Options, int Most);
}

internal static class DayNumbers
{
    /// <summary>A date as a number that rises from day to day.</summary>
    public static int DayNumber(this LocalDate date) => NodaTime.Period.DaysBetween(LocalDate.MinIsoValue, date);
}
