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

public sealed record PaceSection
{
    public required Id<Section> Id { get; init; }

    public required string Name { get; init; }

    public required string Letter { get; init; }

    public required int Students { get; init; }

    /// <summary>It is made up, and counts nowhere.</summary>
    public required bool Pretend { get; init; }

    /// <summary>Its last day in words, where it had ended by then.</summary>
    public required string? Ended { get; init; }

    /// <summary>In the section's running order.</summary>
    public required IReadOnlyList<PaceRun> Lessons { get; init; }

    public required IReadOnlyList<PaceClass> Classes { get; init; }

    /// <summary>In classes, at the moment in view; below 0: ahead. Null: it is through, or no telling.</summary>
    public required int? BehindBy { get; init; }

    /// <summary>In classes, held against the edition before; below 0: ahead. Null: no telling.</summary>
    public required int? BehindLast { get; init; }

    /// <summary>The lesson it is at then, or comes to next.</summary>
    public required string? AtLesson { get; init; }

    public required Moment? Finish { get; init; }

    /// <summary>How much does not fit.</summary>
    public required int Lacking { get; init; }

    public required int Free { get; init; }

    /// <summary>Titles of what does not reach the end.</summary>
    public required IReadOnlyList<string> Unplaced { get; init; }
}

/// <summary>A lesson of the course as a section has it. Places are in days from the ribbon's origin.</summary>
public sealed record PaceRun
{
    /// <summary>Its place in the course's order, from 0.</summary>
    public required int Place { get; init; }

    public required Id<Lesson> Lesson { get; init; }

    /// <summary>Null: it is not placed.</summary>
    public required double? From { get; init; }

    public required double? To { get; init; }

    /// <summary>Where it was to begin without what was really taught.</summary>
    public required double? PlannedFrom { get; init; }

    public required double? PlannedTo { get; init; }

    /// <summary>Where it would begin if it went as last time, by classes and not by date; null: nothing of it fits.</summary>
    public required double? LastFrom { get; init; }

    public required double? LastTo { get; init; }

    /// <summary>The classes it would have then, in words.</summary>
    public required string? Last { get; init; }

    /// <summary>Such as <c>class 5</c> or <c>classes 5 and 6</c>.</summary>
    public required string Classes { get; init; }

    public required Moment? Starts { get; init; }

    public required Moment? Ends { get; init; }

    /// <summary><c>taught</c>, <c>begun</c> or <c>ahead</c>.</summary>
    public required string State { get; init; }

    public required bool Skipped { get; init; }

    public required int Length { get; init; }

    /// <summary>What it has really taken; null: nothing is recorded.</summary>
    public required int? Took { get; init; }

    public required int? Left { get; init; }

    /// <summary>Of the record; 0: there is none.</summary>
    public required long Version { get; init; }

    /// <summary>How much of it does not fit.</summary>
    public required int Overflow { get; init; }

    /// <summary>The date it is fixed to here.</summary>
    public required string? Pin { get; init; }

    /// <summary>Of that difference; 0: there is none.</summary>
    public required long PinVersion { get; init; }

    /// <summary>Of the difference in its length; 0: there is none.</summary>
    public required long LengthVersion { get; init; }
}

public sealed record PaceClass
{
    public required int Ordinal { get; init; }

    public required double At { get; init; }

    public required string Date { get; init; }

    /// <summary>Local, <c>08:40</c>.</summary>
    public required string Start { get; init; }

    public required string End { get; init; }

    public required string Words { get; init; }

    /// <summary>What is taught in it.</summary>
    public required string Lesson { get; init; }

    public required int Counts { get; init; }

    /// <summary>Not in the timetable: added or moved.</summary>
    public required bool Own { get; init; }

    public required bool IsOver { get; init; }
}

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
        // An edition measured in other units cannot be compared with it.
        var then = last?.Edition.Basis == plan.Edition.Basis && LastTime.Of(last.Schedule) is { IsEmpty: false } known ? known : null;
        return new(
            plan.Id,
            plan.Version,
            canChange,
            plan.Edition.Basis == Basis.Meetings ? "classes" : "minutes",
            then is null ? null : last!.Edition.Title,
            lessons,
            [
                .. plan
                    .Sections.OrderBy(section => section.EndedOn < plan.Term.Local(at).Date)
                    .Select(section => SectionOf(plan, then, section, placeOf, origin, at)),
            ]
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
        return new()
        {
            Id = section.Id,
            Name = section.Name,
            Letter = section.Letter,
            Students = section.StudentsOn(plan.Term.Local(at).Date),
            Pretend = section.Pretend is not null,
            Ended = section.EndedOn is { } last && last < plan.Term.Local(at).Date ? Moment.InWords(last, last) : null,
            Lessons = [.. schedule.Course.Lessons.Where(lesson => placeOf.ContainsKey(lesson.Ref)).Select(RunOf)],
            Classes =
            [
                .. schedule.Meetings.Meetings.Where(meeting => section.EndedOn is not { } end || meeting.Date <= end).Select(ClassOf),
            ],
            BehindBy = pace.BehindBy,
            BehindLast = behindLast,
            AtLesson = pace.Lesson is { } lesson ? schedule.Lesson(lesson)!.Title : null,
            Finish = Moment.Of(pace.Finish, plan.Term.Zone),
            Lacking = schedule.Forecast.Lacking,
            Free = schedule.Forecast.Free.Length,
            Unplaced =
            [
                .. schedule
                    .Forecast.Lessons.Where(lesson => lesson.Overflow > 0 || !lesson.IsPlaced)
                    .Select(lesson => schedule.Lesson(lesson.Lesson)!.Title),
            ],
        };

        PaceRun RunOf(CourseLesson lesson)
        {
            var (here, plannedHere, record) = (
                forecast.GetValueOrDefault(lesson.Ref),
                planned.GetValueOrDefault(lesson.Ref),
                records.GetValueOrDefault(lesson.Ref.Name)
            );
            var last = lastTime?.GetValueOrDefault(lesson.Ref);
            return new()
            {
                Place = placeOf[lesson.Ref],
                Lesson = plan.IdOf(lesson.Ref),
                From = Place(here?.StartsAt),
                To = Place(here?.EndsAt),
                PlannedFrom = Place(plannedHere?.StartsAt),
                PlannedTo = Place(plannedHere?.EndsAt),
                LastFrom = Place(last?.StartsAt),
                LastTo = Place(last?.EndsAt),
                Last = last is null ? null : ClassesInWords([.. last.Ordinals]),
                Classes = here is null ? "" : ClassesInWords([.. here.Ordinals]),
                Starts = Moment.Of(here?.StartsAt, plan.Term.Zone),
                Ends = Moment.Of(here?.EndsAt, plan.Term.Zone),
                State =
                    record is { Done: true } ? "taught"
                    : record is not null ? "begun"
                    : "ahead",
                Skipped = lesson.Skipped,
                Length = lesson.Length,
                Took = record?.Took,
                Left = record?.Left,
                Version = record?.Version ?? 0,
                Overflow = here?.Overflow ?? 0,
                Pin = lesson.Pin is { } pin ? $"{pin:uuuu-MM-dd}" : null,
                PinVersion = own.GetValueOrDefault((lesson.Ref.Name, AdjustedField.Pin)),
                LengthVersion = own.GetValueOrDefault((lesson.Ref.Name, AdjustedField.Length)),
            };
        }

        PaceClass ClassOf(Meeting meeting) =>
            new()
            {
                Ordinal = meeting.Ordinal,
                At = Place(meeting.StartsAt)!.Value,
                Date = $"{meeting.Date:uuuu-MM-dd}",
                Start = $"{meeting.Start:HH:mm}",
                End = $"{meeting.End:HH:mm}",
                Words = Moment.Of(meeting.StartsAt, plan.Term.Zone).Words,
                Lesson = Counting.Joined([.. inClass[meeting.Ordinal]], "and"),
                Counts = meeting.Counts,
                Own = meeting.Label is null,
                IsOver = meeting.EndsAt <= at,
            };

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
