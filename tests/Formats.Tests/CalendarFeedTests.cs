using System.Text;
using NodaTime;
using Polycline.Formats;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Calendars for others to subscribe to.</summary>
public sealed class CalendarFeedTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly Instant Stamp = Instant.FromUtc(2026, 10, 8, 9, 15);

    [Fact]
    public void A_class_is_at_its_hour_on_the_wall_before_and_after_the_clocks_change()
    {
        var lines = Lines(
            Event("a", Instant.FromUtc(2026, 10, 23, 9, 0), Instant.FromUtc(2026, 10, 23, 9, 45)),
            Event("b", Instant.FromUtc(2026, 10, 30, 10, 0), Instant.FromUtc(2026, 10, 30, 10, 45))
        );
        lines
            .Where(line => line.StartsWith("DTSTART;TZID", StringComparison.Ordinal))
            .ShouldBe(["DTSTART;TZID=Europe/Dublin:20261023T100000", "DTSTART;TZID=Europe/Dublin:20261030T100000"]);
        // What the zone says of itself: an hour ahead until Sunday 25 October, then none.
        lines.ShouldContain("DTSTART:20261025T020000");
        lines.ShouldContain("TZOFFSETFROM:+0100");
        lines.ShouldContain("TZOFFSETTO:+0000");
    }

    [Fact]
    public void What_is_cancelled_says_so_what_has_no_length_keeps_nobody_busy_and_the_count_is_every_events()
    {
        var lines = Lines(Event("a", Stamp, Stamp + Duration.FromMinutes(45)) with { Cancelled = true }, Event("b", Stamp, null));
        lines.Count(line => line == "STATUS:CANCELLED").ShouldBe(1);
        lines.Count(line => line == "TRANSP:TRANSPARENT").ShouldBe(1);
        lines.Count(line => line == "SEQUENCE:7").ShouldBe(2);
        lines.Count(line => line == "DTSTAMP:20261008T091500Z").ShouldBe(2);
    }

    [Fact]
    public void A_title_of_any_script_and_length_is_folded_and_comes_out_whole()
    {
        var title = string.Concat(Enumerable.Repeat("Nuées, basses; et «stratus» — ", 20)).Trim();
        var bytes = CalendarFeed.Write("Weather Watch", Dublin, [Event("a", Stamp, null) with { Summary = title }], 1, Stamp);
        var written = Encoding.UTF8.GetString(bytes).Split("\r\n");
        written.ShouldAllBe(line => Encoding.UTF8.GetByteCount(line) <= 75);
        string.Concat(written.Select(line => line.StartsWith(' ') ? line[1..] : "\n" + line))
            .ShouldContain("SUMMARY:" + title.Replace(",", "\\,", StringComparison.Ordinal).Replace(";", "\\;", StringComparison.Ordinal));
    }

    [Fact]
    public void A_calendar_without_events_is_one_all_the_same()
    {
        var lines = Lines();
        lines[0].ShouldBe("BEGIN:VCALENDAR");
        lines.ShouldContain("NAME:Weather Watch");
        lines.ShouldNotContain("BEGIN:VEVENT");
    }

    private static FeedEvent Event(string uid, Instant from, Instant? to) => new(uid, from, to, "A class", null, false);

    private static string[] Lines(params FeedEvent[] events) =>
        Encoding
            .UTF8.GetString(CalendarFeed.Write("Weather Watch", Dublin, events, 7, Stamp))
            .Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
}
