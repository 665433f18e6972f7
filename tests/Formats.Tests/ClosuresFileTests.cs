using NodaTime;
using Polycline.Formats;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Closures of a term from somebody else's calendar file.</summary>
public sealed class ClosuresFileTests
{
    private static readonly LocalDate First = new(2026, 8, 31),
        Last = new(2026, 12, 18);

    [Fact]
    public void Whole_days_are_taken_their_end_is_the_day_after_the_last_and_what_lies_outside_the_term_is_cut()
    {
        Read(
            Event("Mid-term break", "DTSTART;VALUE=DATE:20261026", "DTEND;VALUE=DATE:20261031"),
            Event("Staff day", "DTSTART;VALUE=DATE:20261124"),
            Event("Summer", "DTSTART;VALUE=DATE:20260801", "DTEND;VALUE=DATE:20260902"),
            Event("Next year", "DTSTART;VALUE=DATE:20270201")
        )
            .Days.ShouldBe([
                new(First, new(2026, 9, 1), "Summer"),
                new(new(2026, 10, 26), new(2026, 10, 30), "Mid-term break"),
                new(new(2026, 11, 24), new(2026, 11, 24), "Staff day"),
            ]);
    }

    [Fact]
    public void What_repeats_is_followed_day_by_day_and_days_of_one_name_that_follow_on_each_other_are_one()
    {
        Read(
            Event("Exams", "DTSTART;VALUE=DATE:20261207", "RRULE:FREQ=DAILY;COUNT=4"),
            Event("Regatta", "DTSTART;VALUE=DATE:20260904", "RRULE:FREQ=WEEKLY;UNTIL=20260918", "EXDATE;VALUE=DATE:20260911"),
            Event("Founders' day", "DTSTART;VALUE=DATE:20011109", "RRULE:FREQ=YEARLY")
        )
            .Days.ShouldBe([
                new(new(2026, 9, 4), new(2026, 9, 4), "Regatta"),
                new(new(2026, 9, 18), new(2026, 9, 18), "Regatta"),
                new(new(2026, 11, 9), new(2026, 11, 9), "Founders' day"),
                new(new(2026, 12, 7), new(2026, 12, 10), "Exams"),
            ]);
    }

    [Fact]
    public void What_is_no_closure_is_left_out_and_named()
    {
        var found = Read(
            Event("Concert", "DTSTART:20261105T180000Z"),
            Event("Bell", "DTSTART;VALUE=DATE:20261105", "RRULE:FREQ=HOURLY"),
            Event("Never mind", "DTSTART;VALUE=DATE:20261105", "STATUS:CANCELLED"),
            Event("", "DTSTART;VALUE=DATE:20261106")
        );
        found.Days.ShouldBe([new(new(2026, 11, 6), new(2026, 11, 6), "Closed")]);
        found.LeftOut.ShouldBe(["Concert: it has times, but a closure is whole days.", "Bell: it repeats more often than daily."]);
    }

    [Theory]
    [InlineData("", "This is not a calendar file: it does not begin with BEGIN:VCALENDAR.")]
    [InlineData("Dear parents,", "This calendar file cannot be read.")]
    [InlineData("BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:soon\nEND:VEVENT\nEND:VCALENDAR", "Line 3 of the file (DTSTART) cannot be used")]
    [InlineData(
        "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART;VALUE=DATE:2026\n 0230\nEND:VEVENT\nEND:VCALENDAR",
        "Line 3 of the file (DTSTART) cannot be used"
    )]
    [InlineData(
        "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART;VALUE=DATE:20261026\nRRULE:FREQ=DAILY\nRRULE:FREQ=DAILY\nEND:VEVENT\nEND:VCALENDAR",
        "an event has only one repeat rule"
    )]
    [InlineData(
        "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART;VALUE=DATE:20261026\nDURATION:long\nEND:VEVENT\nEND:VCALENDAR",
        "a length such as P5D was expected"
    )]
    public void What_cannot_be_read_is_told_by_its_line(string file, string told) =>
        Should.Throw<CalendarFileException>(() => ClosuresFile.Read(file, First, Last, CancellationToken.None)).Message.ShouldContain(told);

    [Fact]
    public void What_is_more_than_anybody_has_is_refused_and_what_never_comes_is_given_up()
    {
        Should
            .Throw<CalendarFileException>(() =>
                Read([.. Enumerable.Range(0, 2_001).Select(n => Event($"{n}", "DTSTART;VALUE=DATE:20261026"))])
            )
            .Message.ShouldContain("more than 2,000 events");
        Should
            .Throw<CalendarFileException>(() =>
                Read([.. Enumerable.Range(0, 40).Select(n => Event($"{n}", "DTSTART;VALUE=DATE:19000101", "RRULE:FREQ=DAILY"))])
            )
            .Message.ShouldContain("repeat too often");
        Read(Event("Leap", "DTSTART;VALUE=DATE:20260228", "RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30")).Days.ShouldBeEmpty();
    }

    [Fact]
    public void Whoever_has_gone_is_not_worked_for()
    {
        using var gone = new CancellationTokenSource();
        gone.Cancel();
        Should.Throw<OperationCanceledException>(() =>
            ClosuresFile.Read(Calendar(Event("Exams", "DTSTART;VALUE=DATE:20261207", "RRULE:FREQ=DAILY")), First, Last, gone.Token)
        );
    }

    private static ClosuresOfFile Read(params string[] events) => ClosuresFile.Read(Calendar(events), First, Last, CancellationToken.None);

    private static string Calendar(params string[] events) =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//x//EN\r\n{string.Concat(events)}END:VCALENDAR\r\n";

    private static string Event(string name, params string[] lines) =>
        $"BEGIN:VEVENT\r\nUID:{name}\r\nDTSTAMP:20260901T000000Z\r\nSUMMARY:{name}\r\n{string.Join("\r\n", lines)}\r\nEND:VEVENT\r\n";
}
