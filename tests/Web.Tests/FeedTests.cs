using System.Diagnostics;
using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Calendars to subscribe to, read back by two readers that nobody here wrote.</summary>
public sealed class FeedTests : LeadOfASchool
{
    [Fact]
    public async Task Two_readers_find_every_class_with_its_lesson_and_every_date_at_its_moment()
    {
        var feed = await Feed(Lead, "section-calendar", "9 Alder");
        var events = Read(feed);
        var pace = (await Lead.Get(Route("pace"))).Json["sections"]![0]!["classes"]!.AsArray();
        var classes = events.Where(one => one["end"] is not null && one["status"]!.GetValue<string>() == "CONFIRMED").ToList();
        classes.Count.ShouldBe(pace.Count);
        var unpublished = (await Lead.Get(Route("pace"))).Json["lessons"]!
            .AsArray()
            .Where(lesson => lesson!["unitNumber"]!.GetValue<int>() == 6)
            .Select(lesson => lesson!["title"]!.GetValue<string>())
            .ToList();
        foreach (var (one, told) in pace.Zip(classes.OrderBy(one => one["start"]!.GetValue<string>(), StringComparer.Ordinal)))
        {
            var lesson = one!["lesson"]!.GetValue<string>();
            told["summary"]!.GetValue<string>().ShouldBe(lesson.Length == 0 || unpublished.Contains(lesson) ? "Weather Watch" : lesson);
            told["zone"]!.GetValue<string>().ShouldBe("Europe/Dublin");
        }
        // Before the clocks go back P1 is at 07:40 UTC, after it at 08:40.
        classes
            .Where(one => one["uid"]!.GetValue<string>().Contains("-mon-P1@", StringComparison.Ordinal))
            .Select(one => one["start"]!.GetValue<string>())
            .ShouldContain("2026-10-19T07:40:00Z");
        classes.Select(one => one["start"]!.GetValue<string>()).ShouldContain("2026-11-02T08:40:00Z");
        events.ShouldContain(one =>
            one["summary"]!.GetValue<string>() == "3.12 Reading an ascent opens"
            && one["start"]!.GetValue<string>() == "2026-10-12T08:30:00Z"
        );
        // What a closure takes stays there too, cancelled.
        events.Single(one => one["uid"]!.GetValue<string>() == $"{School.Ids["section:9 Alder"]}-20260918-fri-P2@polycline")["status"]!
            .GetValue<string>()
            .ShouldBe("CANCELLED");
    }

    [Fact]
    public async Task What_is_moved_or_cancelled_keeps_its_name_and_the_count_never_falls()
    {
        var address = await Link(Lead, "section-calendar", "9 Alder");
        var before = Read((await Lead.Get(address)).Text);
        var alder = School.Ids["section:9 Alder"];
        await Lead.Post(
            Route("change-classes"),
            new
            {
                section = alder,
                change = new
                {
                    move = new
                    {
                        date = "2026-10-12",
                        to = new
                        {
                            date = "2026-10-13",
                            start = "09:30",
                            end = "10:20",
                        },
                    },
                },
                putBack = (int?)null,
                version = 0,
            },
            Guid.NewGuid()
        );
        var cancelled = await Lead.Post(
            Route("change-classes"),
            new
            {
                section = alder,
                change = new { cancel = new { date = "2026-10-14" } },
                putBack = (int?)null,
                version = 0,
            },
            Guid.NewGuid()
        );
        var after = Read((await Lead.Get(address)).Text);
        var moved = after.Single(one => one["uid"]!.GetValue<string>() == $"{alder}-20261012-mon-P1@polycline");
        (moved["start"]!.GetValue<string>(), moved["status"]!.GetValue<string>()).ShouldBe(("2026-10-13T08:30:00Z", "CONFIRMED"));
        var gone = after.Single(one => one["uid"]!.GetValue<string>() == $"{alder}-20261014-wed-P3@polycline");
        (gone["start"]!.GetValue<string>(), gone["status"]!.GetValue<string>()).ShouldBe(("2026-10-14T09:40:00Z", "CANCELLED"));
        after.Select(one => one["uid"]!.GetValue<string>()).Order().ShouldBe(before.Select(one => one["uid"]!.GetValue<string>()).Order());
        await Lead.Post(Route("undo"), new { batch = cancelled.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
        var counts = new[] { before, after, Read((await Lead.Get(address)).Text) }
            .Select(events => events.Select(one => one["sequence"]!.GetValue<int>()).Distinct().ShouldHaveSingleItem())
            .ToList();
        counts.ShouldBe(counts.Order());
        counts.Distinct().Count().ShouldBe(3);
    }

    [Fact]
    public async Task What_students_may_not_see_leaves_no_trace_and_the_team_has_it_all()
    {
        using var student = await School.As(DemoPeople.HeldUp);
        var (own, section, team) = (
            await Feed(student, "student-calendar", null),
            await Feed(Lead, "section-calendar", "9 Birch"),
            await Feed(Lead, "teacher-calendar", null)
        );
        // Kept back in 9 Birch; unpublished everywhere.
        foreach (var hidden in new[] { "Which storey?", "Write a warning", "What makes a storm" })
        {
            own.ShouldNotContain(hidden);
            section.ShouldNotContain(hidden);
        }
        Read(team).ShouldContain(one => one["summary"]!.GetValue<string>().StartsWith("9 Alder: 6.", StringComparison.Ordinal));
        Read(own).ShouldNotContain(one => one["summary"]!.GetValue<string>().StartsWith("9 ", StringComparison.Ordinal));
        Read(team).Select(one => one["uid"]!.GetValue<string>().Split('-')[0]).Distinct().Count().ShouldBe(5);
        // A lesson of a unit that is unseen before it opens is named once it has begun.
        await School.Sql(connection =>
            connection.ExecuteAsync(
                "UPDATE unit SET before = 'unseen', version = version + 1 WHERE edition = @WeatherWatch "
                    + "AND title = 'Fronts'; UPDATE edition SET version = version + 1 WHERE id = @WeatherWatch",
                School
            )
        );
        (await Feed(Lead, "section-calendar", "9 Birch")).ShouldNotContain("The warm front");
    }

    [Fact]
    public async Task A_link_is_renewed_and_withdrawn_at_once_and_is_ones_own_alone()
    {
        using var nobody = await School.As(null);
        using var student = await School.As(DemoPeople.OnTrack);
        var first = await Link(Lead, "teacher-calendar", null);
        (await nobody.Get(first)).Status.ShouldBe(HttpStatusCode.OK);
        var second = await Link(Lead, "teacher-calendar", null);
        (await nobody.Get(first)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await nobody.Get(second)).Status.ShouldBe(HttpStatusCode.OK);
        (await Lead.Get("/api/calendar-links")).Json.AsArray().Count(choice => choice!["madeAt"] is not null).ShouldBe(1);
        (
            await Lead.Post("/api/me/withdraw-calendar-link", new { kind = "teacher-calendar", section = (long?)null }, Guid.NewGuid())
        ).Status.ShouldBe(HttpStatusCode.OK);
        (await nobody.Get(second)).Status.ShouldBe(HttpStatusCode.NotFound);
        foreach (var (kind, section) in new[] { ("teacher-calendar", (long?)null), ("section-calendar", School.Ids["section:9 Alder"]) })
            (await student.Post("/api/me/make-calendar-link", new { kind, section }, Guid.NewGuid())).Status.ShouldBe(
                HttpStatusCode.NotFound
            );
        // Whoever does not teach the section any more has lost its link with it.
        var alder = await Link(Lead, "section-calendar", "9 Alder");
        await School.Sql(connection =>
            connection.ExecuteAsync("DELETE FROM section_teacher WHERE section = @section", new { section = School.Ids["section:9 Alder"] })
        );
        (await nobody.Get(alder)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await nobody.Get("/calendars/AAAAAAAAAAAAAAAAAAAAAA.ics")).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    private async Task<string> Link(Caller caller, string kind, string? section)
    {
        var reply = await caller.Post(
            "/api/me/make-calendar-link",
            new { kind, section = section is null ? (long?)null : School.Ids["section:" + section] },
            Guid.NewGuid()
        );
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return new Uri(reply.Json["address"]!.GetValue<string>()).AbsolutePath;
    }

    private async Task<string> Feed(Caller caller, string kind, string? section) =>
        (await caller.Get(await Link(caller, kind, section))).Text;

    // Both readers find the same.
    private static List<JsonNode> Read(string feed)
    {
        var readers = new[]
        {
            ("/usr/bin/python3", new[] { "tests/readers/read_calendar.py" }),
            ("node", new[] { "tests/readers/read_calendar.mjs", Path.Combine(TestServer.Root, "web") }),
        };
        var found = readers.Select(reader => Run(reader.Item1, reader.Item2, feed)).ToList();
        found[0].Except(found[1]).Take(3).ShouldBeEmpty();
        found[0].Count.ShouldBe(found[1].Count);
        return [.. found[0].Select(line => JsonNode.Parse(line)!)];
    }

    private static List<string> Run(string program, string[] arguments, string input)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments)
            {
                WorkingDirectory = TestServer.Root,
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
            }
        )!;
        process.StandardInput.Write(input);
        process.StandardInput.Close();
        var lines = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        process.ExitCode.ShouldBe(0);
        return
        [
            .. lines
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(line => JsonNode.Parse(line)!.ToJsonString())
                .Order(StringComparer.Ordinal),
        ];
    }
}
