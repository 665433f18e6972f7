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

public sealed record OutlineAnswer
{
    public required Id<Edition> Edition { get; init; }

    /// <summary>The edition's counter.</summary>
    public required long Version { get; init; }

    public required string Course { get; init; }

    public required string Title { get; init; }

    public required string State { get; init; }

    /// <summary>False for a past edition, or if it is looked at as a student or at another moment.</summary>
    public required bool CanChange { get; init; }

    public required IReadOnlyList<OutlineUnit> Units { get; init; }

    public required IReadOnlyList<OutlineSection> Sections { get; init; }

    public required OutlineCounts Counts { get; init; }

    public required OutlineSettings Settings { get; init; }
}

/// <param name="Codes"><c>by-unit</c> or <c>straight</c>.</param>
/// <param name="CodesFixed">Students have seen them: they stay.</param>
/// <param name="Before"><c>listed</c> or <c>unseen</c>, where an item and its unit say nothing.</param>
/// <param name="Name">What the course is called, in all its editions.</param>
public sealed record OutlineSettings(string Codes, bool CodesFixed, string Before, long Version, CourseName Name);

public sealed record OutlineUnit
{
    public required Id<Unit> Id { get; init; }

    /// <summary>What anchors and conditions call it.</summary>
    public required string Lineage { get; init; }

    /// <summary>Null for what belongs to one section only.</summary>
    public required int? Number { get; init; }

    public required string Title { get; init; }

    public required bool Published { get; init; }

    /// <summary>What students see of its items before they open; null: as the course says.</summary>
    public required string? Before { get; init; }

    /// <summary>It is the welcome unit, always open.</summary>
    public required bool Welcome { get; init; }

    /// <summary>The lengths of its lessons together, optional ones too.</summary>
    public required int Classes { get; init; }

    /// <summary>The letter of the only section it is of; null: of the course.</summary>
    public required string? Only { get; init; }

    /// <summary>What must be met before anything in it opens, in words; null: nothing.</summary>
    public required string? Condition { get; init; }

    /// <summary>The same in the plan file's form.</summary>
    public required System.Text.Json.JsonElement? Gate { get; init; }

    public required long Version { get; init; }

    public required IReadOnlyList<OutlineLesson> Lessons { get; init; }

    public required IReadOnlyList<OutlineItem> Items { get; init; }
}

public sealed record OutlineLesson
{
    public required Id<Lesson> Id { get; init; }

    public required string Lineage { get; init; }

    public required string Title { get; init; }

    public required int Classes { get; init; }

    /// <summary>The least it can do with; null: its length.</summary>
    public required int? Shortest { get; init; }

    public required bool Optional { get; init; }

    public required bool Published { get; init; }

    /// <summary>Letters of the sections in which it differs.</summary>
    public required IReadOnlyList<string> Differs { get; init; }

    /// <summary>The letter of the only section it is of; null: of the course.</summary>
    public required string? Only { get; init; }

    /// <summary>What must be met before anything in it opens, in words; null: nothing.</summary>
    public required string? Condition { get; init; }

    /// <summary>The same in the plan file's form.</summary>
    public required System.Text.Json.JsonElement? Gate { get; init; }

    public required long Version { get; init; }

    public required IReadOnlyList<OutlineItem> Items { get; init; }
}

public sealed record OutlineItem
{
    public required Id<Item> Id { get; init; }

    public required string Lineage { get; init; }

    public required string Code { get; init; }

    public required string Kind { get; init; }

    public required string Purpose { get; init; }

    public required string Title { get; init; }

    public required bool Published { get; init; }

    /// <summary>Published, and yet unseen: <c>unit</c> or <c>lesson</c>, whichever is not published; null: nothing hides it.</summary>
    public required string? Behind { get; init; }

    /// <summary>In words; null: for everyone.</summary>
    public required string? ForWhom { get; init; }

    /// <summary>Timing in words; null: open as soon as it is published.</summary>
    public required string? Opens { get; init; }

    /// <summary>The same in the plan file's form.</summary>
    public required System.Text.Json.JsonElement? OpensAt { get; init; }

    /// <summary>Timing in words; null: never due.</summary>
    public required string? Due { get; init; }

    /// <summary>One sentence; null: there is none.</summary>
    public required string? Condition { get; init; }

    /// <summary>What a choice offers, for conditions that ask for it; empty: it is none.</summary>
    public required IReadOnlyList<NamedOption> Options { get; init; }

    public required bool HasText { get; init; }

    /// <summary>Letters of the sections in which it differs.</summary>
    public required IReadOnlyList<string> Differs { get; init; }

    /// <summary>The letter of the only section it is of; null: of the course.</summary>
    public required string? Only { get; init; }

    /// <summary>To be named when the item is changed.</summary>
    public required long Version { get; init; }
}

/// <param name="Letter">What its line is marked with.</param>
public sealed record OutlineSection(Id<Section> Id, string Name, string Letter, int Students);

/// <param name="Option">What a condition names it by.</param>
public sealed record NamedOption(string Option, string Title);

/// <param name="Behind">Published, but in a unit or lesson that is not.</param>
public sealed record OutlineCounts(int Units, int Lessons, int Items, int Unpublished, int Behind);

/// <summary>Reads an edition as the team sees it.</summary>
public static class ReadOutline
{
    public static async Task<OutlineAnswer> Handle(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        viewpoint.NeedsTeam("The outline");
        var plan = await compiled.Teaching(access, viewpoint);
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
        var gates = plan.GateWords();
        var anchors = new AnchorWords(plan.TitleOf, tree.Levels);
        var here = plan.Rows.Where(plan.IsHere).ToList();
        var lessonsOf = here.Where(row => row.Level == Level.Lesson).ToLookup(row => row.Unit);
        var itemsOf = here.Where(row => row.Level == Level.Item).ToLookup(row => (row.Unit, row.Lesson));
        var (unitRows, lessonRows) = (
            here.Where(row => row.Level == Level.Unit).ToDictionary(row => row.Unit),
            here.Where(row => row.Level == Level.Lesson).ToDictionary(row => row.As<Lesson>())
        );
        var number = 0;
        return new()
        {
            Edition = plan.Id,
            Version = plan.Version,
            Course = plan.CourseTitle,
            Title = tree.Title,
            State = EnumNames.Of(plan.State),
            CanChange = canChange,
            Units = [.. here.Where(row => row.Level == Level.Unit).Select(UnitOf)],
            Sections =
            [
                .. plan.Sections.Select(section => new OutlineSection(
                    section.Id,
                    section.Name,
                    section.Letter,
                    section.StudentsOn(plan.Term.Local(at).Date)
                )),
            ],
            Counts = new(
                tree.Units.Length,
                tree.Units.Sum(unit => unit.Lessons.Length),
                items.Count,
                items.Count(item => !item.Published),
                tree.Units.Sum(unit => unit.InReadingOrder().Count(item => item.Published && !IsOut(unit, item)))
            ),
            Settings = new(EnumNames.Of(tree.Codes), plan.Settings.CodesFixed, EnumNames.Of(tree.Before), plan.Settings.Version, plan.Name),
        };

        OutlineUnit UnitOf(TreeRow row)
        {
            var unit = plan.UnitOf(row);
            return new()
            {
                Id = row.Unit,
                Lineage = row.Lineage,
                Number = row.Section is null ? ++number : null,
                Title = unit.Title,
                Published = unit.Published,
                Before = BeforeWords.Of(unit.Before),
                Welcome = unit.Welcome,
                Condition = unit.Gate is null ? null : gates.Sentence(unit.Gate),
                Gate = unit.Gate.Stored(),
                Classes = unit.Lessons.Sum(lesson => lesson.Length),
                Only = Only(row),
                Version = row.Version,
                Lessons = [.. lessonsOf[row.Unit].Select(LessonOf)],
                Items = [.. itemsOf[(row.Unit, null)].Select(ItemOf)],
            };
        }

        OutlineLesson LessonOf(TreeRow row)
        {
            var lesson = plan.LessonOf(row);
            return new()
            {
                Id = row.As<Lesson>(),
                Lineage = row.Lineage,
                Title = lesson.Title,
                Condition = lesson.Gate is null ? null : gates.Sentence(lesson.Gate),
                Gate = lesson.Gate.Stored(),
                Classes = lesson.Length,
                Shortest = row.Shortest,
                Optional = lesson.Optional,
                Published = lesson.Published,
                Differs = Differs(row),
                Only = Only(row),
                Version = row.Version,
                Items = [.. itemsOf[(row.Unit, row.Lesson)].Select(ItemOf)],
            };
        }

        OutlineItem ItemOf(TreeRow row)
        {
            var (item, onUnit) = (plan.Schedule.Item(new(row.Lineage)), row.Lesson is null);
            return new()
            {
                Id = row.As<Item>(),
                Lineage = row.Lineage,
                Code = plan.Schedule.CodeOf[item.Ref],
                Kind = EnumNames.Of(item.Kind),
                Purpose = EnumNames.Of(item.Purpose),
                Title = item.Title,
                Published = item.Published,
                Behind = Behind(row, item),
                ForWhom = WhomWords.Of(item.For),
                Opens = Said(item.Opens, onUnit),
                OpensAt = item.Opens is null
                    ? null
                    : System.Text.Json.JsonSerializer.Deserialize<System.Text.Json.JsonElement>(PlanParts.Json(item.Opens)),
                Due = Said(item.Due, onUnit),
                Condition = item.Gate is null ? null : gates.Sentence(item.Gate),
                Options = item.Options.IsDefaultOrEmpty
                    ? []
                    : [.. item.Options.Select(option => new NamedOption(option, item.TitleOf(option)))],
                HasText = item.Body is not null,
                Differs = Differs(row),
                Only = Only(row),
                Version = row.Version,
            };
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
