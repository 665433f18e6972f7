using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Core.Release;

/// <summary>
/// Gates as they come out for one student in one section. Source: the computation, chapter 5, <i>Waived</i> and <i>Latch</i>.
/// </summary>
public sealed class GateEvaluation(SectionSchedule schedule, StudentRecord student)
{
    /// <summary>How a gate comes out at <paramref name="at"/>, whatever it was before.</summary>
    public GateTrace Trace(Gate gate, Instant at) => Trace(gate.Root, at, false, []);

    /// <summary>
    /// When a latched gate was met for the first time, from <paramref name="from"/> to <paramref name="to"/>; null: it was
    /// not. It can change only at facts, taught records and <c>from</c> moments.
    /// </summary>
    public Instant? FirstMet(Gate gate, Instant from, Instant to)
    {
        if (to < from)
            return null;
        var moments = MomentsOf(Trace(gate, to)).Where(moment => from < moment && moment < to).Append(from).Append(to);
        foreach (var moment in moments.Distinct().Order())
            if (Trace(gate, moment).Outcome != Outcome.NotMet)
                return moment;
        return null;
    }

    /// <summary>The leaves in the way of a gate that is not met, as written. Source: chapter 5, decision 7.</summary>
    public static IEnumerable<GateNode> Missing(GateTrace trace) =>
        trace switch
        {
            { Outcome: not Outcome.NotMet } => [],
            { Node: GateNode.Not } => trace.Below.SelectMany(LeavesUnder),
            { Below.IsEmpty: true } => trace.Node.IsLeaf ? [trace.Node] : [],
            _ => trace.Below.SelectMany(Missing),
        };

    /// <summary>The unmet leaves that a gate comes down to, none under a <c>not</c>. Source: chapter 11, <i>catchUp</i>.</summary>
    public static IEnumerable<GateNode> Wanted(GateTrace trace) =>
        trace switch
        {
            { Outcome: not Outcome.NotMet } or { Node: GateNode.Not } => [],
            { Below.IsEmpty: true } => trace.Node.IsLeaf ? [trace.Node] : [],
            _ => trace.Below.SelectMany(Wanted),
        };

    /// <summary>The moments that a gate's <c>from</c> parts name in this section, those of what replaces a part too.</summary>
    public IEnumerable<Instant> FromsOf(GateTrace trace) =>
        trace is { Below.IsEmpty: true, Node: GateNode.From from }
            ? schedule.MomentOf(from.Anchor) is { } moment
                ? [moment]
                : []
            : trace.Below.SelectMany(FromsOf);

    private static IEnumerable<GateNode> LeavesUnder(GateTrace trace) =>
        trace.Outcome == Outcome.Waived ? []
        : trace.Node.IsLeaf ? [trace.Node]
        : trace.Below.SelectMany(LeavesUnder);

    private GateTrace Trace(GateNode node, Instant at, bool underNot, ImmutableList<Ref<Item>> replaced)
    {
        switch (node)
        {
            case GateNode.AllOf or GateNode.AnyOf or GateNode.AtLeast:
                var below = node.Children.Select(child => Trace(child, at, underNot, replaced)).ToImmutableArray();
                return new(node, Together(node, below), below);
            case GateNode.Not not:
                var inner = Trace(not.Node, at, true, replaced);
                return new(
                    node,
                    inner.Outcome switch
                    {
                        Outcome.Met => Outcome.NotMet,
                        Outcome.NotMet => Outcome.Met,
                        _ => Outcome.Waived,
                    },
                    [inner]
                );
            case GateNode.Done done when !student.IsFor(schedule, done.Item):
                return Replacement(done, at, underNot, replaced);
            default:
                return new(node, OfLeaf(node, at), []);
        }
    }

    private static Outcome Together(GateNode node, ImmutableArray<GateTrace> below)
    {
        var left = below.Count(trace => trace.Outcome != Outcome.Waived);
        if (left == 0 && !below.IsEmpty)
            return Outcome.Waived;
        var met = below.Count(trace => trace.Outcome == Outcome.Met);
        var enough = node switch
        {
            GateNode.AllOf => met == left,
            GateNode.AnyOf => met > 0,
            _ => met >= Math.Min(((GateNode.AtLeast)node).Least, left),
        };
        return enough ? Outcome.Met : Outcome.NotMet;
    }

    // In place of a leaf on an item that is not for the student stands that item's own gate.
    private GateTrace Replacement(GateNode.Done leaf, Instant at, bool underNot, ImmutableList<Ref<Item>> replaced)
    {
        if (underNot || replaced.Contains(leaf.Item) || schedule.GateOf(leaf.Item) is not { } gate)
            return new(leaf, Outcome.Waived, [], leaf.Item);
        var instead = Trace(gate.Root, at, false, replaced.Add(leaf.Item));
        return new(leaf, instead.Outcome, [instead], leaf.Item);
    }

    private Outcome OfLeaf(GateNode leaf, Instant at)
    {
        if (leaf is GateNode.HasTaught { Lesson: var lesson } && schedule.Lesson(lesson) is { Skipped: true })
            return Outcome.Waived;
        var met = leaf switch
        {
            GateNode.Done done => student.Facts.Holds(done.Item, done.Deed, at),
            GateNode.Scored scored => student.IsFor(schedule, scored.Item)
                && student.Facts.Score(scored.Item, scored.Latest == true, at) is { } score
                && scored.Holds(score),
            GateNode.Picked picked => student.IsFor(schedule, picked.Choice)
                && student.Facts.Picked(picked.Choice, schedule.Item(picked.Choice)!.Item.Item.Picks, at).Contains(picked.Option),
            GateNode.InGroup group => student.Groups.Contains(group.Group),
            GateNode.HasTaught taught => schedule.Section.Taught.Any(record =>
                record.Lesson == taught.Lesson && record.Done && record.At <= at
            ),
            GateNode.From from => schedule.MomentOf(from.Anchor) <= at,
            _ => throw new ArgumentException($"'{leaf}' is no leaf.", nameof(leaf)),
        };
        return met ? Outcome.Met : Outcome.NotMet;
    }

    private IEnumerable<Instant> MomentsOf(GateTrace trace) =>
        trace.Below.IsEmpty
            ? trace.Node switch
            {
                GateNode.HasTaught taught => schedule
                    .Section.Taught.Where(record => record.Lesson == taught.Lesson && record.At is not null)
                    .Select(record => record.At!.Value),
                GateNode.From from => schedule.MomentOf(from.Anchor) is { } moment ? [moment] : [],
                { ItemOf: { } item } => student.Facts.MomentsOf(item),
                _ => [],
            }
            : trace.Below.SelectMany(MomentsOf);
}
