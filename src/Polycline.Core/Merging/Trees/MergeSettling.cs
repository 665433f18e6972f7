using System.Collections.Immutable;

namespace Polycline.Core.Merging.Trees;

/// <summary>Settles what the two sides changed differently, by what was chosen. Source: the merge file, <i>One of three</i>.</summary>
internal sealed class MergeSettling(IReadOnlyDictionary<MergeSpot, MergeSide> choices)
{
    private readonly SortedDictionary<MergeSpot, MergeConflict> conflicts = new(MergeSpot.InOrder);

    public IEnumerable<MergeConflict> Conflicts => conflicts.Values;

    public bool Met(MergeSpot spot) => conflicts.ContainsKey(spot);

    /// <summary>The side that counts in a conflict: mine as long as nobody has chosen.</summary>
    public MergeSide Choose(MergeSpot spot, MergeValue? past, MergeValue? mine, MergeValue? theirs)
    {
        MergeSide? take = choices.TryGetValue(spot, out var chosen) ? chosen : null;
        conflicts[spot] = new(spot, past, mine, theirs, take);
        return take ?? MergeSide.Mine;
    }

    /// <summary>One of three values; null: absent, which is a value too.</summary>
    public T? OneOfThree<T>(MergeSpot spot, T? past, T? mine, T? theirs, Func<T, MergeValue> told)
        where T : class
    {
        if (Equals(mine, theirs) || Equals(theirs, past))
            return mine;
        if (Equals(mine, past))
            return theirs;
        MergeValue? Told(T? value) => value is null ? null : told(value);
        return Choose(spot, Told(past), Told(mine), Told(theirs)) == MergeSide.Mine ? mine : theirs;
    }

    /// <summary>
    /// The order of a list or a text. What both sides have in it stands in one of their orders; everything else follows what came
    /// before it in the side that has it. Source: the merge file, 5.
    /// </summary>
    /// <param name="members">What is in it.</param>
    /// <param name="past">Null: it is not in the base, as of the others.</param>
    public ImmutableArray<string> Order(
        MergeSpot spot,
        IReadOnlySet<string> members,
        ImmutableArray<string>? past,
        ImmutableArray<string>? mine,
        ImmutableArray<string>? theirs
    )
    {
        var (own, others) = (mine ?? [], theirs ?? []);
        var shared = own.Where(others.Contains).Where(members.Contains).ToHashSet(StringComparer.Ordinal);
        List<string> inMine = [.. own.Where(shared.Contains)],
            inTheirs = [.. others.Where(shared.Contains)],
            inBase = [.. (past ?? []).Where(shared.Contains)];
        var (isMine, isTheirs) = (inMine.SequenceEqual(inBase), inTheirs.SequenceEqual(inBase));
        List<string>? order =
            inMine.SequenceEqual(inTheirs) ? inMine
            : inBase.Count == shared.Count && isMine ? inTheirs
            : inBase.Count == shared.Count && isTheirs ? inMine
            : null;
        var (myRuns, theirRuns) = (Runs(own, shared, members), Runs(others, shared, members));
        var first = MergeSide.Mine;
        if (order is null || myRuns.Keys.Any(theirRuns.ContainsKey))
        {
            MergeValue? Told(ImmutableArray<string>? list) => list is { } ids ? MergeValue.Of(ids) : null;
            first = Choose(spot, Told(past), Told(mine), Told(theirs));
            order ??= first == MergeSide.Mine ? inMine : inTheirs;
        }
        var result = ImmutableArray.CreateBuilder<string>();
        foreach (var before in order.Prepend(""))
        {
            if (before.Length > 0)
                result.Add(before);
            foreach (var runs in first == MergeSide.Mine ? new[] { myRuns, theirRuns } : [theirRuns, myRuns])
                result.AddRange(runs.GetValueOrDefault(before) ?? []);
        }
        return result.ToImmutable();
    }

    public static bool Same(IReadOnlyDictionary<string, MergeValue> one, IReadOnlyDictionary<string, MergeValue> other) =>
        one.Count == other.Count && one.All(pair => Equals(other.GetValueOrDefault(pair.Key), pair.Value));

    public static bool Same(
        IReadOnlyDictionary<string, ImmutableArray<MergeBlock>> one,
        IReadOnlyDictionary<string, ImmutableArray<MergeBlock>> other
    ) => one.Count == other.Count && one.All(pair => other.TryGetValue(pair.Key, out var blocks) && blocks.SequenceEqual(pair.Value));

    // What is not shared, by the shared one before it; empty: it stands before them all.
    private static Dictionary<string, List<string>> Runs(ImmutableArray<string> list, HashSet<string> shared, IReadOnlySet<string> members)
    {
        var runs = new Dictionary<string, List<string>>(StringComparer.Ordinal);
        var before = "";
        foreach (var id in list.Where(members.Contains))
            if (shared.Contains(id))
                before = id;
            else if (runs.TryGetValue(before, out var run))
                run.Add(id);
            else
                runs[before] = [id];
        return runs;
    }
}
