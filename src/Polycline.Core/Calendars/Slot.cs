using System.Collections.Immutable;
using NodaTime;

namespace Polycline.Core.Calendars;

/// <summary>When a section meets, as its timetable says. Source: the computation, chapter 2.</summary>
/// <param name="Day">A label the rotation can give; in a rotation of weeks a bare weekday matches every week.</param>
/// <param name="From">The first date for which it holds; null: from the beginning.</param>
/// <param name="Until">The last one; null: to the end.</param>
/// <param name="Counts">For how many meetings it counts where lessons are measured in meetings, from 1.</param>
public abstract record Slot(string Day, LocalDate? From, LocalDate? Until, int Counts)
{
    /// <summary>In these periods, together one meeting from the earliest start to the latest end.</summary>
    public sealed record InPeriods(
        string Day,
        ImmutableArray<string> Periods,
        LocalDate? From = null,
        LocalDate? Until = null,
        int Counts = 1
    ) : Slot(Day, From, Until, Counts);

    /// <summary>At times of its own, which special periods do not touch.</summary>
    public sealed record AtTimes(
        string Day,
        LocalTime Start,
        LocalTime End,
        LocalDate? From = null,
        LocalDate? Until = null,
        int Counts = 1
    ) : Slot(Day, From, Until, Counts);

    public bool HoldsOn(LocalDate date) => (From is null || From <= date) && (Until is null || date <= Until);
}

/// <summary>Something a section changes in its meetings. Changes apply in turn. Source: the computation, chapter 2.</summary>
public abstract record MeetingChange
{
    private MeetingChange() { }

    /// <summary>No meeting then. <paramref name="Start"/> says which where the date has several.</summary>
    public sealed record Cancel(LocalDate Date, LocalTime? Start) : MeetingChange;

    /// <summary>The meeting is held at another time; it keeps for how many it counts.</summary>
    public sealed record Move(LocalDate Date, LocalTime? Start, LocalDate ToDate, LocalTime ToStart, LocalTime ToEnd) : MeetingChange;

    /// <summary>A meeting more, on any date of the term.</summary>
    public sealed record Extra(LocalDate Date, LocalTime Start, LocalTime End, int Counts = 1) : MeetingChange;
}
