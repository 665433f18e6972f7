using System.Text.Json.Nodes;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Sections;

/// <param name="Days">The days a timetable can name, in order.</param>
/// <param name="Periods">The periods of an ordinary day.</param>
public sealed record SectionsAnswer(
    Id<Edition> Edition,
    long Version,
    bool CanChange,
    string Unit,
    IReadOnlyList<DayChoice> Days,
    IReadOnlyList<PeriodChoice> Periods,
    IReadOnlyList<SectionCard> Sections
);

/// <param name="Label">As a timetable names it: <c>A-mon</c>.</param>
public sealed record DayChoice(string Label, string Words);

/// <param name="Start">Local, <c>08:40</c>.</param>
public sealed record PeriodChoice(string Name, string Start, string End);

public sealed record SectionCard
{
    public required Id<Section> Id { get; init; }

    public required string Name { get; init; }

    public required string Letter { get; init; }

    public required int Students { get; init; }

    /// <summary>Who is made up in a pretend section; null: a section like any other.</summary>
    public required IReadOnlyList<MadeUpStudent>? Pretend { get; init; }

    /// <summary>To be named when its timetable is changed.</summary>
    public required long Version { get; init; }

    public required IReadOnlyList<string> Teachers { get; init; }

    /// <summary>When it meets, in the plan file's form.</summary>
    public required JsonNode Slots { get; init; }

    /// <summary>The same in words, a line each.</summary>
    public required IReadOnlyList<string> Timetable { get; init; }

    /// <summary>The units in the order this section takes them.</summary>
    public required IReadOnlyList<UnitHere> Units { get; init; }

    /// <summary>Everything it does differently from the course, and its classes from its timetable.</summary>
    public required IReadOnlyList<DifferenceHere> Differences { get; init; }
}

/// <param name="OrderVersion">Of the change of its place; 0: it stands where the course has it.</param>
/// <param name="Own">It is of this section only.</param>
public sealed record UnitHere(Id<Unit> Id, string Title, bool Skipped, bool Own, long OrderVersion, IReadOnlyList<LessonHere> Lessons);

/// <param name="OrderVersion">Of the change of its place; 0: there is none.</param>
/// <param name="Own">It is of this section only.</param>
public sealed record LessonHere(Id<Lesson> Id, string Title, int Length, bool Skipped, bool Own, long OrderVersion);

/// <summary>One difference, and what to name in order to put it back.</summary>
public sealed record DifferenceHere
{
    /// <summary><c>own</c>, <c>field</c>, <c>order</c> or <c>class</c>.</summary>
    public required string Kind { get; init; }

    /// <summary>Null: a class.</summary>
    public required Level? Of { get; init; }

    /// <summary>The id of it; 0: a class.</summary>
    public required long Target { get; init; }

    public required AdjustedField? Field { get; init; }

    /// <summary>The number of a change of classes.</summary>
    public required int Seq { get; init; }

    public required long Version { get; init; }

    /// <summary>Of what: code and title; of a class: nothing.</summary>
    public required string Title { get; init; }

    /// <summary>What it is, to be read on after the title.</summary>
    public required string Words { get; init; }

    /// <summary>It has no effect as things are.</summary>
    public required bool Sleeps { get; init; }
}

/// <summary>Reads every section that follows an edition, and all it does differently.</summary>
public static class ReadSections
{
    public static async Task<SectionsAnswer> Handle(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        viewpoint.NeedsTeam("What sections do differently");
        var plan = await compiled.Edition(access);
        return Of(plan, plan.State != EditionState.Resting && viewpoint.TakesCommands, viewpoint.At);
    }

    /// <summary>The answer for an edition: a pure function.</summary>
    public static SectionsAnswer Of(EditionPlan plan, bool canChange, Instant at) =>
        new(
            plan.Id,
            plan.Version,
            canChange,
            plan.Edition.Basis == Basis.Meetings ? "classes" : "minutes",
            [
                .. SectionMeetings
                    .LabelsOf(plan.Term.Calendar.Rotation)
                    .Select(label => new DayChoice(label, DifferenceWords.DayInWords(label).Capital())),
            ],
            [.. plan.Term.Calendar.Periods.Select(period => new PeriodChoice(period.Name, $"{period.Start:HH:mm}", $"{period.End:HH:mm}"))],
            [
                .. plan
                    .Sections.OrderBy(section => section.EndedOn < plan.Term.Local(at).Date)
                    .Select(section => CardOf(plan, section, plan.Term.Local(at).Date)),
            ]
        );

    private static SectionCard CardOf(EditionPlan plan, FollowingSection section, LocalDate on)
    {
        var course = plan.Schedule.Section(section.Section.Ref).Course;
        var orders = plan.Orders.Where(row => row.Section == section.Id).ToDictionary(row => row.Target, row => row.Version);
        var lessons = course.Lessons.ToLookup(lesson => lesson.Unit.Ref);
        return new()
        {
            Id = section.Id,
            Name = section.Name,
            Letter = section.Letter,
            Students = section.StudentsOn(on),
            Pretend = section.Pretend is { } made ? [.. made.Select(one => new MadeUpStudent(one.Name, one.Facts))] : null,
            Version = section.Version,
            Teachers = section.Teachers,
            Slots = JsonNode.Parse(section.Slots)!,
            Timetable = [.. section.Section.Slots.Select(DifferenceWords.Of)],
            Units =
            [
                .. course.Units.Select(unit => new UnitHere(
                    plan.IdOf(unit.Ref),
                    unit.Title,
                    unit.Skipped,
                    plan.Row(unit.Ref).Section is not null,
                    orders.GetValueOrDefault(unit.Ref.Name),
                    [
                        .. lessons[unit.Ref]
                            .Select(lesson => new LessonHere(
                                plan.IdOf(lesson.Ref),
                                lesson.Title,
                                lesson.Length,
                                lesson.Skipped,
                                plan.Row(lesson.Ref).Section is not null,
                                orders.GetValueOrDefault(lesson.Ref.Name)
                            )),
                    ]
                )),
            ],
            Differences =
            [
                .. Own(plan, section).Concat(Orders(plan, section)).Concat(Fields(plan, section)).Concat(Classes(plan, section)),
            ],
        };
    }

    // Units first, then lessons, then items.
    private static IEnumerable<DifferenceHere> Own(EditionPlan plan, FollowingSection section) =>
        from row in plan.Rows
        where row.Section == section.Id
        select new DifferenceHere
        {
            Kind = "own",
            Of = row.Level,
            Target = row.Id,
            Field = null,
            Seq = 0,
            Version = row.Version,
            Title = plan.NameOf(row),
            Words = $"is {plan.Edition.Levels.Of(row.Level).A} for this section only",
            Sleeps = false,
        };

    private static IEnumerable<DifferenceHere> Orders(EditionPlan plan, FollowingSection section) =>
        from row in plan.Orders
        where row.Section == section.Id
        let at = plan.Find(row.Target)
        where at is not null
        select new DifferenceHere
        {
            Kind = "order",
            Of = at.Level,
            Target = at.Id,
            Field = null,
            Seq = 0,
            Version = row.Version,
            Title = plan.TitleOf(row.Target),
            Words = WordsOf(plan).Of(PlanParts.Adjustment(at.Level, row.Target, row.Change), null),
            Sleeps = false,
        };

    private static IEnumerable<DifferenceHere> Fields(EditionPlan plan, FollowingSection section) =>
        from row in plan.Adjustments
        where row.Section == section.Id
        let at = plan.Find(row.Target)
        where at is not null
        orderby at.Level, plan.NameOf(at), EnumNames.Of(row.Field)
        let course = at.Level switch
        {
            Level.Lesson when row.Field == AdjustedField.Length => plan.LessonOf(at).Length,
            Level.Item when row.Field.AsDate() is { } date => Outline.Items.TimeItem.Of(plan.Schedule.Item(new(row.Target)), date),
            _ => (object?)null,
        }
        select new DifferenceHere
        {
            Kind = "field",
            Of = at.Level,
            Target = at.Id,
            Field = row.Field,
            Seq = 0,
            Version = row.Version,
            Title = plan.NameOf(at),
            Words = WordsOf(plan)
                .Of(PlanParts.Adjustment(at.Level, row.Target, [(EnumNames.Of(row.Field), row.Value)]), course, at.Lesson is null),
            Sleeps = false,
        };

    private static IEnumerable<DifferenceHere> Classes(EditionPlan plan, FollowingSection section)
    {
        var asleep = plan
            .Schedule.Section(section.Section.Ref)
            .Findings.Where(finding => finding.Code == FindingCode.ChangeIdle)
            .Select(finding => finding.Target)
            .ToHashSet();
        return plan
            .MeetingChanges.Where(row => row.Section == section.Id)
            .Zip(section.Section.Changes, (row, change) => new DifferenceHere
                {
                    Kind = "class",
                    Of = null,
                    Target = 0,
                    Field = null,
                    Seq = row.Seq,
                    Version = row.Version,
                    Title = "A class",
                    Words = DifferenceWords.Of(change),
                    Sleeps = change switch
                    {
                        MeetingChange.Cancel cancel => asleep.Contains($"{cancel.Date:uuuu-MM-dd}"),
                        MeetingChange.Move move => asleep.Contains($"{move.Date:uuuu-MM-dd}"),
                        _ => false,
                    },
                });
    }

    private static DifferenceWords WordsOf(EditionPlan plan) => new(plan.TitleOf, plan.Edition.Basis, plan.Edition.Levels);

    // An item's code and title; anything else's title.
    private static string NameOf(this EditionPlan plan, TreeRow row) =>
        row.Level == Level.Item ? $"{plan.Schedule.CodeOf[new(row.Lineage)]} {plan.TitleOf(row.Lineage)}" : plan.TitleOf(row.Lineage);
}
