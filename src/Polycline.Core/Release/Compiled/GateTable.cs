using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Release.Compiled;

/// <summary>
/// The gates of one section as they are for students who are alike, waived and replaced leaves worked out. A gate is known by
/// its number; number 0 is always met, and a gate comes after those it asks for. Source: the computation, chapter 5,
/// <i>Waived</i> and <i>Latch</i>.
/// </summary>
internal sealed class GateTable
{
    /// <summary>The number of the gate that is always met.</summary>
    public const int Open = 0;

    private readonly SectionTable section;
    private readonly StudentRecord student;
    private readonly List<Entry> entries = [new([], [], [], false, false, long.MinValue)];
    private readonly List<Ref<Item>> way = [];
    private readonly Dictionary<Ref<Item>, int?> replacements = [];

    // The place on the way at which a leaf came back to an item already replaced; beyond it where none did.
    private int cameBackTo = int.MaxValue;

    public GateTable(SectionTable section, StudentRecord student)
    {
        this.section = section;
        this.student = student;
    }

    /// <param name="Items">What it depends on, by number, its own leaves' and those of the gates it asks for.</param>
    /// <param name="Moments">At which it can change by itself.</param>
    /// <param name="From">The moment from which it is latched.</param>
    private sealed record Entry(GateStep[] Steps, HashSet<int> Items, HashSet<long> Moments, bool IsLatched, bool IsHidden, long From);

    /// <summary>Takes a gate in.</summary>
    /// <param name="from">The moment from which a latched one counts, in ticks.</param>
    /// <returns>Its number; <see cref="Open"/> where it is waived as a whole.</returns>
    public int Add(Gate? gate, long from) =>
        gate is null ? Open : Compile(gate.Root, gate.IsLatched, gate.IsHidden, gate.IsLatched ? from : long.MinValue) ?? Open;

    /// <summary>Everything taken in, laid out in arrays.</summary>
    public Layout LaidOut()
    {
        var roots = new int[entries.Count];
        var steps = new List<GateStep>();
        var moments = entries.SelectMany(MomentsOf).Distinct().Order().ToArray();
        var byItem = Enumerable.Range(0, section.Count).Select(_ => new List<int>()).ToArray();
        var byMoment = moments.ToDictionary(moment => moment, _ => new List<int>());
        for (var gate = Open + 1; gate < entries.Count; gate++)
        {
            roots[gate] = steps.Count;
            steps.AddRange(entries[gate].Steps);
            foreach (var item in entries[gate].Items)
                byItem[item].Add(gate);
            foreach (var moment in MomentsOf(entries[gate]))
                byMoment[moment].Add(gate);
        }
        return new(
            [.. steps],
            roots,
            [.. entries.Select(entry => entry.IsLatched)],
            [.. entries.Select(entry => entry.IsHidden)],
            [.. entries.Select(entry => entry.From)],
            [.. byItem.Select(gates => gates.ToArray())],
            moments,
            [.. moments.Select(moment => byMoment[moment].ToArray())]
        );
    }

    // When a gate can change by itself, and when it begins to be latched.
    private static IEnumerable<long> MomentsOf(Entry entry) =>
        entry.From > long.MinValue ? entry.Moments.Append(entry.From).Distinct() : entry.Moments;

    private int? Compile(GateNode root, bool isLatched, bool isHidden, long from)
    {
        var entry = new Entry([], [], [], isLatched, isHidden, from);
        var steps = new List<GateStep>();
        if (!Write(root, false, steps, entry))
            return null;
        entries.Add(entry with { Steps = [.. steps] });
        return entries.Count - 1;
    }

    // Writes a node's steps; false: it is waived, and nothing was written.
    private bool Write(GateNode node, bool underNot, List<GateStep> steps, Entry entry)
    {
        switch (node)
        {
            case GateNode.AllOf or GateNode.AnyOf or GateNode.AtLeast:
                return WriteTogether(node, underNot, steps, entry);
            case GateNode.Not not:
                var place = steps.Count;
                steps.Add(default);
                if (!Write(not.Node, true, steps, entry))
                {
                    steps.RemoveAt(place);
                    return false;
                }
                steps[place] = new(GateStepKind.Not, steps.Count - place);
                return true;
            case GateNode.Done done when !student.IsFor(section.Schedule, done.Item):
                if (underNot || Replacement(done.Item) is not { } instead)
                    return false;
                entry.Items.UnionWith(entries[instead].Items);
                entry.Moments.UnionWith(entries[instead].Moments);
                steps.Add(new(GateStepKind.Gate, Item: instead));
                return true;
            case GateNode.HasTaught taught when section.Schedule.Lesson(taught.Lesson) is { Skipped: true }:
                return false;
            default:
                var step = StepOf(node);
                if (step.Kind is GateStepKind.Done or GateStepKind.Best or GateStepKind.Latest or GateStepKind.Picked)
                    entry.Items.Add(step.Item);
                if (step.Kind == GateStepKind.Since)
                    entry.Moments.Add(step.Since);
                steps.Add(step);
                return true;
        }
    }

    private bool WriteTogether(GateNode node, bool underNot, List<GateStep> steps, Entry entry)
    {
        var place = steps.Count;
        steps.Add(default);
        var left = 0;
        foreach (var child in node.Children)
            if (Write(child, underNot, steps, entry))
                left++;
        if (left == 0 && !node.Children.IsEmpty)
        {
            steps.RemoveAt(place);
            return false;
        }
        var length = steps.Count - place;
        steps[place] = node switch
        {
            GateNode.AllOf => new(GateStepKind.All, length),
            GateNode.AnyOf => new(GateStepKind.Any, length),
            _ => new(GateStepKind.AtLeast, length, Least: Math.Min(((GateNode.AtLeast)node).Least, left)),
        };
        return true;
    }

    // The gate that stands instead of a leaf on an item that is not for the student; null: the leaf is waived.
    private int? Replacement(Ref<Item> item)
    {
        if (way.IndexOf(item) is var place && place >= 0)
        {
            cameBackTo = Math.Min(cameBackTo, place);
            return null;
        }
        if (section.Schedule.GateOf(item) is not { } gate)
            return null;
        if (replacements.TryGetValue(item, out var known))
            return known;
        var before = cameBackTo;
        cameBackTo = int.MaxValue;
        way.Add(item);
        var instead = Compile(gate.Root, false, false, long.MinValue);
        way.RemoveAt(way.Count - 1);
        // What it came to depends on the way only where it came back to something before it.
        if (cameBackTo >= way.Count)
        {
            replacements[item] = instead;
            cameBackTo = int.MaxValue;
        }
        cameBackTo = Math.Min(before, cameBackTo);
        return instead;
    }

    private GateStep StepOf(GateNode leaf) =>
        leaf switch
        {
            GateNode.Done done => new(GateStepKind.Done, Item: section.NumberOf(done.Item)!.Value, Least: (int)DeedsOf(done.Deed)),
            GateNode.Scored or GateNode.Picked when !student.IsFor(section.Schedule, leaf.ItemOf!.Value) => new(GateStepKind.Any),
            GateNode.Scored scored => ScoreStep(scored, section.NumberOf(scored.Item)!.Value),
            GateNode.Picked picked => new(
                GateStepKind.Picked,
                Item: section.NumberOf(picked.Choice)!.Value,
                Least: section.OptionOf(picked.Option)!.Value
            ),
            GateNode.InGroup group => student.Groups.Contains(group.Group) ? new(GateStepKind.All) : new(GateStepKind.Any),
            GateNode.HasTaught taught => Since(
                section.Schedule.Section.Taught.Where(record => record.Lesson == taught.Lesson && record.Done).Min(record => record.At)
            ),
            GateNode.From from => Since(section.Schedule.MomentOf(from.Anchor)),
            _ => throw new ArgumentException($"'{leaf}' is no leaf.", nameof(leaf)),
        };

    private GateStep ScoreStep(GateNode.Scored scored, int item) =>
        new(
            scored.Latest == true ? GateStepKind.Latest : GateStepKind.Best,
            Item: item,
            Least: section.PartFrom(item, scored.Min ?? 0),
            Below: scored.Below is { } below ? section.PartFrom(item, below) : int.MaxValue
        );

    private static GateStep Since(Instant? moment) =>
        moment is { } at ? new(GateStepKind.Since, Since: Ticks.Of(at)) : new(GateStepKind.Any);

    private static Deeds DeedsOf(Deed deed) =>
        deed switch
        {
            Deed.Opened => Deeds.Opened,
            Deed.Ticked => Deeds.Ticked,
            Deed.Submitted => Deeds.Submitted,
            _ => Deeds.Returned,
        };

    /// <summary>Gates in arrays, each array but the last three by gate number.</summary>
    /// <param name="Steps">Of all gates, one after the other.</param>
    /// <param name="Roots">Where a gate's steps begin.</param>
    /// <param name="From">From which moment a latched one counts.</param>
    /// <param name="ByItem">For each item the gates that what a student does with it can change, in order.</param>
    /// <param name="Moments">At which a gate can change by itself, rising.</param>
    /// <param name="ByMoment">For each of these the gates, in order.</param>
    internal sealed record Layout(
        GateStep[] Steps,
        int[] Roots,
        bool[] Latched,
        bool[] Hidden,
        long[] From,
        int[][] ByItem,
        long[] Moments,
        int[][] ByMoment
    );
}

/// <summary>Moments as the arrays keep them: in ticks of 100 ns from 1970.</summary>
internal static class Ticks
{
    public static long Of(Instant moment) => moment.ToUnixTimeTicks();
}
