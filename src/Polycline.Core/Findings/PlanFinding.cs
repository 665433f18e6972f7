using System.Collections.Immutable;
using Polycline.Core.Calendars;
using Polycline.Core.Planning;

namespace Polycline.Core.Findings;

/// <summary>Something noticed over a whole plan. Source: the computation, chapters 1, 5 and 6.</summary>
/// <param name="Section">The section it is of; null: of the edition.</param>
/// <param name="Gaps">Parts of 0…100 % that lead nowhere, each from and to; <c>branch-gap</c> only.</param>
/// <param name="Options">
/// Of <c>choice-gap</c> those that nothing is tied to; of <c>choice-untied</c> the one that the item seems to be for.
/// </param>
public sealed record PlanFinding(
    FindingCode Code,
    string? Section,
    ImmutableArray<string> Targets,
    ImmutableArray<(decimal From, decimal To)>? Gaps = null,
    ImmutableArray<string>? Options = null
)
{
    /// <summary>With the titles of the options in place of their ids.</summary>
    public PlanFinding Titled(PlanSchedule plan)
    {
        if (Options is not { } options)
            return this;
        var choice = plan.Item(new(Code == FindingCode.ChoiceUntied ? Targets[1] : Targets[0]));
        return this with { Options = [.. options.Select(choice.TitleOf)] };
    }

    /// <summary>By code, then section (none first), then targets one by one, all by character code.</summary>
    public static Comparison<PlanFinding> Order { get; } =
        (left, right) =>
        {
            var order = left.Code.CompareTo(right.Code);
            if (order == 0)
                order = string.CompareOrdinal(left.Section, right.Section);
            for (var n = 0; order == 0 && n < Math.Max(left.Targets.Length, right.Targets.Length); n++)
                order = string.CompareOrdinal(left.Targets.ElementAtOrDefault(n), right.Targets.ElementAtOrDefault(n));
            return order;
        };
}
