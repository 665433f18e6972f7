namespace Polycline.Core.Merging.Trees;

/// <summary>What is there, and where. Source: the merge file, 1 and 2.</summary>
internal sealed class MergePresence
{
    private readonly MergeTree past;
    private readonly MergeTree mine;
    private readonly MergeTree theirs;
    private readonly MergeSettling settling;
    private readonly HashSet<string> gone = [];

    // What stood in something that was removed, and stays where the remover has it. Null: each side removed what it stood in on the
    // other, so neither place is set by that.
    private readonly Dictionary<string, MergeSide?> standsWith = [];

    public MergePresence(MergeTree past, MergeTree mine, MergeTree theirs, MergeSettling settling)
    {
        (this.past, this.mine, this.theirs, this.settling) = (past, mine, theirs, settling);
        foreach (var id in past.Things.Keys.Where(id => id != MergeTree.Root))
            if (!mine.Has(id) && !theirs.Has(id))
                gone.Add(id);
        foreach (var keeper in new[] { MergeSide.Mine, MergeSide.Theirs })
        foreach (var top in TopmostRemoved(keeper).ToList())
            Settle(top, keeper);
        foreach (var id in mine.Things.Keys.Union(theirs.Things.Keys))
            if (id != MergeTree.Root && !gone.Contains(id))
                Places[id] = PlaceOf(id);
        foreach (var id in Places.Keys.ToList())
            ComeBack(id);
    }

    /// <summary>What each thing stands in, for all that are there but the root.</summary>
    public Dictionary<string, string> Places { get; } = [];

    /// <summary>What came back because something stands in it: as that side has it.</summary>
    public Dictionary<string, MergeSide> Back { get; } = [];

    private MergeTree Of(MergeSide side) => side == MergeSide.Mine ? mine : theirs;

    private static MergeSide Other(MergeSide side) => side == MergeSide.Mine ? MergeSide.Theirs : MergeSide.Mine;

    private bool IsRemoved(string id, MergeSide keeper) => past.Has(id) && Of(keeper).Has(id) && !Of(Other(keeper)).Has(id);

    private IEnumerable<string> TopmostRemoved(MergeSide keeper) =>
        Of(keeper).Things.Values.Where(thing => IsRemoved(thing.Id, keeper) && !IsRemoved(thing.Parent!, keeper)).Select(thing => thing.Id);

    private void Settle(string top, MergeSide keeper)
    {
        var (kept, remover) = (Of(keeper), Other(keeper));
        var below = kept.Down(top).ToList();
        if (!below.All(id => IsUntouched(id, kept)))
        {
            MergeValue? In(MergeTree tree) => tree.Has(top) ? MergeValue.Of(tree.Down(top)) : null;
            var chosen = settling.Choose(new(top, MergeKind.Removed), In(past), In(mine), In(theirs));
            if (chosen == keeper)
                return;
            foreach (var id in below.Where(Of(remover).Has))
                standsWith[id] = standsWith.TryGetValue(id, out var already) && already != remover ? null : remover;
        }
        gone.UnionWith(below.Where(id => !Of(remover).Has(id)));
    }

    // As it was in the base, and what it holds in the same order.
    private bool IsUntouched(string id, MergeTree kept)
    {
        var now = kept[id]!;
        return past[id] is { } was
            && was.Parent == now.Parent
            && MergeSettling.Same(was.Fields, now.Fields)
            && MergeSettling.Same(was.Texts, now.Texts)
            && MergeTree
                .ListsOf(now.Level)
                .All(list => was.List(list).Where(now.List(list).Contains).SequenceEqual(now.List(list).Where(was.List(list).Contains)));
    }

    private string PlaceOf(string id)
    {
        var (here, there) = (mine[id]?.Parent, theirs[id]?.Parent);
        var place =
            here is null || there is null ? (here ?? there)!
            : standsWith.GetValueOrDefault(id) is { } side ? Of(side)[id]!.Parent!
            : settling.OneOfThree(new(id, MergeKind.Moved), past[id]?.Parent, here, there, MergeValue.Of)!;
        if (!gone.Contains(place))
            return place;
        var elsewhere = place == here ? there : here;
        return elsewhere is not null && !gone.Contains(elsewhere) ? elsewhere : (here ?? there)!;
    }

    // What something stands in is there too, and so is what that stands in.
    private void ComeBack(string id)
    {
        var place = Places[id];
        if (place == MergeTree.Root || Places.ContainsKey(place))
            return;
        var side = mine[id]?.Parent == place ? MergeSide.Mine : MergeSide.Theirs;
        Back[place] = side;
        Places[place] = Of(side)[place]!.Parent!;
        ComeBack(place);
    }
}
