using System.Net;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.SignalR.Client;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Live;
using Shouldly;
using Xunit;
using static Polycline.Tests.Web.TermCommandExamples;

namespace Polycline.Tests.Web;

/// <summary>The office marks days and sets the term: what that does to every section is shown before, and can be undone after.</summary>
public sealed class CalendarTests(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    private School school = null!;
    private Caller office = null!;
    private long term;

    public async ValueTask InitializeAsync()
    {
        school = await shared.Open();
        office = await school.As(DemoPeople.Office);
        term = await TermCommandExamples.Autumn(school);
    }

    public ValueTask DisposeAsync()
    {
        office.Dispose();
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task A_closure_says_what_it_does_to_each_section_and_what_it_did_on_every_screen()
    {
        using var lead = await school.As(DemoPeople.Lead);
        await using var watching = await Watcher.Connect(school, DemoPeople.Lead);
        await watching.Connection.InvokeAsync<string>(nameof(LiveHub.WatchEdition), school.WeatherWatch);
        // One of the days has a class that 9 Alder cancelled already: that change sleeps.
        var alder = school.Ids["section:9 Alder"];
        var cancelled = await lead.Post(
            $"/api/editions/{school.WeatherWatch}/change-classes",
            new
            {
                section = alder,
                change = new { cancel = new { date = "2026-11-09" } },
                putBack = (int?)null,
                version = 0,
            },
            Guid.NewGuid()
        );
        cancelled.Status.ShouldBe(HttpStatusCode.OK, cancelled.Text);
        await watching.Next();
        var before = await Sections();
        var done = await Post("mark-days", Marks(Closure("2026-11-09", "2026-11-13", "Storm repairs")));
        var sentence = done.Json["reach"]!["sentence"]!.GetValue<string>();
        sentence.ShouldContain(" move in 4 sections, for ");
        sentence.ShouldContain("9 Alder meets 41 times instead of 43");
        sentence.ShouldContain("Evening watch meets 14 times instead of 15");
        sentence.ShouldContain("9 Dogwood does not fit, by ");
        sentence.ShouldContain("1 changed class of 9 Alder sleeps.");
        // Every row of the reach is what the course's own screen then says.
        (await watching.Next()).Scope.ShouldBe($"edition:{school.WeatherWatch}");
        var dates = (await lead.Get($"/api/editions/{school.WeatherWatch}/dates")).Text;
        foreach (
            var row in done.Json["reach"]!["rows"]!
                .AsArray()
                .Where(row => row!["field"]!.GetValue<string>() == "due" && row["after"] is not null)
        )
            dates.ShouldContain(row!["after"]!.GetValue<string>());
        (await Sections()).ShouldNotBe(before);
        (await lead.Get($"/api/editions/{school.WeatherWatch}/ribbon")).Text.ShouldContain("Storm repairs");
        await Post("undo", new { batch = done.Json["batch"]!.GetValue<long>() });
        (await Sections()).ShouldBe(before);
        await lead.Post(
            $"/api/editions/{school.WeatherWatch}/undo",
            new { batch = cancelled.Json["batch"]!.GetValue<long>() },
            Guid.NewGuid()
        );
    }

    [Fact]
    public async Task A_term_saved_with_what_was_read_changes_nothing_and_only_what_differs_is_named()
    {
        var read = await Calendar();
        JsonObject AsRead() =>
            new()
            {
                ["first"] = read["first"]!.DeepClone(),
                ["last"] = read["last"]!.DeepClone(),
                ["weekdays"] = read["weekdays"]!.DeepClone(),
                ["rotation"] = read["rotation"]!.DeepClone(),
                ["periods"] = read["periods"]!.DeepClone(),
                ["offDays"] = read["offDays"]!.DeepClone(),
                ["version"] = read["ownVersion"]!.DeepClone(),
            };
        var saved = await Post("set-term", AsRead());
        (saved.Json["words"]!.GetValue<string>(), saved.Json["applied"]!.GetValue<bool>()).ShouldBe(("left the term as it is", false));
        var otherwise = AsRead();
        otherwise["offDays"] = read["offDays"]!.GetValue<string>() == "back" ? "on" : "back";
        (await office.Post($"{Route("set-term")}?preview=true", otherwise)).Json["words"]!
            .GetValue<string>()
            .ShouldBe("changed the rule for due dates on days without classes of Autumn term 2026");
    }

    [Fact]
    public async Task A_closure_that_one_section_feels_counts_the_students_of_that_section_only()
    {
        // On Tuesdays 9 Birch meets and nobody else.
        var sentence = (
            await office.Post($"{Route("mark-days")}?preview=true", Marks(Closure("2026-10-20", "2026-10-20", "Polling day")))
        ).Json["reach"]!["sentence"]!.GetValue<string>();
        sentence.ShouldMatch("move in 1 section, for 23 students\\. 9 Birch meets [0-9]+ times instead of [0-9]+\\.");
    }

    [Fact]
    public async Task What_sections_hang_on_is_not_taken_away_and_the_field_says_what_to_do()
    {
        var calendar = await Calendar();
        async Task<string> Refused(string field, JsonNode? value)
        {
            var body = System.Text.Json.JsonSerializer.SerializeToNode(await TermCommandExamples.All["set-term"](school))!.AsObject();
            body[field] = value;
            var before = await school.RowCounts();
            var reply = await office.Post(Route("set-term"), body, Guid.NewGuid());
            reply.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, reply.Text);
            (await school.RowCounts()).ShouldBe(before);
            return $"{reply.Json["field"]}: {reply.Json["title"]}";
        }
        var fewer = new JsonArray([.. calendar["periods"]!.AsArray().Take(5).Select(period => period!.DeepClone())]);
        var late = calendar["marks"]!.AsArray().First(mark => mark!["kind"]!.GetValue<string>() == "special")!;
        var gone = await Post(
            "mark-days",
            Marks(
                new
                {
                    id = (long)late["id"]!,
                    version = (long)late["version"]!,
                    gone = true,
                    kind = "special",
                    first = "",
                    last = "",
                    name = "",
                    runs = (string?)null,
                    periods = (object?)null,
                }
            )
        );
        (await Refused("periods", fewer)).ShouldBe(
            "periods: 9 Dogwood meets in P6, which would no longer be a period. Change its timetable first."
        );
        (await Refused("rotation", new JsonObject { ["kind"] = "weekly" })).ShouldContain(
            "rotation: 9 Birch meets on Friday of week A, which would no longer be a day of the rotation."
        );
        (await Refused("last", "2026-08-30")).ShouldStartWith("last: ");
        (await Refused("last", "2028-08-30")).ShouldBe("last: A term is at most 400 days long. Choose an earlier last day.");
        (await Refused("weekdays", new JsonArray())).ShouldStartWith("weekdays: ");
        (await Refused("weekdays", new JsonArray("holiday"))).ShouldStartWith("weekdays[0]: ");
        await Post("undo", new { batch = gone.Json["batch"]!.GetValue<long>() });
        async Task<string?> NotMarked(object mark) =>
            (await office.Post(Route("mark-days"), Marks(mark), Guid.NewGuid())).Json["field"]?.GetValue<string>();
        (await NotMarked(Closure("2026-10-30", "2026-10-26", "Backwards"))).ShouldBe("marks[0].last");
        (await NotMarked(Closure("2027-10-26", "2027-10-30", "Outside"))).ShouldBe("marks[0].first");
        (await NotMarked(Closure("soon", "2026-10-30", "No date"))).ShouldBe("marks[0].first");
        (await NotMarked(Closure("2026-11-09", "2026-11-09", " "))).ShouldBe("marks[0].name");
        (await NotMarked(Mark("extra", "2026-11-14", "Twice"))).ShouldBe("marks[0].first");
        (await NotMarked(Mark("special", "2026-11-16", "As a day there is not", "C-mon"))).ShouldBe("marks[0].runs");
        var twice = new { marks = new[] { Mark("extra", "2026-11-21", "Once"), Mark("extra", "2026-11-21", "And again") } };
        (await office.Post(Route("mark-days"), twice, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_mark_changed_by_two_is_told_to_the_second_and_what_is_over_or_foreign_stays()
    {
        var mark = (await Calendar())["marks"]!.AsArray().First(one => one!["name"]!.GetValue<string>() == "Staff day")!;
        object Renamed(string name) =>
            new
            {
                id = (long)mark["id"]!,
                version = (long)mark["version"]!,
                gone = false,
                kind = "closure",
                first = "2026-09-18",
                last = "2026-09-18",
                name,
                runs = (string?)null,
                periods = (object?)null,
            };
        var first = await Post("mark-days", Marks(Renamed("Staff and governors")));
        var second = await office.Post(Route("mark-days"), Marks(Renamed("Staff outing")), Guid.NewGuid());
        second.Status.ShouldBe(HttpStatusCode.Conflict);
        (second.Json["conflict"]!["theirs"]!.GetValue<string>(), second.Json["conflict"]!["by"]!.GetValue<string>()).ShouldBe(
            ("Staff and governors", DemoPeople.Office)
        );
        await Post("undo", new { batch = first.Json["batch"]!.GetValue<long>() });
        var spring = await TermCommandExamples.Term(school, "Spring term 2027");
        (await office.Post($"/api/terms/{spring}/mark-days", Marks(Renamed("Of another term")), Guid.NewGuid())).Json["field"]!
            .GetValue<string>()
            .ShouldBe("marks[0].id");
        var over = await TermCommandExamples.Term(school, "Autumn term 2025");
        (
            await office.Post($"/api/terms/{over}/mark-days", Marks(Closure("2025-11-10", "2025-11-10", "Too late")), Guid.NewGuid())
        ).Code.ShouldBe("at-rest");
        (await office.Get($"/api/terms/{over}/calendar")).Json["canChange"]!.GetValue<bool>().ShouldBeFalse();
        (await office.Get($"/api/terms/999999/calendar")).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Closures_of_a_calendar_file_are_seen_before_any_is_marked()
    {
        const string file = """
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//Made up//EN
            BEGIN:VEVENT
            UID:1
            DTSTART;VALUE=DATE:20261026
            DTEND;VALUE=DATE:20261031
            SUMMARY:Mid-term break
            END:VEVENT
            BEGIN:VEVENT
            UID:2
            DTSTART;VALUE=DATE:20240902
            RRULE:FREQ=MONTHLY;BYDAY=1MO
            EXDATE;VALUE=DATE:20261102
            SUMMARY:Training
            END:VEVENT
            BEGIN:VEVENT
            UID:3
            DTSTART:20261120T080000Z
            DTEND:20261120T100000Z
            SUMMARY:Assembly
            END:VEVENT
            BEGIN:VEVENT
            UID:4
            DTSTART;VALUE=DATE:20261121
            SUMMARY:Harbour fair
            END:VEVENT
            BEGIN:VEVENT
            UID:5
            DTSTART;VALUE=DATE:20261123
            RRULE:FREQ=SECONDLY
            SUMMARY:Never ending
            END:VEVENT
            BEGIN:VEVENT
            UID:6
            STATUS:CANCELLED
            DTSTART;VALUE=DATE:20261124
            SUMMARY:Called off
            END:VEVENT
            BEGIN:VEVENT
            UID:7
            DTSTART;VALUE=DATE:20261201
            RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30
            SUMMARY:No such day
            END:VEVENT
            END:VCALENDAR
            """;
        var rows = await school.RowCounts();
        var found = (await office.Post($"/api/terms/{term}/closures-of-file", new { text = file })).Json;
        (await school.RowCounts()).ShouldBe(rows);
        found["closures"]!
            .AsArray()
            .Select(one => $"{one!["words"]} {one["name"]}{((bool)one["standing"]! ? ", standing" : "")}, {one["classDays"]}")
            .ShouldBe(
                [
                    "Mon 7 Sep Training, 1",
                    "Mon 5 Oct Training, 1",
                    "Mon 26 – Fri 30 Oct Mid-term break, standing, 0",
                    "Sat 21 Nov Harbour fair, 0",
                    "Mon 7 Dec Training, 1",
                ],
                $"{found}"
            );
        found["leftOut"]!
            .AsArray()
            .Select(left => left!.GetValue<string>()[..8])
            .ShouldBe(["Assembly", "Never en", .. found["leftOut"]!.AsArray().Count == 3 ? new[] { "No such " } : []]);
        // What is broken is told by its line, and what repeats without end is not followed.
        foreach (
            var (line, wrong) in new[]
            {
                ("DTSTART;VALUE=DATE:20261026", "DTSTART;VALUE=DATE:20261399"),
                ("DTSTART;VALUE=DATE:20261026", "DTSTART;VALUE=DATE:08991026"),
                ("DTEND;VALUE=DATE:20261031", "DTEND:soon"),
                ("DTEND;VALUE=DATE:20261031", "DURATION:long"),
                ("RRULE:FREQ=SECONDLY", "RRULE:FREQ=DAILY\nRRULE:FREQ=SECONDLY"),
            }
        )
        {
            var told = await office.Post(
                $"/api/terms/{term}/closures-of-file",
                new { text = file.Replace(line, wrong, StringComparison.Ordinal) }
            );
            told.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, wrong);
            told.Json["title"]!.GetValue<string>().ShouldMatch(@"^Line \d+ of the file \(");
        }
        var endless = string.Concat(
            Enumerable
                .Range(0, 400)
                .Select(n => $"BEGIN:VEVENT\nUID:e{n}\nDTSTART;VALUE=DATE:19000101\nRRULE:FREQ=DAILY\nSUMMARY:Every day\nEND:VEVENT\n")
        );
        (
            await office.Post($"/api/terms/{term}/closures-of-file", new { text = $"BEGIN:VCALENDAR\n{endless}END:VCALENDAR" })
        ).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        foreach (var broken in new[] { "", "not a calendar", "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:x", new string('x', 1_000_001) })
            (await office.Post($"/api/terms/{term}/closures-of-file", new { text = broken }))
                .Json["field"]
                ?.GetValue<string>()
                .ShouldBe("text");
    }

    private async Task<Reply> Post(string command, object body)
    {
        var reply = await office.Post(Route(command), body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply;
    }

    private Task<JsonNode> Calendar() => TermCommandExamples.Calendar(school);

    private async Task<string> Sections() => (await Calendar())["sections"]!.ToJsonString();

    private string Route(string command) => $"/api/terms/{term}/{command}";
}
