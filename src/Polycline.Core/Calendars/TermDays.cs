using System.Collections.Immutable;
using NodaTime;

namespace Polycline.Core.Calendars;

/// <summary>
/// A term with its class days worked out: what dates and moments are counted on. Source: the computation, chapters 1 and 2.
/// </summary>
public sealed class TermDays
{
    private readonly LocalDate[] dates;
    private readonly bool[] isClassDay;

    // Between these a moment is in the term, whatever the clocks do.
    private readonly Instant wellIn;
    private readonly Instant wellOut;
    private readonly ZoneTimes zone;

    private TermDays(Term term, ImmutableArray<ClassDay> days)
    {
        Term = term;
        Days = days;
        zone = new(term.Zone, term.First, term.Last);
        dates = [.. days.Select(day => day.Date)];
        isClassDay = new bool[NodaTime.Period.DaysBetween(term.First, term.Last) + 1];
        foreach (var date in dates)
            isClassDay[NodaTime.Period.DaysBetween(term.First, date)] = true;
        Start = ToInstant(term.First + LocalTime.Midnight);
        End = ToInstant(term.Last + new LocalTime(23, 59));
        (wellIn, wellOut) = (Start + Duration.FromDays(2), End - Duration.FromDays(2));
    }

    public Term Term { get; }

    /// <summary>In order of date.</summary>
    public ImmutableArray<ClassDay> Days { get; }

    /// <summary>00:00 of the first date.</summary>
    public Instant Start { get; }

    /// <summary>23:59 of the last date.</summary>
    public Instant End { get; }

    public static TermDays Of(Term term) => new(term, ClassDayMaker.Of(term));

    /// <summary>
    /// Local → instant: a time that the clocks skip moves forward by the gap; one that occurs twice takes the earlier.
    /// </summary>
    public Instant ToInstant(LocalDateTime local) => zone.ToInstant(local);

    /// <summary>The local date and time of <paramref name="moment"/> in the term's zone.</summary>
    public LocalDateTime Local(Instant moment) => zone.Local(moment);

    public bool Holds(LocalDate date) => Term.First <= date && date <= Term.Last;

    /// <summary>Whether a moment's local date lies in the term.</summary>
    public bool Holds(Instant moment) => (wellIn <= moment && moment < wellOut) || Holds(Local(moment).Date);

    public bool IsClassDay(LocalDate date) => Holds(date) && isClassDay[NodaTime.Period.DaysBetween(Term.First, date)];

    /// <summary>Whether a moment's local date is a class day.</summary>
    public bool IsClassDay(Instant moment) => IsClassDay(Local(moment).Date);

    /// <summary>
    /// The <paramref name="n"/>-th class day after <paramref name="date"/>, or before it where n is below 0; null where there is none.
    /// </summary>
    public LocalDate? Step(LocalDate date, int n)
    {
        var at = Array.BinarySearch(dates, date);
        var place = n > 0 ? (at >= 0 ? at : ~at - 1) + n : (at >= 0 ? at : ~at) + n;
        return place >= 0 && place < dates.Length ? dates[place] : null;
    }

    /// <summary>Special days on dates that are no class days: they sleep.</summary>
    public IEnumerable<SpecialDay> IdleSpecialDays => Term.Calendar.SpecialDays.Where(day => !IsClassDay(day.Date));
}
