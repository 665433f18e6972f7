using Polycline.Data.Courses;
using Polycline.Data.Ledger;
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
        IReadOnlyList<Turn> homes,
        IReadOnlyList<TreeRow> siblings,
        long? after
    )
    {
        var title = plan.TitleOf(row.Lineage);
        var place = siblings.ToList().FindIndex(sibling => sibling.Id == row.Id);
        if (place >= 0 && (place == 0 ? null : siblings[place - 1].Id) == after)
            return new($"left “{title}” where it is", []);
        var rank = OutlineRules.RankAfter(siblings, after, row.Id);
        return new($"moved “{title}”", [row.Move(rank, version, homes)]) { Act = $"Move in {plan.Where(row.Section)}" };
    }
}
