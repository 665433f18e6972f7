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
    public AnchorMoment Resolve(Anchor anchor, Ref<Lesson>? lesson, Ref<Unit>? unit, Instant? own)
    {
        if (Base(anchor, lesson?.Name, unit?.Name, own) is not { } standing)
            return AnchorMoment.Unresolved;
        if (anchor.Meetings is { } n && n != 0)
        {
            var place = (standing.Meeting is { } carried ? carried.Ordinal - 1 : FirstAtOrAfter(standing.At!.Value)) + n;
            if (place < 0 || place >= meetings.Meetings.Length)
                return new(null, n);
            standing = At(meetings.Meetings[place].StartsAt, meetings.Meetings[place]);
        }
        if (anchor.Weeks is not (null or 0) || anchor.Days is not (null or 0))
            standing = new(null, standing.Local.PlusWeeks(anchor.Weeks ?? 0).PlusDays(anchor.Days ?? 0), null);
        if (anchor.ClassDays is { } steps && steps != 0)
        {
            if (term.Step(standing.Local.Date, steps) is not { } date)
                return new(null, steps);
            standing = new(null, date + standing.Local.TimeOfDay, null);
        }
        return new(AtClock(standing, anchor.Clock), 0);
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

    private Instant AtClock(Standing standing, AnchorClock? clock)
    {
        if (clock is { Kind: ClockKind.Time })
            return term.ToInstant(standing.Local.Date + clock.Time!.Value);
        if (
            clock is { Kind: ClockKind.MeetingStart or ClockKind.MeetingEnd }
            && (standing.Meeting ?? FirstOn(standing.Local.Date)) is { } meeting
        )
            return clock.Kind == ClockKind.MeetingStart ? meeting.StartsAt : meeting.EndsAt;
        return standing.At ?? term.ToInstant(standing.Local);
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
