using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Rollover;

/// <summary>
/// What becomes of dates that are fixed in the calendar. All other timing carries as it is. Source: the computation, chapter 8.
/// </summary>
public enum FixedDates
{
    /// <summary>The same teaching week and weekday of the new term.</summary>
    Week,

    /// <summary>They are cleared.</summary>
    Clear,
}

/// <summary>Re-dates fixed anchors of a course for a new term. Source: the computation, chapter 8.</summary>
public sealed class Redating(TermDays from, TermDays to, FixedDates rule)
{
    private readonly List<LocalDate> oldWeeks = TeachingWeeks(from);
    private readonly List<LocalDate> newWeeks = TeachingWeeks(to);

    /// <summary>The anchor for the new term; null: its target does not exist there, and it is cleared.</summary>
    public Anchor? Of(Anchor anchor)
    {
        if (anchor.At != AnchorBase.Fixed)
            return anchor;
        if (rule == FixedDates.Clear)
            return null;
        var week = oldWeeks.IndexOf(MondayOf(anchor.Date!.Value));
        if (week < 0 || week >= newWeeks.Count)
            return null;
        var date = newWeeks[week].PlusDays((int)anchor.Date.Value.DayOfWeek - 1);
        return to.Holds(date) ? anchor with { Date = date } : null;
    }

    /// <summary>The Mondays of the weeks that hold a class day.</summary>
    public static List<LocalDate> TeachingWeeks(TermDays term) => [.. term.Days.Select(day => MondayOf(day.Date)).Distinct()];

    private static LocalDate MondayOf(LocalDate date) => date.PlusDays(1 - (int)date.DayOfWeek);
}
