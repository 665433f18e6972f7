using System.Text.Json.Nodes;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Sections;

/// <summary>What putting a unit and putting a lesson elsewhere in one section have in common.</summary>
internal static class Ordering
{
    /// <param name="change">Where it stands there; null: where the course has it.</param>
    /// <param name="words">What is done, to be followed by the section's name.</param>
    /// <param name="version">The version of the change of its place that was read; 0: there was none.</param>
    public static CommandDecision Decide(
        EditionPlan plan,
        FollowingSection section,
        TreeRow target,
        JsonObject? change,
        string words,
        long version
    )
    {
        var own = plan.Orders.Where(row => row.Section == section.Id).ToList();
        var earlier = own.Find(row => row.Target == target.Lineage);
        if (earlier is null && change is null)
            return new($"left the order of {section.Name} as it is", []);
        // What put the same thing elsewhere before goes: where it stands now is what counts.
        var gone = earlier is null
            ? null
            : Change.Delete(version, Row(section, earlier.Seq, earlier.Target, JsonNode.Parse(earlier.Change)));
        var next = own.Count == 0 ? 1 : own.Max(row => row.Seq) + 1;
        var added = change is null ? null : Change.Add(Row(section, next, target.Lineage, change));
        if ((earlier?.Version ?? 0) != version)
            throw new StaleChangeException(gone ?? added!, gone?.Before);
        return new(
            change is null ? $"put back the place of “{plan.TitleOf(target.Lineage)}” in {section.Name}" : $"{words} in {section.Name}",
            [.. new[] { gone, added }.OfType<Change>()]
        )
        {
            Act = change is null ? $"Put back 1 place in {section.Name}" : $"Move in {section.Name}",
        };
    }

    /// <summary>Lessons put after others, in turn, whatever moved them before.</summary>
    public static IEnumerable<Change> Moved(EditionPlan plan, FollowingSection section, IReadOnlyList<Adjustment.OfLesson> lessons)
    {
        var own = plan.Orders.Where(row => row.Section == section.Id).ToList();
        var next = own.Select(row => row.Seq).DefaultIfEmpty(0).Max() + 1;
        foreach (var row in own.Where(row => lessons.Any(lesson => lesson.Lesson.Name == row.Target)))
            yield return Change.Delete(row.Version, Row(section, row.Seq, row.Target, JsonNode.Parse(row.Change)));
        foreach (var lesson in lessons)
            yield return Change.Add(Row(section, next++, lesson.Lesson.Name, new JsonObject { ["after"] = lesson.After!.Value.Name }));
    }

    private static Cell[] Row(FollowingSection section, int seq, string target, JsonNode? change) =>
        [
            Tables.OrderChanges.Section.Is(section.Id),
            Tables.OrderChanges.Seq.Is(seq),
            Tables.OrderChanges.Target.Is(target),
            Tables.OrderChanges.Change.Is(change),
        ];
}
