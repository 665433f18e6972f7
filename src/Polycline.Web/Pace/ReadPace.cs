using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Pace;

/// <param name="Unit">What a length is told in: <c>classes</c> or <c>minutes</c>.</param>
/// <param name="Last">The title of the edition before, where something was taught in it; null: there is nothing to hold this one
/// against.</param>
/// <param name="Lessons">In the course's order: the first at the bottom.</param>
public sealed record PaceAnswer(
    Id<Edition> Edition,
    long Version,
    bool CanChange,
    string Unit,
    string? Last,
    IReadOnlyList<PaceLesson> Lessons,
    IReadOnlyList<PaceSection> Sections
);

/// <param name="Code">Its number: the unit's, dot, its own in the unit.</param>
public sealed record PaceLesson(Id<Lesson> Id, string Code, string Title, int UnitNumber, string UnitTitle, int Length, bool Optional);

/// <param name="Lessons">In the section's running order.</param>
/// <param name="BehindBy">In classes, at the moment in view; below 0: ahead. Null: it is through, or no telling.</param>
/// <param name="BehindLast">In classes, held against the edition before; below 0: ahead. Null: no telling.</param>
/// <param name="AtLesson">The lesson it is at then, or comes to next.</param>
/// <param name="Lacking">How much does not fit.</param>
/// <param name="Unplaced">Titles of what does not reach the end.</param>
public sealed record PaceSection(
    Id<Section> Id,
    string Name,
    string Letter,
    int Students,
    IReadOnlyList<PaceRun> Lessons,
    IReadOnlyList<PaceClass> Classes,
    int? BehindBy,
    int? BehindLast,
    string? AtLesson,
    Moment? Finish,
    int Lacking,
    int Free,
    IReadOnlyList<string> Unplaced
);

/// <summary>A lesson of the course as a section has it. Places are in days from the ribbon's origin.</summary>
/// <param name="Place">Its place in the course's order, from 0.</param>
/// <param name="From">Null: it is not placed.</param>
/// <param name="PlannedFrom">Where it was to begin without what was really taught.</param>
/// <param name="LastFrom">Where it would begin if it went as in the edition before, by classes and not by date; null: it was not taught
/// then, or does not fit.</param>
/// <param name="Last">The classes it would have then, in words.</param>
/// <param name="Classes">Such as <c>class 5</c> or <c>classes 5 and 6</c>.</param>
/// <param name="State"><c>taught</c>, <c>begun</c> or <c>ahead</c>.</param>
/// <param name="Took">What it has really taken; null: nothing is recorded.</param>
/// <param name="Version">Of the record; 0: there is none.</param>
/// <param name="Overflow">How much of it does not fit.</param>
/// <param name="Pin">The date it is fixed to here.</param>
/// <param name="PinVersion">Of that difference; 0: there is none.</param>
/// <param name="LengthVersion">Of the difference in its length; 0: there is none.</param>
public sealed record PaceRun(
    int Place,
    Id<Lesson> Lesson,
    double? From,
    double? To,
    double? PlannedFrom,
    double? PlannedTo,
    double? LastFrom,
    double? LastTo,
    string? Last,
    string Classes,
    Moment? Starts,
    Moment? Ends,
    string State,
    bool Skipped,
    int Length,
    int? Took,
    int? Left,
    long Version,
    int Overflow,
    string? Pin,
    long PinVersion,
    long LengthVersion
);

/// <param name="Start">Local, <c>08:40</c>.</param>
/// <param name="Lesson">What is taught in it.</param>
/// <param name="Own">Not of the timetable: added or moved here.</param>
public sealed record PaceClass(
    int Ordinal,
    double At,
    string Date,
    string Start,
    string End,
    string Words,
    string Lesson,
    int Counts,
    bool Own,
    bool IsOver
);

/// <summary>Reads where every section stands and will stand.</summary>
public static class ReadPace
{
    public static async Task<PaceAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The pace of all sections");
        var plan = await compiled.Edition(access);
        var term = await compiled.Term(access);
        var last = await database.Read(connection => EditionStore.Before(connection, plan.Id), stop) is { } before
            ? await compiled.Edition(before)
            : null;
        return Of(plan, last, term.Weeks[0].Monday, viewpoint.At, plan.State != EditionState.Resting && viewpoint.TakesCommands);
    }

    /// <summary>The answer for an edition at a moment: a pure function.</summary>
    /// <param name="last">The edition before it; null: there is none.</param>
    /// <param name="origin">The date of place 0.</param>
    public static PaceAnswer Of(EditionPlan plan, EditionPlan? last, LocalDate origin, Instant at, bool canChange)
    {
        var lessons = plan
            .Edition.Units.SelectMany(
                (unit, place) =>
                    unit.Lessons.Select(
                        (lesson, n) =>
                            new PaceLesson(
                                plan.IdOf(lesson.Ref),
                                $"{place + 1}.{n + 1}",
                                lesson.Title,
                                place + 1,
                                unit.Title,
                                lesson.Length,
                                lesson.Optional
                            )
                    )
            )
            .ToList();
        var placeOf = plan
            .Edition.Units.SelectMany(unit => unit.Lessons)
            .Select((lesson, place) => (lesson.Ref, place))
            .ToDictionary(pair => pair.Ref, pair => pair.place);
        // What is measured otherwise cannot be held against it.
        var then = last?.Edition.Basis == plan.Edition.Basis && LastTime.Of(last.Schedule) is { IsEmpty: false } known ? known : null;
        return new(
            plan.Id,
            plan.Version,
            canChange,
            plan.Edition.Basis == Basis.Meetings ? "classes" : "minutes",
            then is null ? null : last!.Edition.Title,
            lessons,
            [.. plan.Sections.Select(section => SectionOf(plan, then, section, placeOf, origin, at))]
        );
    }

    private static PaceSection SectionOf(
        EditionPlan plan,
        LastTime? then,
        FollowingSection section,
        Dictionary<Ref<Lesson>, int> placeOf,
        LocalDate origin,
        Instant at
    )
    {
        var schedule = plan.Schedule.Section(section.Section.Ref);
        var pace = Core.Planning.Pace.Of(schedule, at);
        var forecast = schedule.Forecast.Lessons.ToDictionary(lesson => lesson.Lesson);
        var planned = schedule.Planned.Lessons.ToDictionary(lesson => lesson.Lesson);
        var lastTime = then?.On(schedule, plan.Edition);
        var behindLast =
            pace.Lesson is { } current
            && forecast.GetValueOrDefault(current)?.Start is { } now
            && lastTime?.GetValueOrDefault(current)?.Start is { } earlier
                ? now.Ordinal - earlier.Ordinal
                : (int?)null;
        var records = plan.Taught.Where(row => row.Section == section.Id).ToDictionary(row => row.Lesson);
        var own = plan.Adjustments.Where(row => row.Section == section.Id).ToDictionary(row => (row.Target, row.Field), row => row.Version);
        var inClass = schedule
            .Forecast.Lessons.SelectMany(lesson => lesson.Ordinals.Select(ordinal => (ordinal, lesson.Lesson)))
            .ToLookup(pair => pair.ordinal, pair => schedule.Lesson(pair.Lesson)!.Title);
        return new(
            section.Id,
            section.Name,
            section.Letter,
            section.StudentsOn(plan.Term.Local(at).Date),
            [.. schedule.Course.Lessons.Where(lesson => placeOf.ContainsKey(lesson.Ref)).Select(RunOf)],
            [.. schedule.Meetings.Meetings.Select(ClassOf)],
            pace.BehindBy,
            behindLast,
            pace.Lesson is { } lesson ? schedule.Lesson(lesson)!.Title : null,
            Moment.Of(pace.Finish, plan.Term.Zone),
            schedule.Forecast.Lacking,
            schedule.Forecast.Free.Length,
            [
                .. schedule
                    .Forecast.Lessons.Where(lesson => lesson.Overflow > 0 || !lesson.IsPlaced)
                    .Select(lesson => schedule.Lesson(lesson.Lesson)!.Title),
            ]
        );

        PaceRun RunOf(CourseLesson lesson)
        {
            var (here, plannedHere, record) = (
                forecast.GetValueOrDefault(lesson.Ref),
                planned.GetValueOrDefault(lesson.Ref),
                records.GetValueOrDefault(lesson.Ref.Name)
            );
            var last = lastTime?.GetValueOrDefault(lesson.Ref);
            return new(
                placeOf[lesson.Ref],
                plan.IdOf(lesson.Ref),
                Place(here?.StartsAt),
                Place(here?.EndsAt),
                Place(plannedHere?.StartsAt),
                Place(plannedHere?.EndsAt),
                Place(last?.StartsAt),
                Place(last?.EndsAt),
                last is null ? null : ClassesInWords([.. last.Ordinals]),
                here is null ? "" : ClassesInWords([.. here.Ordinals]),
                Moment.Of(here?.StartsAt, plan.Term.Zone),
                Moment.Of(here?.EndsAt, plan.Term.Zone),
                record is { Done: true } ? "taught"
                    : record is not null ? "begun"
                    : "ahead",
                lesson.Skipped,
                lesson.Length,
                record?.Took,
                record?.Left,
                record?.Version ?? 0,
                here?.Overflow ?? 0,
                lesson.Pin is { } pin ? $"{pin:uuuu-MM-dd}" : null,
                own.GetValueOrDefault((lesson.Ref.Name, "pin")),
                own.GetValueOrDefault((lesson.Ref.Name, "length"))
            );
        }

        PaceClass ClassOf(Meeting meeting) =>
            new(
                meeting.Ordinal,
                Place(meeting.StartsAt)!.Value,
                $"{meeting.Date:uuuu-MM-dd}",
                $"{meeting.Start:HH:mm}",
                $"{meeting.End:HH:mm}",
                Moment.Of(meeting.StartsAt, plan.Term.Zone).Words,
                Counting.Joined([.. inClass[meeting.Ordinal]], "and"),
                meeting.Counts,
                meeting.Label is null,
                meeting.EndsAt <= at
            );

        double? Place(Instant? moment)
        {
            if (moment is not { } instant)
                return null;
            var local = plan.Term.Local(instant);
            return NodaTime.Period.DaysBetween(origin, local.Date)
                + Math.Round(local.TimeOfDay.NanosecondOfDay / (double)NodaConstants.NanosecondsPerDay, 4);
        }
    }

    private static string ClassesInWords(IReadOnlyList<int> ordinals) =>
        ordinals.Count switch
        {
            0 => "no class of its own",
            1 => $"class {ordinals[0]}",
            _ => $"classes {Counting.Joined([.. ordinals.Select(ordinal => $"{ordinal}")], "and")}",
        };
}
