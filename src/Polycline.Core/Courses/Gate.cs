using System.Collections.Immutable;

namespace Polycline.Core.Courses;

/// <summary>What must be met before a unit, lesson or item opens. Source: the computation, chapter 5.</summary>
/// <param name="Root">What is to be met.</param>
/// <param name="Latch">Once met it stays met; null: as its leaves suggest.</param>
/// <param name="WhenLocked">What students see while it is not met; null: as its leaves suggest.</param>
public sealed record Gate(GateNode Root, bool? Latch = null, WhenLocked? WhenLocked = null)
{
    /// <summary>True by default, but false where a choice leaf or a <c>not</c> stands in it.</summary>
    public bool IsLatched { get; } = Latch ?? !Root.WithAllBelow().Any(node => node is GateNode.Picked or GateNode.Not);

    /// <summary>
    /// False by default, but true where students should not read what it asks: that they are not in a group, or what to
    /// do worse.
    /// </summary>
    public bool IsHidden { get; } =
        (
            WhenLocked
            ?? (
                Root.WithAllBelow()
                    .Any(node => node is GateNode.InGroup or GateNode.Picked or GateNode.Not or GateNode.Scored { Below: not null })
                    ? Courses.WhenLocked.Hide
                    : Courses.WhenLocked.Show
            )
        ) == Courses.WhenLocked.Hide;
}

/// <summary>What students see of something whose gate is not met.</summary>
public enum WhenLocked
{
    Show,
    Hide,
}

/// <summary>A gate's nodes and leaves.</summary>
public abstract record GateNode
{
    private GateNode() { }

    public sealed record AllOf(ImmutableArray<GateNode> Nodes) : GateNode;

    public sealed record AnyOf(ImmutableArray<GateNode> Nodes) : GateNode;

    /// <param name="Least">0 … the number of nodes.</param>
    public sealed record AtLeast(int Least, ImmutableArray<GateNode> Nodes) : GateNode;

    public sealed record Not(GateNode Node) : GateNode;

    /// <summary>The student did that with an item, or was given it back to go on.</summary>
    public sealed record Done(Ref<Item> Item, Deed Deed) : GateNode;

    /// <summary>A percentage score s on an item with <paramref name="Min"/> ≤ s &lt; <paramref name="Below"/>.</summary>
    /// <param name="Latest">True: that of the attempt with the highest number; false: the best of them; null: not said, the best.</param>
    public sealed record Scored(Ref<Item> Item, decimal? Min, decimal? Below, bool? Latest = null) : GateNode
    {
        public bool Holds(decimal score) => score >= (Min ?? 0) && !(score >= Below);
    }

    /// <summary>That option of a choice is picked.</summary>
    public sealed record Picked(Ref<Item> Choice, string Option) : GateNode;

    /// <summary>The student is in the group.</summary>
    public sealed record InGroup(string Group) : GateNode;

    /// <summary>The section has been taught the lesson.</summary>
    public sealed record HasTaught(Ref<Lesson> Lesson) : GateNode;

    /// <summary>That moment has come.</summary>
    public sealed record From(Anchor Anchor) : GateNode;

    /// <summary>What stands directly under it; a leaf has nothing.</summary>
    public ImmutableArray<GateNode> Children =>
        this switch
        {
            AllOf all => all.Nodes,
            AnyOf any => any.Nodes,
            AtLeast some => some.Nodes,
            Not not => [not.Node],
            _ => [],
        };

    public bool IsLeaf => this is not (AllOf or AnyOf or AtLeast or Not);

    /// <summary>The item a leaf is about; null: none.</summary>
    public Ref<Item>? ItemOf =>
        this switch
        {
            Done done => done.Item,
            Scored scored => scored.Item,
            Picked picked => picked.Choice,
            _ => null,
        };

    /// <summary>It and all nodes under it, in the order written.</summary>
    public IEnumerable<GateNode> WithAllBelow() => Children.SelectMany(node => node.WithAllBelow()).Prepend(this);

    /// <summary>Its leaves, in the order written.</summary>
    public IEnumerable<GateNode> Leaves() => WithAllBelow().Where(node => node.IsLeaf);
}

/// <summary>What a student can have done with an item.</summary>
public enum Deed
{
    Opened,

    /// <summary>Can be taken back.</summary>
    Ticked,

    /// <summary>Can be taken back.</summary>
    Submitted,

    /// <summary>The latest giving back says <i>go on</i>.</summary>
    Returned,
}
