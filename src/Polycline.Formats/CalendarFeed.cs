using System.Text;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;

namespace Polycline.Formats;

/// <summary>One thing in a calendar: a class, or a moment.</summary>
/// <param name="Uid">The same for ever, whatever becomes of it.</param>
/// <param name="EndsAt">Null: a moment without length.</param>
/// <param name="Cancelled">It would have been then.</param>
public sealed record FeedEvent(string Uid, Instant StartsAt, Instant? EndsAt, string Summary, string? Description, bool Cancelled);

/// <summary>Calendars for others to subscribe to (RFC 5545), with their time zone.</summary>
public static class CalendarFeed
{
    /// <param name="sequence">Of all its events; it never falls.</param>
    /// <param name="stamp">When it was last changed.</param>
    public static byte[] Write(string name, DateTimeZone zone, IEnumerable<FeedEvent> events, int sequence, Instant stamp)
    {
        var calendar = new Calendar { ProductId = "-//Polycline//Polycline//EN", Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", name);
        calendar.AddProperty("NAME", name);
        calendar.AddProperty("REFRESH-INTERVAL;VALUE=DURATION", "PT1H");
        var all = events.ToList();
        if (all.Count > 0)
            calendar.AddTimeZone(ZoneOf(zone, all.Min(one => one.StartsAt), all.Max(one => one.EndsAt ?? one.StartsAt)));
        foreach (var one in all)
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = one.Uid,
                    Start = Local(one.StartsAt, zone),
                    End = one.EndsAt is { } end ? Local(end, zone) : null,
                    Summary = one.Summary,
                    Description = one.Description,
                    Status = one.Cancelled ? EventStatus.Cancelled : EventStatus.Confirmed,
                    Sequence = sequence,
                    DtStamp = new CalDateTime(stamp.ToDateTimeUtc()),
                    Transparency = one.EndsAt is null ? TransparencyType.Transparent : TransparencyType.Opaque,
                }
            );
        return Encoding.UTF8.GetBytes(new CalendarSerializer().SerializeToString(calendar)!);
    }

    // Each change of the clocks by itself: made from rules, zones whose winter time is the exception come out wrong.
    private static VTimeZone ZoneOf(DateTimeZone zone, Instant first, Instant last)
    {
        var written = new VTimeZone(zone.Id);
        foreach (var interval in zone.GetZoneIntervals(first, last + NodaTime.Duration.FromDays(1)))
        {
            var before = interval.HasStart ? zone.GetUtcOffset(interval.Start - NodaTime.Duration.Epsilon) : interval.WallOffset;
            var start = interval.HasStart ? interval.Start : first - NodaTime.Duration.FromDays(366);
            written.TimeZoneInfos.Add(
                new(interval.WallOffset > before ? Components.Daylight : Components.Standard)
                {
                    Start = new CalDateTime(start.WithOffset(before).LocalDateTime.ToDateTimeUnspecified(), hasTime: true),
                    TimeZoneName = interval.Name,
                    OffsetFrom = new UtcOffset(before.ToTimeSpan()),
                    OffsetTo = new UtcOffset(interval.WallOffset.ToTimeSpan()),
                }
            );
        }
        return written;
    }

    private static CalDateTime Local(Instant moment, DateTimeZone zone) =>
        new(moment.InZone(zone).LocalDateTime.ToDateTimeUnspecified(), zone.Id);
}
