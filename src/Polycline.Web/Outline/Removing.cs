using FluentValidation;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
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
        var gone = plan
            .Rows.Where(other =>
                other.Lineage == row.Lineage
                || (row.Level == Level.Unit && other.Unit == row.Unit)
                || (row.Level == Level.Lesson && other.Lesson == row.Lesson)
            )
            .Select(other => other.Lineage)
            .ToHashSet(StringComparer.Ordinal);
        var title = plan.TitleOf(row.Lineage);
        NeedsNobody(plan, gone, "it");
        var within = new[] { Level.Lesson, Level.Item }
            .Where(level => level != row.Level)
            .Select(level => (Level: level, Count: plan.Rows.Count(other => other.Level == level && gone.Contains(other.Lineage))))
            .Where(part => part.Count > 0)
            .Select(part => plan.Edition.Levels.Of(part.Level).Counted(part.Count))
            .ToList();
        return new($"removed “{title}”{(within.Count > 0 ? $" with {Joined(within, "and")}" : "")}", [row.Remove(version, viewpoint.At)])
        {
            Act =
                $"Remove {Joined([.. within.Prepend(plan.Edition.Levels.Of(row.Level).Counted(1))], "and")} from {plan.Where(row.Section)}",
        };
    }

    /// <summary>Several items at once: they may refer to one another.</summary>
    /// <param name="versionOf">The version of each that was read.</param>
    public static CommandDecision Decide(EditionPlan plan, IReadOnlyList<TreeRow> items, Func<TreeRow, long> versionOf, Viewpoint viewpoint)
    {
        NeedsNobody(plan, items.Select(row => row.Lineage).ToHashSet(StringComparer.Ordinal), "them");
        var what = plan.Edition.Levels.Item.Counted(items.Count);
        var where = items.Select(row => row.Section).Distinct().ToList() is [var only] ? plan.Where(only) : plan.Where(null);
        return new($"removed {what}", [.. items.Select(row => row.Remove(versionOf(row), viewpoint.At))])
        {
            Act = $"Remove {what} from {where}",
        };
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
