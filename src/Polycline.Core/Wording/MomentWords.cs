using NodaTime;
using NodaTime.Text;

namespace Polycline.Core.Wording;

/// <summary>Moments in words, in the school's zone.</summary>
public static class MomentWords
{
    private static readonly LocalDateTimePattern Spoken = LocalDateTimePattern.CreateWithInvariantCulture("ddd d MMM, HH:mm");

    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm");

    /// <summary><c>2026-10-08T10:15</c>, which sorts as it passes; null for none.</summary>
    public static string? Sortable(Instant? moment, DateTimeZone zone) =>
        moment is { } at ? Local.Format(at.InZone(zone).LocalDateTime) : null;

    /// <summary><c>Thu 8 Oct, 10:15</c>; null for none.</summary>
    public static string? InWords(Instant? moment, DateTimeZone zone) =>
        moment is { } at ? Spoken.Format(at.InZone(zone).LocalDateTime) : null;

    /// <summary>How far from <paramref name="now"/>, by local dates: <c>today</c>, <c>in 3 days</c>, <c>2 weeks ago</c>.</summary>
    public static string Relative(Instant moment, Instant now, DateTimeZone zone)
    {
        var days = NodaTime.Period.DaysBetween(now.InZone(zone).Date, moment.InZone(zone).Date);
        return days switch
        {
            0 => "today",
            1 => "tomorrow",
            -1 => "yesterday",
            > 13 => $"in {days / 7} weeks",
            > 0 => $"in {days} days",
            < -13 => $"{-days / 7} weeks ago",
            _ => $"{-days} days ago",
        };
    }
}
