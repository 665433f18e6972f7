namespace Polycline.Core.Merging.Trees;

/// <summary>Whose version.</summary>
public enum MergeSide
{
    Mine,
    Theirs,
}

/// <summary>What can differ, in the order in which it is listed.</summary>
public enum MergeKind
{
    Added,
    Field,
    Moved,
    Order,
    Removed,
    Text,
}

/// <summary>What a change, a conflict or a choice is about.</summary>
/// <param name="Id">Of the thing; empty: the root.</param>
/// <param name="List">Which list is in another order.</param>
/// <param name="Text">Which text is in another order, or has that block.</param>
public sealed record MergeSpot(
    string Id,
    MergeKind Kind,
    string? List = null,
    string? Field = null,
    string? Text = null,
    string? Block = null
)
{
    /// <summary>By id (the root first), kind, list, field, text, block, each by character code.</summary>
    public static Comparer<MergeSpot> InOrder { get; } =
        Comparer<MergeSpot>.Create(
            (one, other) =>
            {
                var order = string.CompareOrdinal(one.Id, other.Id);
                if (order == 0)
                    order = one.Kind.CompareTo(other.Kind);
                foreach (
                    var (left, right) in new[]
                    {
                        (one.List, other.List),
                        (one.Field, other.Field),
                        (one.Text, other.Text),
                        (one.Block, other.Block),
                    }
                )
                    if (order == 0)
                        order = string.CompareOrdinal(left ?? "", right ?? "");
                return order;
            }
        );
}

/// <summary>Where the two sides changed one thing differently.</summary>
/// <param name="Base">Null: there it is absent, as of the others.</param>
/// <param name="Take">Whose counts; null: nobody has chosen, and mine does.</param>
public sealed record MergeConflict(MergeSpot Spot, MergeValue? Base, MergeValue? Mine, MergeValue? Theirs, MergeSide? Take);
