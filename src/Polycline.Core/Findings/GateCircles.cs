using System.Collections.Immutable;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Findings;

/// <summary>Gates that depend, through other gates, on themselves. Source: the computation, chapter 6, <c>gate-circle</c>.</summary>
internal static class GateCircles
{
    /// <summary>One finding for each group of gates that all depend on one another, or for a gate on itself.</summary>
    public static IEnumerable<PlanFinding> In(Edition edition)
    {
        var owners = GateOwner.Of(edition).ToArray();
        var placeOf = owners.Select((owner, place) => (owner.Name, place)).ToDictionary(pair => pair.Name, pair => pair.place);
        var gatesOn = GatesOn(edition, placeOf);
        var needs = owners
            .Select(owner =>
                owner
                    .Gate.Root.Leaves()
                    .Select(leaf => leaf.ItemOf)
                    .OfType<Ref<Item>>()
                    .SelectMany(item => gatesOn[item])
                    .Distinct()
                    .ToArray()
            )
            .ToArray();
        return Components(needs)
            .Where(group => group.Count > 1 || needs[group[0]].Contains(group[0]))
            .Select(group => new PlanFinding(FindingCode.GateCircle, null, [.. group.Order().Select(place => owners[place].Name)]));
    }

    // The gates an item waits behind: its own, its lesson's and its unit's.
    private static Dictionary<Ref<Item>, int[]> GatesOn(Edition edition, Dictionary<string, int> placeOf)
    {
        var gates = new Dictionary<Ref<Item>, int[]>();
        foreach (var unit in edition.Units)
        {
            foreach (var lesson in unit.Lessons)
            foreach (var item in lesson.Items)
                gates[item.Ref] = Places(item.Ref.Name, lesson.Ref.Name, unit.Ref.Name);
            foreach (var item in unit.Items)
                gates[item.Ref] = Places(item.Ref.Name, unit.Ref.Name);
        }
        return gates;

        int[] Places(params string[] names) => [.. names.Where(placeOf.ContainsKey).Select(name => placeOf[name])];
    }

    // The strongly connected components, by two walks with stacks of their own: a chain of gates may be long.
    private static List<List<int>> Components(int[][] needs)
    {
        var neededBy = new List<int>[needs.Length];
        for (var place = 0; place < needs.Length; place++)
            neededBy[place] = [];
        for (var place = 0; place < needs.Length; place++)
            foreach (var needed in needs[place])
                neededBy[needed].Add(place);
        var finished = Walk(Enumerable.Range(0, needs.Length), place => needs[place], new bool[needs.Length])
            .SelectMany(tree => tree)
            .Reverse()
            .ToList();
        return [.. Walk(finished, place => neededBy[place], new bool[needs.Length])];
    }

    // Each tree reached from the starts, its places in the order they were finished.
    private static IEnumerable<List<int>> Walk(IEnumerable<int> starts, Func<int, IReadOnlyList<int>> next, bool[] seen)
    {
        foreach (var start in starts)
        {
            if (seen[start])
                continue;
            seen[start] = true;
            var tree = new List<int>();
            var stack = new Stack<(int Place, int At)>([(start, 0)]);
            while (stack.TryPop(out var top))
            {
                if (top.At == next(top.Place).Count)
                {
                    tree.Add(top.Place);
                    continue;
                }
                stack.Push(top with { At = top.At + 1 });
                var on = next(top.Place)[top.At];
                if (!seen[on])
                {
                    seen[on] = true;
                    stack.Push((on, 0));
                }
            }
            yield return tree;
        }
    }
}
