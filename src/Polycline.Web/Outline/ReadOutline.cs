using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation;

namespace Polycline.Web.Outline;

/// <param name="Version">The edition's counter.</param>
/// <param name="CanChange">False: at rest, or looked at from elsewhere than now as the team.</param>
public sealed record OutlineAnswer(
    long Edition, long Version, string Course, string Title, string State, bool CanChange,
    IReadOnlyList<OutlineUnit> Units, IReadOnlyList<OutlineSection> Sections, OutlineCounts Counts);

/// <param name="Classes">The lengths of its lessons together, optional ones too.</param>
public sealed record OutlineUnit(long Id, int Number, string Title, bool Published, int Classes, IReadOnlyList<OutlineLesson> Lessons, IReadOnlyList<OutlineItem> Items);

public sealed record OutlineLesson(long Id, string Title, int Classes, bool Optional, bool Published, IReadOnlyList<OutlineItem> Items);

/// <param name="Version">To be named when the item is changed.</param>
public sealed record OutlineItem(long Id, string Code, string Kind, string Purpose, string Title, bool Published, long Version);

/// <param name="Letter">What its line is marked with.</param>
public sealed record OutlineSection(long Id, string Name, string Letter, int Students);

public sealed record OutlineCounts(int Units, int Lessons, int Items, int Unpublished);

/// <summary>Reads an edition as the team sees it.</summary>
public static class ReadOutline
{
    public static async Task<OutlineAnswer> Handle(long edition, Access access, Viewpoint viewpoint, Compiled compiled)
    {
        if (viewpoint.Eyes is not Eyes.OfTeam)
            throw Problem.Forbidden("The outline is the team's.", "A student never sees it. Look as the team to see it again.");
        var course = await compiled.Edition(access);
        return Of(course, course.Plan.Edition.State != EditionState.Resting && viewpoint.TakesCommands);
    }

    /// <summary>The answer for a compiled edition: a pure function.</summary>
    public static OutlineAnswer Of(CompiledEdition course, bool canChange)
    {
        var plan = course.Plan;
        var tree = plan.Edition;
        var items = tree.InReadingOrder().ToList();
        return new(
            tree.Id.Value, plan.Version, plan.CourseTitle, tree.Title, Words.Of(tree.State), canChange,
            [.. tree.Units.Select((unit, place) => new OutlineUnit(
                unit.Id.Value, place + 1, unit.Title, unit.Published, unit.Lessons.Sum(lesson => lesson.Length),
                [.. unit.Lessons.Select(lesson => new OutlineLesson(
                    lesson.Id.Value, lesson.Title, lesson.Length, lesson.Optional, lesson.Published, [.. lesson.Items.Select(Row)]))],
                [.. unit.Items.Select(Row)]))],
            [.. plan.Sections.Select(section => new OutlineSection(section.Id, section.Name, section.Letter, section.Students))],
            new(tree.Units.Length, tree.Units.Sum(unit => unit.Lessons.Length), items.Count, items.Count(item => !item.Published)));

        OutlineItem Row(Item item) => new(
            item.Id.Value, course.Codes[item.Id], Words.Of(item.Kind), Words.Of(item.Purpose), item.Title, item.Published, plan.RowVersions[("item", item.Id.Value)]);
    }
}
