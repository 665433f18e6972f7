using System.Collections.Immutable;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Findings;

/// <summary>Where branches of a score or a choice leave a gap or overlap. Source: the computation, chapter 6.</summary>
internal static class Branches
{
    /// <param name="Alone">Its gate has nothing else.</param>
    private sealed record Branch(string Name, GateNode.Scored Leaf, bool Alone);

    public static IEnumerable<PlanFinding> Of(Edition edition)
    {
        var branches = edition
            .InReadingOrder()
            .Where(item => item.Gate is not null)
            .SelectMany(item => BranchesOf(item.Ref.Name, item.Gate!.Root))
            .ToLookup(branch => branch.Leaf.Item);
        foreach (var item in edition.InReadingOrder().Where(item => branches[item.Ref].Skip(1).Any()))
        {
            var own = branches[item.Ref].ToList();
            var gaps = Gaps(own);
            if (!gaps.IsEmpty)
                yield return new(FindingCode.BranchGap, null, [item.Ref.Name, .. own.Select(branch => branch.Name)], gaps);
            for (var one = 0; one < own.Count; one++)
            for (var other = one + 1; other < own.Count; other++)
                if (own[one].Alone && own[other].Alone && Overlap(own[one].Leaf, own[other].Leaf))
                    yield return new(FindingCode.BranchOverlap, null, [item.Ref.Name, own[one].Name, own[other].Name]);
        }
        foreach (var finding in ChoiceGaps(edition))
            yield return finding;
    }

    // A gate is a branch of an item where it is a score leaf on it, or an all with exactly one such leaf directly in it.
    private static IEnumerable<Branch> BranchesOf(string name, GateNode root) =>
        root switch
        {
            GateNode.Scored leaf => [new(name, leaf, true)],
            GateNode.AllOf all => all
                .Nodes.OfType<GateNode.Scored>()
                .GroupBy(leaf => leaf.Item)
                .Where(leaves => leaves.Count() == 1)
                .Select(leaves => new Branch(name, leaves.Single(), all.Nodes.Length == 1)),
            _ => [],
        };

    // The parts of 0…100 that no branch takes; a branch without an upper bound takes 100 and more.
    private static ImmutableArray<(decimal From, decimal To)> Gaps(List<Branch> branches)
    {
        var gaps = ImmutableArray.CreateBuilder<(decimal, decimal)>();
        var covered = 0m;
        foreach (var (from, below) in branches.Select(branch => (branch.Leaf.Min ?? 0, branch.Leaf.Below)).OrderBy(range => range.Item1))
        {
            if (below is null)
            {
                if (from > covered)
                    gaps.Add((covered, from));
                return gaps.ToImmutable();
            }
            if (below <= from)
                continue;
            if (from > covered)
                gaps.Add((covered, from));
            covered = Math.Max(covered, below.Value);
        }
        gaps.Add((covered, 100));
        return gaps.ToImmutable();
    }

    private static bool Overlap(GateNode.Scored one, GateNode.Scored other) =>
        Math.Max(one.Min ?? 0, other.Min ?? 0) < Math.Min(one.Below ?? decimal.MaxValue, other.Below ?? decimal.MaxValue);

    // Some but not all options of a choice are named by gates.
    private static IEnumerable<PlanFinding> ChoiceGaps(Edition edition)
    {
        var named = GateOwner
            .Of(edition)
            .SelectMany(owner => owner.Gate.Root.Leaves())
            .OfType<GateNode.Picked>()
            .ToLookup(leaf => leaf.Choice, leaf => leaf.Option);
        foreach (var choice in edition.InReadingOrder().Where(item => named.Contains(item.Ref)))
        {
            var untied = choice.Options.Except(named[choice.Ref]).ToImmutableArray();
            if (!untied.IsEmpty)
                yield return new(FindingCode.ChoiceGap, null, [choice.Ref.Name], Options: untied);
        }
    }
}
