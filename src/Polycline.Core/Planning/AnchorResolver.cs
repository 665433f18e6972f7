using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>Where an anchor came to.</summary>
/// <param name="At">Null: unresolved, or out of the term.</param>
/// <param name="Out">Out of the term at its start (below 0) or at its end (above 0); 0: in it.</param>
public readonly record struct AnchorMoment(Instant? At, int Out)
{
    public static readonly AnchorMoment Unresolved = new(null, 0);
}

/// <summary>Anchors → moments, in one section's forecast. Source: the computation, chapter 4.</summary>
public sealed class AnchorResolver
{
    private readonly TermDays term;
    private readonly MeetingList meetings;
    private readonly Dictionary<string, PlacedLesson> lessons;
    private readonly Dictionary<string, (Instant At, Meeting Meeting)> unitStarts = [];
    private readonly Dictionary<string, (Instant At, Meeting Meeting)> unitEnds = [];

    public AnchorResolver(TermDays term, MeetingList meetings, SectionCourse course, Placement forecast)
    {
        this.term = term;
        this.meetings = meetings;
        lessons = new(forecast.Lessons.Length);
        foreach (var lesson in forecast.Lessons)
            if (lesson.IsPlaced)
                lessons.Add(lesson.Lesson.Name, lesson);
        foreach (var lesson in course.Lessons)
            if (lessons.GetValueOrDefault(lesson.Ref.Name) is { } placed)
                Widen(lesson.Unit.Ref.Name, placed);
    }

    /// <summary>Where the walk along an anchor's steps stands.</summary>
    /// <param name="At">The moment itself, while no step has changed the date.</param>
    /// <param name="Local">The local date and time; it becomes an instant once, after the last step, so a time the clocks skip on the way
    /// is kept.</param>
    /// <param name="Meeting">The meeting that is carried; null: none is.</param>
    private readonly record struct Standing(Instant? At, LocalDateTime Local, Meeting? Meeting);

    /// <param name="lesson">The item's own lesson; null: it is directly on a unit, or the anchor is of no item.</param>
    /// <param name="unit">The item's own unit.</param>
    /// <param name="own">What the item's own date comes to on which <c>own-opens</c> or <c>own-due</c> stands; null: it does not.</param>
    /// <param name="steps">Where given, each step is added to it.</param>
    public AnchorMoment Resolve(Anchor anchor, Ref<Lesson>? lesson, Ref<Unit>? unit, Instant? own, List<DateStep>? steps = null)
    {
        var begins = Base(anchor, lesson?.Name, unit?.Name, own);
        steps?.Add(BaseStep(anchor, lesson?.Name, unit?.Name, begins));
        if (begins is not { } standing)
            return AnchorMoment.Unresolved;
        if (anchor.At == AnchorBase.Fixed)
            Skipped(standing.Local);
        if (anchor.Meetings is { } n && n != 0)
        {
            var place = (standing.Meeting is { } carried ? carried.Ordinal - 1 : FirstAtOrAfter(standing.At!.Value)) + n;
            if (place < 0 || place >= meetings.Meetings.Length)
            {
                steps?.Add(new(DateStepKind.Meetings, null) { By = n });
                return new(null, n);
            }
            standing = At(meetings.Meetings[place].StartsAt, meetings.Meetings[place]);
            steps?.Add(new(DateStepKind.Meetings, standing.At) { By = n, Meeting = standing.Meeting!.Ordinal });
        }
        if (anchor.Weeks is not (null or 0) || anchor.Days is not (null or 0))
        {
            var (weeks, days) = (anchor.Weeks ?? 0, anchor.Days ?? 0);
            standing = new(null, standing.Local.PlusWeeks(weeks).PlusDays(days), null);
            steps?.Add(new(DateStepKind.Days, term.ToInstant(standing.Local)) { Weeks = weeks, Days = days });
        }
        if (anchor.ClassDays is { } classDays && classDays != 0)
        {
            var stepped = term.Step(standing.Local.Date, classDays) is { } date ? date + standing.Local.TimeOfDay : (LocalDateTime?)null;
            steps?.Add(new(DateStepKind.ClassDays, stepped is { } then ? term.ToInstant(then) : null) { By = classDays });
            if (stepped is not { } local)
                return new(null, classDays);
            standing = new(null, local, null);
        }
        var (at, wanted, meeting) = AtClock(standing, anchor.Clock);
        if (anchor.Clock is { Kind: not ClockKind.Keep })
            steps?.Add(new(DateStepKind.Clock, at) { Clock = anchor.Clock, Meeting = meeting?.Ordinal });
        if (wanted is { } time)
            Skipped(time);
        return new(at, 0);

        void Skipped(LocalDateTime time)
        {
            if (steps is not null && term.ToInstant(time) is var instead && term.Local(instead) != time)
                steps.Add(new(DateStepKind.SkippedHour, instead));
        }
    }

    private static DateStep BaseStep(Anchor anchor, string? lesson, string? unit, Standing? begins)
    {
        // Of an item directly on a unit, the lesson's moments are the unit's.
        var (at, of) = anchor.At switch
        {
            AnchorBase.LessonStart when (anchor.Of ?? lesson) is null => (AnchorBase.UnitStart, unit),
            AnchorBase.LessonEnd when (anchor.Of ?? lesson) is null => (AnchorBase.UnitEnd, unit),
            AnchorBase.LessonStart or AnchorBase.LessonEnd => (anchor.At, anchor.Of ?? lesson),
            AnchorBase.UnitStart or AnchorBase.UnitEnd => (anchor.At, anchor.Of ?? unit),
            _ => (anchor.At, null),
        };
        return new(DateStepKind.Base, begins?.At)
        {
            At = at,
            Of = of,
            Meeting = begins?.Meeting?.Ordinal,
        };
    }

    /// <summary>When a lesson starts; null: it is not placed.</summary>
    public Instant? StartOf(Ref<Lesson> lesson) => lessons.GetValueOrDefault(lesson.Name)?.StartsAt;

    private Standing? Base(Anchor anchor, string? lesson, string? unit, Instant? own)
    {
        switch (anchor.At)
        {
            case AnchorBase.LessonStart or AnchorBase.LessonEnd when (anchor.Of ?? lesson) is { } named:
                return lessons.GetValueOrDefault(named) is not { } placed ? null
                    : anchor.At == AnchorBase.LessonStart ? At(placed.StartsAt!.Value, placed.Start)
                    : At(placed.EndsAt!.Value, placed.End);
            case AnchorBase.LessonStart or AnchorBase.UnitStart:
                return (anchor.Of ?? unit) is { } starting && unitStarts.TryGetValue(starting, out var start)
                    ? At(start.At, start.Meeting)
                    : null;
            case AnchorBase.LessonEnd or AnchorBase.UnitEnd:
                return (anchor.Of ?? unit) is { } ending && unitEnds.TryGetValue(ending, out var end) ? At(end.At, end.Meeting) : null;
            case AnchorBase.TermStart:
                return At(term.Term.First.AtMidnight());
            case AnchorBase.TermEnd:
                return At(term.Term.Last + new LocalTime(23, 59));
            case AnchorBase.Fixed:
                return At(anchor.Date!.Value + anchor.Time!.Value);
            default:
                return own is { } moment ? At(moment, null) : null;
        }
    }

    private Standing At(LocalDateTime local) => new(term.ToInstant(local), local, null);

    private Standing At(Instant moment, Meeting? meeting) => new(moment, term.Local(moment), meeting);

    /// <returns>With the local time that was wanted, where one was, and the meeting that gave the time.</returns>
    private (Instant At, LocalDateTime? Wanted, Meeting? Meeting) AtClock(Standing standing, AnchorClock? clock)
    {
        if (clock is { Kind: ClockKind.Time })
        {
            var wanted = standing.Local.Date + clock.Time!.Value;
            return (term.ToInstant(wanted), wanted, null);
        }
        if (
            clock is { Kind: ClockKind.MeetingStart or ClockKind.MeetingEnd }
            && (standing.Meeting ?? FirstOn(standing.Local.Date)) is { } meeting
        )
            return (clock.Kind == ClockKind.MeetingStart ? meeting.StartsAt : meeting.EndsAt, null, meeting);
        return standing.At is { } at ? (at, null, null) : (term.ToInstant(standing.Local), standing.Local, null);
    }

    // Meetings are in order of their moments: one of a date stands right after all that begin before that day.
    private Meeting? FirstOn(LocalDate date)
    {
        for (
            var place = FirstAtOrAfter(term.ToInstant(date.AtMidnight()));
            place < meetings.Meetings.Length && meetings.Meetings[place].Date <= date;
            place++
        )
            if (meetings.Meetings[place].Date == date)
                return meetings.Meetings[place];
        return null;
    }

    private int FirstAtOrAfter(Instant moment)
    {
        var (low, high) = (0, meetings.Meetings.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (meetings.Meetings[middle].StartsAt < moment)
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }

    // The earliest start and the latest end of a unit's own placed lessons; of equal ones the lower and the higher ordinal.
    private void Widen(string unit, PlacedLesson placed)
    {
        var (start, end) = ((At: placed.StartsAt!.Value, Meeting: placed.Start!), (At: placed.EndsAt!.Value, Meeting: placed.End!));
        if (
            !unitStarts.TryGetValue(unit, out var earliest)
            || start.At < earliest.At
            || (start.At == earliest.At && start.Meeting.Ordinal < earliest.Meeting.Ordinal)
        )
            unitStarts[unit] = start;
        if (
            !unitEnds.TryGetValue(unit, out var latest)
            || end.At > latest.At
            || (end.At == latest.At && end.Meeting.Ordinal > latest.Meeting.Ordinal)
        )
            unitEnds[unit] = end;
    }
}
