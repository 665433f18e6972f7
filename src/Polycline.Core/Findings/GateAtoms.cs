using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.Findings;

/// <summary>
/// Whether a gate can be met, decided exactly over its leaves' independent atoms, nothing implying anything else.
/// Source: the computation, chapter 6, <i>Can be met</i>.
/// </summary>
internal sealed class GateAtoms
{
    private const int Most = 65_536;
    private readonly GateNode root;
    private readonly List<Atom> atoms = [];
    private readonly Dictionary<object, int> placeOf = [];

    /// <summary>Something that is one of several ways; which leaves hold in each of them.</summary>
    /// <param name="Item">What it is known of; null: no item.</param>
    /// <param name="Ways">How many; the first of an item's is: nothing known.</param>
    private sealed record Atom(Ref<Item>? Item, long Ways, Func<GateNode, int, bool> Holds);

    public GateAtoms(GateNode root, Func<Ref<Item>, Item> itemOf)
    {
        this.root = root;
        var leaves = root.Leaves().ToList();
        foreach (var leaf in leaves)
        {
            var key = KeyOf(leaf);
            if (placeOf.ContainsKey(key))
                continue;
            placeOf[key] = atoms.Count;
            atoms.Add(
                leaf switch
                {
                    GateNode.Scored scored => ScoreAtom(scored.Item, leaves),
                    GateNode.Picked picked => PickAtom(picked.Choice, itemOf(picked.Choice).Picks, leaves),
                    _ => new(leaf.ItemOf, 2, static (_, way) => way == 1),
                }
            );
        }
        IsJudged = atoms.Aggregate(1L, (product, atom) => Math.Min(Most + 1L, product * Math.Min(atom.Ways, Most + 1L))) <= Most;
    }

    /// <summary>False: there are more than 65,536 combinations.</summary>
    public bool IsJudged { get; }

    /// <summary>Whether some combination meets the gate. Only of one that is judged.</summary>
    /// <param name="unknown">Items of which nothing is known.</param>
    public bool CanBeMet(Func<Ref<Item>, bool> unknown)
    {
        var ways = new int[atoms.Count];
        var most = atoms.Select(atom => atom.Item is { } item && unknown(item) ? 1 : (int)atom.Ways).ToArray();
        while (true)
        {
            if (IsMet(root, ways))
                return true;
            var place = 0;
            while (place < ways.Length && ++ways[place] == most[place])
                ways[place++] = 0;
            if (place == ways.Length)
                return false;
        }
    }

    private static object KeyOf(GateNode leaf) =>
        leaf switch
        {
            GateNode.Scored scored => ("score", scored.Item),
            GateNode.Picked picked => ("pick", picked.Choice),
            _ => leaf,
        };

    // No score, or one of the parts into which the p and q of this gate's leaves cut the scores from 0 up.
    private static Atom ScoreAtom(Ref<Item> item, List<GateNode> leaves)
    {
        decimal[] from =
        [
            .. leaves
                .OfType<GateNode.Scored>()
                .Where(leaf => leaf.Item == item)
                .SelectMany(leaf => leaf.Below is { } below ? [leaf.Min ?? 0, below] : new[] { leaf.Min ?? 0 })
                .Append(0)
                .Distinct()
                .Order(),
        ];
        return new(item, from.Length + 1, (leaf, way) => way > 0 && ((GateNode.Scored)leaf).Holds(from[way - 1]));
    }

    // Any set of at most so many of the options this gate names.
    private static Atom PickAtom(Ref<Item> choice, int picks, List<GateNode> leaves)
    {
        string[] options =
        [
            .. leaves.OfType<GateNode.Picked>().Where(leaf => leaf.Choice == choice).Select(leaf => leaf.Option).Distinct(),
        ];
        List<ImmutableHashSet<string>> sets =
        [
            [],
        ];
        for (var size = 1; size <= Math.Min(picks, options.Length) && sets.Count <= Most; size++)
            Extend(sets, options, size);
        return new(choice, sets.Count, (leaf, way) => sets[way].Contains(((GateNode.Picked)leaf).Option));
    }

    // Adds the sets of one size, until there are more than can be judged.
    private static void Extend(List<ImmutableHashSet<string>> sets, string[] options, int size)
    {
        var places = Enumerable.Range(0, size).ToArray();
        while (sets.Count <= Most)
        {
            sets.Add([.. places.Select(place => options[place])]);
            var last = size - 1;
            while (last >= 0 && places[last] == options.Length - size + last)
                last--;
            if (last < 0)
                return;
            places[last]++;
            for (var n = last + 1; n < size; n++)
                places[n] = places[n - 1] + 1;
        }
    }

    private bool IsMet(GateNode node, int[] ways)
    {
        switch (node)
        {
            case GateNode.AllOf all:
                foreach (var child in all.Nodes)
                    if (!IsMet(child, ways))
                        return false;
                return true;
            case GateNode.AnyOf any:
                foreach (var child in any.Nodes)
                    if (IsMet(child, ways))
                        return true;
                return false;
            case GateNode.AtLeast some:
                return some.Nodes.Count(child => IsMet(child, ways)) >= some.Least;
            case GateNode.Not not:
                return !IsMet(not.Node, ways);
            default:
                var place = placeOf[KeyOf(node)];
                return atoms[place].Holds(node, ways[place]);
        }
    }
}
