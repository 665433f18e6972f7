using FluentValidation;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using static Polycline.Core.Wording.Counting;
using CommandDecision = Polycline.Web.Foundation.Commands.CommandDecision;

namespace Polycline.Web.Outline;

/// <summary>Removing marks one row; what others refer to is not removed, and they are named.</summary>
internal static class Removing
{
    public static CommandDecision Decide(EditionPlan plan, TreeRow row, long version, Viewpoint viewpoint)
    {
        var decision = Decide(plan, [row], _ => version, viewpoint);
        var within = CountedIn(plan, LineagesIn(plan, row).Where(lineage => lineage != row.Lineage));
        return decision with { Words = $"removed “{plan.TitleOf(row.Lineage)}”{(within.Length > 0 ? $" with {within}" : "")}" };
    }

    /// <summary>Several at once, each with what is in it: they may refer to one another.</summary>
    /// <param name="rows">None of them within another.</param>
    /// <param name="versionOf">The version of each that was read.</param>
    public static CommandDecision Decide(EditionPlan plan, IReadOnlyList<TreeRow> rows, Func<TreeRow, long> versionOf, Viewpoint viewpoint)
    {
        var gone = rows.SelectMany(row => LineagesIn(plan, row)).ToHashSet(StringComparer.Ordinal);
        NeedsNobody(plan, gone, rows.Count == 1 ? "it" : "them");
        var what = CountedIn(plan, gone);
        return new($"removed {what}", [.. rows.Select(row => row.Remove(versionOf(row), viewpoint.At))])
        {
            Act = $"Remove {what} from {plan.Where(rows)}",
        };
    }

    // A row and all that is in it.
    private static IEnumerable<string> LineagesIn(EditionPlan plan, TreeRow row) =>
        plan
            .Rows.Where(other =>
                other.Lineage == row.Lineage
                || (row.Level == Level.Unit && other.Unit == row.Unit)
                || (row.Level == Level.Lesson && other.Lesson == row.Lesson)
            )
            .Select(other => other.Lineage);

    private static string CountedIn(EditionPlan plan, IEnumerable<string> lineages)
    {
        var levels = lineages.Select(lineage => plan.Find(lineage)!.Level).CountBy(level => level).ToDictionary();
        return plan.CountedRows(
            levels.GetValueOrDefault(Level.Unit),
            levels.GetValueOrDefault(Level.Lesson),
            levels.GetValueOrDefault(Level.Item)
        );
    }

    /// <exception cref="ProblemException">What stays refers to something that would be gone.</exception>
    private static void NeedsNobody(EditionPlan plan, HashSet<string> gone, string them)
    {
        var referring = Referring(plan)
            .Where(pair => !gone.Contains(pair.From) && pair.To.Any(gone.Contains))
            .Select(pair => $"“{plan.TitleOf(pair.From)}”")
            .Distinct()
            .ToList();
        if (referring.Count > 0)
            throw Problem.InUse(
                $"{Joined([.. referring.Take(5)], "and")}{(referring.Count > 5 ? $" and {referring.Count - 5} more" : "")} "
                    + $"{(referring.Count == 1 ? "refers" : "refer")} to {them}.",
                "Nothing was removed. Change their timing or condition first."
            );
    }

    // Who names what, in timing and conditions.
    private static IEnumerable<(string From, IEnumerable<string> To)> Referring(EditionPlan plan)
    {
        foreach (var unit in plan.Edition.Units)
        {
            yield return (unit.Ref.Name, Named(unit.Gate));
            foreach (var lesson in unit.Lessons)
                yield return (lesson.Ref.Name, Named(lesson.Gate));
        }
        foreach (var item in plan.ItemsByUnit().SelectMany(unit => unit.Items).Select(row => plan.Schedule.Item(new(row.Lineage))))
            yield return (
                item.Ref.Name,
                Named(item.Gate).Concat(new[] { item.Opens, item.Due, item.Closes }.Select(anchor => anchor?.Of).OfType<string>())
            );
    }

    private static IEnumerable<string> Named(Gate? gate) =>
        gate is null
            ? []
            : gate
                .Root.Leaves()
                .Select(leaf =>
                    leaf switch
                    {
                        GateNode.HasTaught taught => taught.Lesson.Name,
                        GateNode.From from => from.Anchor.Of,
                        _ => leaf.ItemOf?.Name,
                    }
                )
                .OfType<string>();
}
