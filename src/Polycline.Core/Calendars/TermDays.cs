using System.Collections.Immutable;
using NodaTime;
using NodaTime.TimeZones;

namespace Polycline.Core.Calendars;

/// <summary>A term with its class days worked out: what dates and moments are counted on. Source: the computation, chapters 1 and 2.</summary>
public sealed class TermDays
{
    private readonly LocalDate[] dates;

    private TermDays(Term term, ImmutableArray<ClassDay> days)
    {
        Term = term;
        Days = days;
        dates = [.. days.Select(day => day.Date)];
        Start = ToInstant(term.First + LocalTime.Midnight);
        End = ToInstant(term.Last + new LocalTime(23, 59));
    }

    public Term Term { get; }

    /// <summary>In order of date.</summary>
    public ImmutableArray<ClassDay> Days { get; }

    /// <summary>00:00 of the first date.</summary>
    public Instant Start { get; }

    /// <summary>23:59 of the last date.</summary>
    public Instant End { get; }

    public static TermDays Of(Term term) => new(term, ClassDays.Of(term));

    /// <summary>
    /// Local → instant: a time that the clocks skip moves forward by the gap; one that occurs twice takes the earlier.
    /// </summary>
    public Instant ToInstant(LocalDateTime local) => Term.Zone.ResolveLocal(local, Resolvers.LenientResolver).ToInstant();

    public bool Holds(LocalDate date) => Term.First <= date && date <= Term.Last;

    public bool IsClassDay(LocalDate date) => Array.BinarySearch(dates, date) >= 0;

    /// <summary>The <paramref name="n"/>-th class day after <paramref name="date"/>, or before it where n is below 0; null where there is none.</summary>
    public LocalDate? Step(LocalDate date, int n)
    {
        var at = Array.BinarySearch(dates, date);
        var place = n > 0
            ? (at >= 0 ? at : ~at - 1) + n
            : (at >= 0 ? at : ~at) + n;
        return place >= 0 && place < dates.Length ? dates[place] : null;
    }

    /// <summary>Special days on dates that are no class days: they sleep.</summary>
    public IEnumerable<SpecialDay> IdleSpecialDays => Term.Calendar.SpecialDays.Where(day => !IsClassDay(day.Date));
}
