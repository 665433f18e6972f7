using System.Collections.Concurrent;
using System.Globalization;
using NodaTime;
using NodaTime.Text;

namespace Polycline.Web.Foundation.Reading;

/// <summary>
/// A moment as it travels to the browser, which never converts: the instant, what the clock on the wall says, and both in words.
/// </summary>
/// <param name="Instant">UTC, <c>2026-10-08T09:15:00Z</c>.</param>
/// <param name="Local">Local to the school, <c>2026-10-08T10:15:00</c>.</param>
/// <param name="Weekday"><c>thu</c>.</param>
/// <param name="Words"><c>Thu 8 Oct, 10:15</c>.</param>
public sealed record Moment(string Instant, string Local, string Weekday, string Words)
{
    private static readonly LocalDateTimePattern Spoken = LocalDateTimePattern.CreateWithInvariantCulture("ddd d MMM, HH:mm");
    private static readonly LocalDatePattern DayAlone = LocalDatePattern.CreateWithInvariantCulture("ddd d");
    private static readonly LocalDatePattern DayAndMonth = LocalDatePattern.CreateWithInvariantCulture("ddd d MMM");
    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("d MMM");

    // The same dates of a course are asked for again and again.
    private const int MostKept = 20_000;
    private static readonly ConcurrentDictionary<(Instant, string), Moment> Kept = [];

    private static int kept;

    public static Moment Of(Instant instant, DateTimeZone zone)
    {
        // Now, and when somebody did something, is asked for once; plans are made of whole minutes.
        if (instant.ToUnixTimeTicks() % NodaConstants.TicksPerMinute != 0)
            return Written(instant, zone);
        if (Kept.TryGetValue((instant, zone.Id), out var known))
            return known;
        // Counted here, because the dictionary would take all its locks to count.
        if (Interlocked.Increment(ref kept) > MostKept)
        {
            Kept.Clear();
            Interlocked.Exchange(ref kept, 0);
        }
        return Kept[(instant, zone.Id)] = Written(instant, zone);
    }

    private static Moment Written(Instant instant, DateTimeZone zone)
    {
        var local = instant.InZone(zone).LocalDateTime;
        return new(
            InstantPattern.General.Format(instant),
            LocalDateTimePattern.GeneralIso.Format(local),
            local.DayOfWeek.ToString()[..3].ToLower(CultureInfo.InvariantCulture),
            Spoken.Format(local)
        );
    }

    /// <summary>Null for none.</summary>
    public static Moment? Of(Instant? instant, DateTimeZone zone) => instant is { } at ? Of(at, zone) : null;

    /// <summary><c>8 Oct</c>.</summary>
    public static string InWords(LocalDate date) => Day.Format(date);

    /// <summary><c>Mon 26 – Fri 30 Oct</c>, or <c>Fri 18 Sep</c> where both are one day.</summary>
    public static string InWords(LocalDate first, LocalDate last) =>
        first == last
            ? DayAndMonth.Format(first)
            : $"{(first.Month == last.Month && first.Year == last.Year ? DayAlone : DayAndMonth).Format(first)} "
                + $"– {DayAndMonth.Format(last)}";
}
