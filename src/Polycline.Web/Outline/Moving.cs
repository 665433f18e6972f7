using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline;

/// <summary>Moving writes one row: the rank, and where it stands.</summary>
internal static class Moving
{
    /// <param name="homes">What it stands in, before and after.</param>
    /// <param name="siblings">Those it then stands among, in order.</param>
    public static CommandDecision Decide(
        EditionPlan plan,
        TreeRow row,
        long version,
        Dictionary<string, (long? Before, long? After)> homes,
        IReadOnlyList<TreeRow> siblings,
        long? after
    )
    {
        var title = plan.TitleOf(row.Lineage);
        var place = siblings.ToList().FindIndex(sibling => sibling.Id == row.Id);
        if (place >= 0 && (place == 0 ? null : siblings[place - 1].Id) == after)
            return new($"left “{title}” where it is", []);
        JsonObject was = new() { ["rank"] = row.Rank },
            will = new() { ["rank"] = OutlineRules.RankAfter(siblings, after, row.Id) };
        foreach (var (field, (before, then)) in homes.Where(home => home.Value.Before != home.Value.After))
            (was[field], will[field]) = (before, then);
        return new($"moved “{title}”", [new(row.Table, new JsonObject { ["id"] = row.Id }, was, will, version)])
        {
            Act = $"Move in {plan.Where(row.Section)}",
        };
    }
}
