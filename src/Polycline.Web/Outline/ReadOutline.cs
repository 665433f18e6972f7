using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline;

/// <param name="Version">The edition's counter.</param>
/// <param name="CanChange">False: at rest, or looked at from elsewhere than now as the team.</param>
public sealed record OutlineAnswer(
    Id<Edition> Edition,
    long Version,
    string Course,
    string Title,
    string State,
    bool CanChange,
    IReadOnlyList<OutlineUnit> Units,
    IReadOnlyList<OutlineSection> Sections,
    OutlineCounts Counts,
    OutlineSettings Settings
);

/// <param name="Codes"><c>by-unit</c> or <c>straight</c>.</param>
/// <param name="CodesFixed">Students have seen them: they stay.</param>
/// <param name="Before"><c>listed</c> or <c>unseen</c>, where an item and its unit say nothing.</param>
public sealed record OutlineSettings(string Codes, bool CodesFixed, string Before, long Version);

/// <param name="Lineage">What anchors and conditions call it.</param>
/// <param name="Before">What students see of its items before they open; null: as the course says.</param>
/// <param name="Number">Null: it is of one section only.</param>
/// <param name="Classes">The lengths of its lessons together, optional ones too.</param>
/// <param name="Only">The letter of the only section it is of; null: of the course.</param>
public sealed record OutlineUnit(
    Id<Unit> Id,
    string Lineage,
    int? Number,
    string Title,
    bool Published,
    string? Before,
    int Classes,
    string? Only,
    long Version,
    IReadOnlyList<OutlineLesson> Lessons,
    IReadOnlyList<OutlineItem> Items
);

/// <param name="Shortest">The least it can do with; null: its length.</param>
/// <param name="Differs">Letters of the sections in which it differs.</param>
/// <param name="Only">The letter of the only section it is of; null: of the course.</param>
public sealed record OutlineLesson(
    Id<Lesson> Id,
    string Lineage,
    string Title,
    int Classes,
    int? Shortest,
    bool Optional,
    bool Published,
    IReadOnlyList<string> Differs,
    string? Only,
    long Version,
    IReadOnlyList<OutlineItem> Items
);

/// <param name="ForWhom">In words; null: for everyone.</param>
/// <param name="Behind">Students see nothing of it though it is published: <c>unit</c> or <c>lesson</c>, whichever is not; null: nothing
/// stands before it.</param>
/// <param name="Opens">Timing in words; null: open as soon as it is published.</param>
/// <param name="OpensAt">The same in the plan file's form.</param>
/// <param name="Due">Timing in words; null: never due.</param>
/// <param name="Condition">One sentence; null: there is none.</param>
/// <param name="Differs">Letters of the sections in which it differs.</param>
/// <param name="Only">The letter of the only section it is of; null: of the course.</param>
/// <param name="Version">To be named when the item is changed.</param>
public sealed record OutlineItem(
    Id<Item> Id,
    string Lineage,
    string Code,
    string Kind,
    string Purpose,
    string Title,
    bool Published,
    string? Behind,
    string? ForWhom,
    string? Opens,
    System.Text.Json.JsonElement? OpensAt,
    string? Due,
    string? Condition,
    bool HasText,
    IReadOnlyList<string> Differs,
    string? Only,
    long Version
);

/// <param name="Letter">What its line is marked with.</param>
public sealed record OutlineSection(Id<Section> Id, string Name, string Letter, int Students);

/// <param name="Behind">Published, but in a unit or lesson that is not.</param>
public sealed record OutlineCounts(int Units, int Lessons, int Items, int Unpublished, int Behind);

/// <summary>Reads an edition as the team sees it.</summary>
public static class ReadOutline
{
    public static async Task<OutlineAnswer> Handle(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        viewpoint.NeedsTeam("The outline");
        var plan = await compiled.Edition(access);
        return Of(plan, plan.State != EditionState.Resting && viewpoint.TakesCommands, viewpoint.At);
    }

    /// <summary>The answer for an edition: a pure function.</summary>
    public static OutlineAnswer Of(EditionPlan plan, bool canChange, Instant at)
    {
        var tree = plan.Edition;
        var items = tree.InReadingOrder().ToList();
        var letterOf = plan.Sections.ToDictionary(section => section.Id, section => section.Letter);
        var differing = plan
            .Adjustments.Select(row => (row.Target, row.Section))
            .Concat(plan.Orders.Select(row => (row.Target, row.Section)))
            .ToLookup(row => row.Target, row => letterOf[row.Section]);
        var gates = new GateWords(item => plan.Schedule.CodeOf[item], plan.TitleOf, tree.Levels);
        var anchors = new AnchorWords(plan.TitleOf, tree.Levels);
        var here = plan.Rows.Where(plan.IsHere).ToList();
        var lessonsOf = here.Where(row => row.Table == "lesson").ToLookup(row => row.Unit);
        var itemsOf = here.Where(row => row.Table == "item").ToLookup(row => (row.Unit, row.Lesson));
        var (unitRows, lessonRows) = (
            here.Where(row => row.Table == "unit").ToDictionary(row => row.Unit),
            here.Where(row => row.Table == "lesson").ToDictionary(row => row.As<Lesson>())
        );
        var number = 0;
        return new(
            plan.Id,
            plan.Version,
            plan.CourseTitle,
            tree.Title,
            EnumNames.Of(plan.State),
            canChange,
            [.. here.Where(row => row.Table == "unit").Select(UnitOf)],
            [
                .. plan.Sections.Select(section => new OutlineSection(
                    section.Id,
                    section.Name,
                    section.Letter,
                    section.StudentsOn(plan.Term.Local(at).Date)
                )),
            ],
            new(
                tree.Units.Length,
                tree.Units.Sum(unit => unit.Lessons.Length),
                items.Count,
                items.Count(item => !item.Published),
                tree.Units.Sum(unit => unit.InReadingOrder().Count(item => item.Published && !IsOut(unit, item)))
            ),
            new(EnumNames.Of(tree.Codes), plan.Settings.CodesFixed, EnumNames.Of(tree.Before), plan.Settings.Version)
        );

        OutlineUnit UnitOf(TreeRow row)
        {
            var unit = plan.UnitOf(row);
            return new(
                row.Unit,
                row.Lineage,
                row.Section is null ? ++number : null,
                unit.Title,
                unit.Published,
                BeforeWords.Of(unit.Before),
                unit.Lessons.Sum(lesson => lesson.Length),
                Only(row),
                row.Version,
                [.. lessonsOf[row.Unit].Select(LessonOf)],
                [.. itemsOf[(row.Unit, null)].Select(ItemOf)]
            );
        }

        OutlineLesson LessonOf(TreeRow row)
        {
            var lesson = plan.LessonOf(row);
            return new(
                row.As<Lesson>(),
                row.Lineage,
                lesson.Title,
                lesson.Length,
                row.Shortest,
                lesson.Optional,
                lesson.Published,
                Differs(row),
                Only(row),
                row.Version,
                [.. itemsOf[(row.Unit, row.Lesson)].Select(ItemOf)]
            );
        }

        OutlineItem ItemOf(TreeRow row)
        {
            var (item, onUnit) = (plan.Schedule.Item(new(row.Lineage)), row.Lesson is null);
            return new(
                row.As<Item>(),
                row.Lineage,
                plan.Schedule.CodeOf[item.Ref],
                EnumNames.Of(item.Kind),
                EnumNames.Of(item.Purpose),
                item.Title,
                item.Published,
                Behind(row, item),
                WhomWords.Of(item.For),
                Said(item.Opens, onUnit),
                item.Opens is null
                    ? null
                    : System.Text.Json.JsonSerializer.Deserialize<System.Text.Json.JsonElement>(PlanParts.Json(item.Opens)),
                Said(item.Due, onUnit),
                item.Gate is null ? null : gates.Sentence(item.Gate),
                item.Body is not null,
                Differs(row),
                Only(row),
                row.Version
            );
        }

        string? Behind(TreeRow row, Item item) =>
            !item.Published ? null
            : !plan.UnitOf(unitRows[row.Unit]).Published ? "unit"
            : row.Lesson is { } lesson && !plan.LessonOf(lessonRows[lesson]).Published ? "lesson"
            : null;

        IReadOnlyList<string> Differs(TreeRow row) => [.. differing[row.Lineage].Distinct().Order()];

        // Whether students may know of it at all.
        static bool IsOut(Unit unit, Item item) =>
            unit.Published && unit.Lessons.All(lesson => lesson.Published || !lesson.Items.Contains(item));

        string? Only(TreeRow row) => row.Section is { } section ? letterOf[section] : null;

        string? Said(Anchor? anchor, bool onUnit) => anchor is null ? null : anchors.Of(anchor, onUnit);
    }
}
