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

/// <param name="Version">To be named when its timetable is changed.</param>
/// <param name="Slots">When it meets, in the plan file's form.</param>
/// <param name="Timetable">The same in words, a line each.</param>
/// <param name="Units">In its own order.</param>
/// <param name="Differences">All it does differently from the course, and its classes from its timetable.</param>
public sealed record SectionCard(
    Id<Section> Id,
    string Name,
    string Letter,
    int Students,
    long Version,
    IReadOnlyList<string> Teachers,
    JsonNode Slots,
    IReadOnlyList<string> Timetable,
    IReadOnlyList<UnitHere> Units,
    IReadOnlyList<DifferenceHere> Differences
);

/// <param name="OrderVersion">Of the change of its place; 0: it stands where the course has it.</param>
/// <param name="Own">It is of this section only.</param>
public sealed record UnitHere(Id<Unit> Id, string Title, bool Skipped, bool Own, long OrderVersion, IReadOnlyList<LessonHere> Lessons);

/// <param name="OrderVersion">Of the change of its place; 0: there is none.</param>
/// <param name="Own">It is of this section only.</param>
public sealed record LessonHere(Id<Lesson> Id, string Title, int Length, bool Skipped, bool Own, long OrderVersion);

/// <summary>One thing that is otherwise, and what to name in order to put it back.</summary>
/// <param name="Kind"><c>own</c>, <c>field</c>, <c>order</c> or <c>class</c>.</param>
/// <param name="Of"><c>unit</c>, <c>lesson</c> or <c>item</c>; null: a class.</param>
/// <param name="Target">The id of it; 0: a class.</param>
/// <param name="Seq">The number of a change of classes.</param>
/// <param name="Title">Of what: code and title; of a class: nothing.</param>
/// <param name="Words">What it is, to be read on after the title.</param>
/// <param name="Sleeps">It has no effect as things are.</param>
public sealed record DifferenceHere(
    string Kind,
    string? Of,
    long Target,
    string? Field,
    int Seq,
    long Version,
    string Title,
    string Words,
    bool Sleeps
);

/// <summary>Reads every section that follows an edition, and all it does differently.</summary>
public static class ReadSections
{
    public static async Task<SectionsAnswer> Handle(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        viewpoint.NeedsTeam("The sections' differences");
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
            [.. plan.Sections.Select(section => CardOf(plan, section, plan.Term.Local(at).Date))]
        );

    private static SectionCard CardOf(EditionPlan plan, FollowingSection section, LocalDate on)
    {
        var course = plan.Schedule.Section(section.Section.Ref).Course;
        var orders = plan.Orders.Where(row => row.Section == section.Id).ToDictionary(row => row.Target, row => row.Version);
        var lessons = course.Lessons.ToLookup(lesson => lesson.Unit.Ref);
        return new(
            section.Id,
            section.Name,
            section.Letter,
            section.StudentsOn(on),
            section.Version,
            section.Teachers,
            JsonNode.Parse(section.Slots)!,
            [.. section.Section.Slots.Select(DifferenceWords.Of)],
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
            [.. Own(plan, section).Concat(Orders(plan, section)).Concat(Fields(plan, section)).Concat(Classes(plan, section))]
        );
    }

    // Units first, then lessons, then items.
    private static IEnumerable<DifferenceHere> Own(EditionPlan plan, FollowingSection section) =>
        from row in plan.Rows
        where row.Section == section.Id
        select new DifferenceHere(
            "own",
            row.Table,
            row.Id,
            null,
            0,
            row.Version,
            plan.NameOf(row),
            $"is {plan.Edition.Levels.Of(row.Table).A} of this section only",
            false
        );

    private static IEnumerable<DifferenceHere> Orders(EditionPlan plan, FollowingSection section) =>
        from row in plan.Orders
        where row.Section == section.Id
        let at = plan.Find(row.Target)
        where at is not null
        select new DifferenceHere(
            "order",
            at.Table,
            at.Id,
            null,
            0,
            row.Version,
            plan.TitleOf(row.Target),
            WordsOf(plan).Of(PlanParts.Adjustment(at.Table, row.Target, row.Change), null),
            false
        );

    private static IEnumerable<DifferenceHere> Fields(EditionPlan plan, FollowingSection section) =>
        from row in plan.Adjustments
        where row.Section == section.Id
        let at = plan.Find(row.Target)
        where at is not null
        orderby at.Table == "unit" ? 0
        : at.Table == "lesson" ? 1
        : 2, plan.NameOf(at), row.Field
        let course = at.Table switch
        {
            "lesson" when row.Field == "length" => plan.LessonOf(at).Length,
            "item" when Outline.Items.TimeItem.Fields.Contains(row.Field) => Outline.Items.TimeItem.Of(
                plan.Schedule.Item(new(row.Target)),
                row.Field
            ),
            _ => (object?)null,
        }
        select new DifferenceHere(
            "field",
            at.Table,
            at.Id,
            row.Field,
            0,
            row.Version,
            plan.NameOf(at),
            WordsOf(plan).Of(PlanParts.Adjustment(at.Table, row.Target, [(row.Field, row.Value)]), course, at.Lesson is null),
            false
        );

    private static IEnumerable<DifferenceHere> Classes(EditionPlan plan, FollowingSection section)
    {
        var asleep = plan
            .Schedule.Section(section.Section.Ref)
            .Findings.Where(finding => finding.Code == FindingCode.ChangeIdle)
            .Select(finding => finding.Target)
            .ToHashSet();
        return plan
            .MeetingChanges.Where(row => row.Section == section.Id)
            .Zip(section.Section.Changes, (row, change) => new DifferenceHere(
                    "class",
                    null,
                    0,
                    null,
                    row.Seq,
                    row.Version,
                    "A class",
                    DifferenceWords.Of(change),
                    change switch
                    {
                        MeetingChange.Cancel cancel => asleep.Contains($"{cancel.Date:uuuu-MM-dd}"),
                        MeetingChange.Move move => asleep.Contains($"{move.Date:uuuu-MM-dd}"),
                        _ => false,
                    }
                ));
    }

    private static DifferenceWords WordsOf(EditionPlan plan) => new(plan.TitleOf, plan.Edition.Basis, plan.Edition.Levels);

    // Code and title of an item, else its title.
    private static string NameOf(this EditionPlan plan, TreeRow row) =>
        row.Table == "item" ? $"{plan.Schedule.CodeOf[new(row.Lineage)]} {plan.TitleOf(row.Lineage)}" : plan.TitleOf(row.Lineage);
}
