using System.Collections.Immutable;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Core.Findings;

/// <summary>
/// A gate as it stands in one section, leaves on what is skipped there replaced, waived or unmet; <c>for</c>, excuses and
/// the student layer aside. Source: the computation, chapters 5 and 6.
/// </summary>
internal sealed class SectionGate
{
    // What can never be met, and has no atoms.
    private static readonly GateNode Unmet = new GateNode.AnyOf([]);
    private readonly SectionSchedule schedule;
    private readonly Func<Ref<Item>, bool> isOut;
    private readonly HashSet<string> waived = [];
    private readonly HashSet<Ref<Item>> unmetOn = [];

    public SectionGate(Gate gate, SectionSchedule schedule)
        : this(gate, schedule, item => schedule.Item(item) is null or { Item.Skipped: true }) { }

    /// <param name="isOut">What is taken to be skipped, such as all that is not for a student.</param>
    public SectionGate(Gate gate, SectionSchedule schedule, Func<Ref<Item>, bool> isOut)
    {
        (this.schedule, this.isOut) = (schedule, isOut);
        Node = Change(gate.Root, false, []);
    }

    /// <summary>Null: waived as a whole.</summary>
    public GateNode? Node { get; }

    /// <summary>What is skipped and so made a leaf drop out or be replaced: items and lessons.</summary>
    public IReadOnlySet<string> Waived => waived;

    /// <summary>Items skipped here on which a score or a pick is asked.</summary>
    public IReadOnlySet<Ref<Item>> UnmetOn => unmetOn;

    private GateNode? Change(GateNode node, bool underNot, ImmutableList<Ref<Item>> replaced)
    {
        switch (node)
        {
            case GateNode.Not not:
                return Change(not.Node, true, replaced) is { } inner ? new GateNode.Not(inner) : null;
            case GateNode.AllOf or GateNode.AnyOf or GateNode.AtLeast:
                var left = node.Children.Select(child => Change(child, underNot, replaced)).OfType<GateNode>().ToImmutableArray();
                if (left.IsEmpty && !node.Children.IsEmpty)
                    return null;
                return node switch
                {
                    GateNode.AllOf => new GateNode.AllOf(left),
                    GateNode.AnyOf => new GateNode.AnyOf(left),
                    _ => new GateNode.AtLeast(Math.Min(((GateNode.AtLeast)node).Least, left.Length), left),
                };
            case GateNode.HasTaught taught when schedule.Lesson(taught.Lesson) is { Skipped: true }:
                waived.Add(taught.Lesson.Name);
                return null;
            case GateNode.Done done when isOut(done.Item):
                waived.Add(done.Item.Name);
                return underNot || replaced.Contains(done.Item) || schedule.GateOf(done.Item) is not { } gate
                    ? null
                    : Change(gate.Root, false, replaced.Add(done.Item));
            case GateNode.Scored or GateNode.Picked when isOut(node.ItemOf!.Value):
                unmetOn.Add(node.ItemOf!.Value);
                return Unmet;
            default:
                return node;
        }
    }
}
