using NodaTime;
using NodaTime.TimeZones;

namespace Polycline.Core.Calendars;

/// <summary>
/// Local ↔ instant in a zone, quickly around a term: between two changes of the clocks the offset is one and the same.
/// Source: the computation, chapter 2.
/// </summary>
internal sealed class ZoneTimes
{
    // The clocks never change by as much; so far from a change a local time has one offset only.
    private static readonly Duration Clear = Duration.FromDays(2);
    private readonly DateTimeZone zone;
    private readonly PlainStretch[] plain;

    public ZoneTimes(DateTimeZone zone, LocalDate first, LocalDate last)
    {
        this.zone = zone;
        plain =
        [
            .. zone.GetZoneIntervals(Around(first, -1), Around(last, 1))
                .Where(interval =>
                    (interval.HasStart && interval.HasEnd && interval.Duration > Clear + Clear) || !interval.HasStart || !interval.HasEnd
                )
                .Select(interval => new PlainStretch(
                    interval.HasStart ? interval.Start : Instant.MinValue,
                    interval.HasEnd ? interval.End : Instant.MaxValue,
                    interval.HasStart ? interval.IsoLocalStart.PlusDays(2) : LocalDate.MinIsoValue.AtMidnight(),
                    interval.HasEnd ? interval.IsoLocalEnd.PlusDays(-2) : LocalDate.MaxIsoValue.AtMidnight(),
                    interval.WallOffset
                )),
        ];
    }

    /// <param name="From">Local, well after the change of the clocks.</param>
    /// <param name="To">Local, well before the next.</param>
    private readonly record struct PlainStretch(Instant Start, Instant End, LocalDateTime From, LocalDateTime To, Offset Offset);

    public LocalDateTime Local(Instant moment)
    {
        foreach (ref readonly var stretch in plain.AsSpan())
            if (stretch.Start <= moment && moment < stretch.End)
                return moment.WithOffset(stretch.Offset).LocalDateTime;
        return moment.InZone(zone).LocalDateTime;
    }

    /// <summary>A time that the clocks skip moves forward by the gap; one that occurs twice takes the earlier.</summary>
    public Instant ToInstant(LocalDateTime local)
    {
        foreach (ref readonly var stretch in plain.AsSpan())
            if (stretch.From <= local && local < stretch.To)
                return local.WithOffset(stretch.Offset).ToInstant();
        return zone.ResolveLocal(local, Resolvers.LenientResolver).ToInstant();
    }

    private static Instant Around(LocalDate date, int years) => date.PlusYears(years).AtMidnight().InUtc().ToInstant();
}
