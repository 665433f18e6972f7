using System.Collections.Immutable;

namespace Polycline.Core.Merging;

/// <summary>A paragraph, heading, list, table or whatever else stands by itself in a text.</summary>
/// <param name="Id">It keeps this while it lives, whatever becomes of its words.</param>
public sealed record TextBlock(string Id, string Html);

/// <summary>What came of two people editing one text at once.</summary>
/// <param name="Twice">
/// The blocks that both changed: the other's stands under its id, mine after it under one of its own. With those that one removed while the
/// other changed them: they stay.
/// </param>
public sealed record MergedText(ImmutableArray<TextBlock> Blocks, ImmutableArray<string> Twice);

/// <summary>
/// Puts together what two people did to a text, block by block: what one changed is as that one has it, and what both changed stands twice.
/// Nothing is lost that somebody wrote. Source: the next edition, part C, 4 and 5; there a person chooses where here both stand.
/// </summary>
public static class BlockMerge
{
    /// <param name="before">What both began with.</param>
    /// <param name="fresh">An id for the block that stands a second time.</param>
    public static MergedText Of(
        IReadOnlyList<TextBlock> before,
        IReadOnlyList<TextBlock> mine,
        IReadOnlyList<TextBlock> theirs,
        Func<TextBlock, string> fresh
    )
    {
        var (was, own, other) = (ById(before), ById(mine), ById(theirs));
        var (says, second, twice) = (new Dictionary<string, TextBlock>(), new Dictionary<string, TextBlock>(), new List<string>());
        foreach (var id in own.Keys.Union(other.Keys))
        {
            var (b, m, t) = (was.GetValueOrDefault(id), own.GetValueOrDefault(id), other.GetValueOrDefault(id));
            if (m == t || t == b)
                Keep(m);
            else if (m == b)
                Keep(t);
            else
            {
                twice.Add(id);
                Keep(t ?? m);
                if (m is not null && t is not null)
                    second[id] = m with { Id = fresh(m) };
            }
        }
        var order = Order([.. was.Keys], [.. own.Keys.Where(says.ContainsKey)], [.. other.Keys.Where(says.ContainsKey)]);
        return new([.. order.SelectMany(id => second.TryGetValue(id, out var again) ? new[] { says[id], again } : [says[id]])], [.. twice]);

        void Keep(TextBlock? block)
        {
            if (block is not null)
                says[block.Id] = block;
        }
    }

    // In the order they stand in; an id a second time is no block of its own.
    private static OrderedDictionary<string, TextBlock> ById(IReadOnlyList<TextBlock> blocks)
    {
        var byId = new OrderedDictionary<string, TextBlock>(StringComparer.Ordinal);
        foreach (var block in blocks)
            byId.TryAdd(block.Id, block);
        return byId;
    }

    // Everything that is there: what both have in one order, and after each of them what only one has there.
    private static List<string> Order(IReadOnlyList<string> before, IReadOnlyList<string> mine, IReadOnlyList<string> theirs)
    {
        var (inTheirs, inMine) = (theirs.ToHashSet(), mine.ToHashSet());
        var (ours, others) = (mine.Where(inTheirs.Contains).ToList(), theirs.Where(inMine.Contains).ToList());
        var shared = ours.ToHashSet();
        var was = before.Where(shared.Contains).ToList();
        var order = was.Count == ours.Count && was.SequenceEqual(ours) ? others : ours;
        var (afterMine, afterTheirs) = (Runs(mine, shared), Runs(theirs, shared));
        return [.. After(""), .. order.SelectMany(id => After(id).Prepend(id))];

        IEnumerable<string> After(string id) => afterMine[id].Concat(afterTheirs[id]);
    }

    // What stands alone in one list, by the shared one it follows; "" for the beginning.
    private static ILookup<string, string> Runs(IReadOnlyList<string> list, HashSet<string> shared)
    {
        var follows = "";
        var runs = new List<(string Follows, string Id)>();
        foreach (var id in list)
            if (shared.Contains(id))
                follows = id;
            else
                runs.Add((follows, id));
        return runs.ToLookup(run => run.Follows, run => run.Id);
    }
}
