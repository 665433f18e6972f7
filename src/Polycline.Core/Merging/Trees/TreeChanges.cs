using System.Collections.Immutable;

namespace Polycline.Core.Merging.Trees;

/// <summary>What a version changed against the base. Source: the merge file, <i>Answer</i>.</summary>
internal sealed class TreeChanges
{
    // What it came to be; of an order what both have, as it stands.
    private readonly SortedDictionary<MergeSpot, object?> changes = new(MergeSpot.InOrder);

    private TreeChanges() { }

    public IEnumerable<MergeSpot> Spots => changes.Keys;

    public static TreeChanges Of(MergeTree before, MergeTree after)
    {
        var found = new TreeChanges();
        foreach (var thing in after.Things.Values)
            if (before[thing.Id] is { } was)
                found.Add(was, thing);
            else if (before.Has(thing.Parent!))
                found.changes[new(thing.Id, MergeKind.Added)] = null;
        foreach (var gone in before.Things.Values.Where(thing => !after.Has(thing.Id) && after.Has(thing.Parent!)))
            found.changes[new(gone.Id, MergeKind.Removed)] = null;
        return found;
    }

    /// <summary>Whether the other version has the same change: of an order, the same order of what both have.</summary>
    public bool IsIn(MergeSpot spot, TreeChanges other)
    {
        if (!other.changes.TryGetValue(spot, out var there))
            return false;
        if (changes[spot] is not ImmutableArray<string> one || there is not ImmutableArray<string> another)
            return Equals(changes[spot], there);
        return one.Where(another.Contains).SequenceEqual(another.Where(one.Contains));
    }

    private void Add(MergeThing was, MergeThing now)
    {
        if (was.Parent != now.Parent)
            changes[new(now.Id, MergeKind.Moved)] = now.Parent;
        foreach (var field in was.Fields.Keys.Union(now.Fields.Keys))
            if (!Equals(was.Fields.GetValueOrDefault(field), now.Fields.GetValueOrDefault(field)))
                changes[new(now.Id, MergeKind.Field, Field: field)] = now.Fields.GetValueOrDefault(field);
        foreach (var text in was.Texts.Keys.Union(now.Texts.Keys))
        {
            var (before, after) = (TextOf(was, text), TextOf(now, text));
            foreach (var block in before.Keys.Union(after.Keys))
                if (before.GetValueOrDefault(block) != after.GetValueOrDefault(block))
                    changes[new(now.Id, MergeKind.Text, Text: text, Block: block)] = after.GetValueOrDefault(block);
            Order(was.Blocks(text), now.Blocks(text), new(now.Id, MergeKind.Order, Text: text));
        }
        foreach (var list in MergeTree.ListsOf(now.Level))
            Order(was.List(list), now.List(list), new(now.Id, MergeKind.Order, list));
    }

    private void Order(ImmutableArray<string> was, ImmutableArray<string> now, MergeSpot spot)
    {
        ImmutableArray<string> stands = [.. now.Where(was.Contains)];
        if (!was.Where(now.Contains).SequenceEqual(stands))
            changes[spot] = stands;
    }

    private static Dictionary<string, string> TextOf(MergeThing thing, string text) =>
        thing.Texts.TryGetValue(text, out var blocks) ? blocks.ToDictionary(block => block.Id, block => block.Text) : [];
}
