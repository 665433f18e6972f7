using System.Net;
using System.Text.Json.Nodes;
using Polycline.Data.Verify;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What was taught, and the classes there are: the forecast follows, and is put back with one undo.</summary>
public sealed class PaceTests : LeadOfASchool
{
    [Fact]
    public async Task Every_section_has_its_line_and_says_where_it_stands()
    {
        var pace = (await Lead.Get(Route("pace"))).Json;
        pace["lessons"]!.AsArray().Count.ShouldBe(38);
        pace["last"]!.GetValue<string>().ShouldBe("edition 2025");
        var sections = pace["sections"]!.AsArray();
        sections
            .Select(section => (section!["letter"]!.GetValue<string>(), section["behindBy"]!.GetValue<int>()))
            .ShouldBe([("A", 0), ("B", 2), ("C", 0), ("D", 0)]);
        // Against last year: what was optional was left out then, and has no place to be held against.
        sections.Select(section => section!["behindLast"]?.GetValue<int>()).ShouldBe([-2, 0, -1, -1]);
        sections[0]!["lessons"]!.AsArray()[^1]!["last"].ShouldBeNull();
        sections[0]!["lessons"]![0]!["last"]!.GetValue<string>().ShouldBe("class 1");
        foreach (var section in sections)
        {
            var placed = section!["lessons"]!.AsArray().Where(run => run!["from"] is not null).ToList();
            placed.ShouldEachBe(run => run!["from"]!.GetValue<double>() <= run["to"]!.GetValue<double>());
            // Whatever is taught comes before what is to come.
            placed
                .SkipWhile(run => run!["state"]!.GetValue<string>() == "taught")
                .ShouldEachBe(run => run!["state"]!.GetValue<string>() == "ahead");
            section["classes"]!
                .AsArray()
                .Select(one => one!["ordinal"]!.GetValue<int>())
                .ShouldBe(Enumerable.Range(1, section["classes"]!.AsArray().Count));
        }
        // Only what does not fit is named, and only where something does not.
        sections.ShouldEachBe(section => (section!["lacking"]!.GetValue<int>() > 0) == (section["unplaced"]!.AsArray().Count > 0));
        // A week on, what is confirmed is the same, and another lesson is at hand.
        var later = (await Lead.Get(Route("pace?at=2026-10-15T10:15"))).Json;
        later["canChange"]!.GetValue<bool>().ShouldBeFalse();
        later["sections"]![0]!["atLesson"]!.GetValue<string>().ShouldNotBe(sections[0]!["atLesson"]!.GetValue<string>());
    }

    [Fact]
    public async Task What_a_lesson_took_is_noted_again_forgotten_and_brought_back_and_the_log_has_every_step()
    {
        var lesson = (await Lead.Get(Route("pace"))).Json["sections"]![0]!["lessons"]!
            .AsArray()
            .First(run => run!["state"]!.GetValue<string>() == "ahead")!["lesson"]!.GetValue<long>();
        object Note(int? took, long version) =>
            new
            {
                section = School.Ids["section:9 Alder"],
                lessons = new[]
                {
                    new
                    {
                        lesson,
                        took,
                        done = true,
                        left = (int?)null,
                        version,
                    },
                },
            };
        await Post("confirm-taught", Note(2, 0));
        await Post("confirm-taught", Note(3, 1));
        var forgot = await Post("confirm-taught", Note(null, 2));
        await Post("undo", new { batch = forgot.Json["batch"]!.GetValue<long>() });
        (await Lead.Get(Route("pace"))).Json["sections"]![0]!["lessons"]!
            .AsArray()
            .Single(run => run!["lesson"]!.GetValue<long>() == lesson)!["took"]!
            .GetValue<int>()
            .ShouldBe(3);
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_lesson_that_took_longer_moves_what_follows_in_its_section_only_and_undo_puts_it_back()
    {
        var before = (await Lead.Get(Route("pace"))).Json;
        var lesson = before["sections"]![0]!["lessons"]!.AsArray().First(run => run!["state"]!.GetValue<string>() == "ahead")!;
        object Request(int? took, long version) =>
            new
            {
                section = School.Ids["section:9 Alder"],
                lessons = new[]
                {
                    new
                    {
                        lesson = lesson["lesson"]!.GetValue<long>(),
                        took,
                        done = true,
                        left = (int?)null,
                        version,
                    },
                },
            };
        var shown = await Lead.Post(Route("confirm-taught?preview=true"), Request(3, 0));
        shown.Json["reach"]!["sentence"]!.GetValue<string>().ShouldContain("in 9 Alder");
        var done = await Lead.Post(Route("confirm-taught"), Request(3, 0), Guid.NewGuid());
        done.Json["reach"]!.ToJsonString().ShouldBe(shown.Json["reach"]!.ToJsonString());
        var after = (await Lead.Get(Route("pace"))).Json;
        after["sections"]![0]!["behindBy"]!.GetValue<int>().ShouldBe(2);
        after["sections"]![1]!.ToJsonString().ShouldBe(before["sections"]![1]!.ToJsonString());
        // Who read it before is told what stands there now.
        var late = await Lead.Post(Route("confirm-taught"), Request(1, 0), Guid.NewGuid());
        (late.Status, late.Code).ShouldBe((HttpStatusCode.Conflict, "changed-meanwhile"));
        (await Lead.Post(Route("undo"), new { batch = done.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.OK
        );
        Same((await Lead.Get(Route("pace"))).Json["sections"]![0]!, before["sections"]![0]!);
        // Forgetting what is noted is the same as never having noted it.
        await Lead.Post(Route("confirm-taught"), Request(3, 0), Guid.NewGuid());
        (await Lead.Post(Route("confirm-taught"), Request(null, 1), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        Same((await Lead.Get(Route("pace"))).Json["sections"]![0]!, before["sections"]![0]!);
    }

    [Fact]
    public async Task A_class_is_cancelled_moved_or_added_and_put_back_with_what_it_does_shown_before()
    {
        var alder = School.Ids["section:9 Alder"];
        var before = (await Section(0)).ToJsonString();
        var cancel = new
        {
            section = alder,
            change = (object)new { cancel = new { date = "2026-10-12" } },
            putBack = (int?)null,
            version = 0,
        };
        var shown = await Lead.Post(Route("change-classes?preview=true"), cancel);
        shown.Json["reach"]!["sentence"]!
            .GetValue<string>()
            .ShouldMatch(
                @"^\d+ dates move in 9 Alder, for 24 students\. 1 due stands on a day without classes: "
                    + @"3\.18 What falls: a check in 9 Alder \(Mon 26 Oct, 18:00\)\. "
                    + @"9 Alder meets 43 times instead of 44\. 1 item falls out of the term in 9 Alder\.$"
            );
        var done = await Lead.Post(Route("change-classes"), cancel, Guid.NewGuid());
        (done.Json["words"]!.GetValue<string>(), done.Json["reach"]!.ToJsonString()).ShouldBe(
            ("cancelled the class of 9 Alder on 12 Oct", shown.Json["reach"]!.ToJsonString())
        );
        var section = await Section(0);
        section["classes"]!.AsArray().ShouldEachBe(one => one!["date"]!.GetValue<string>() != "2026-10-12");
        (await Changes())
            .Select(change => (change!["words"]!.GetValue<string>(), change["sleeps"]!.GetValue<bool>()))
            .ShouldBe([("cancelled on Mon 12 Oct", false)]);
        // Cancelling it again names what is not there: the change sleeps, and says so.
        await Lead.Post(Route("change-classes"), cancel, Guid.NewGuid());
        (await Changes()).Select(change => change!["sleeps"]!.GetValue<bool>()).ShouldBe([true, true]);
        foreach (var seq in new[] { 2, 1 })
            (
                await Lead.Post(
                    Route("change-classes"),
                    new
                    {
                        section = alder,
                        change = (object?)null,
                        putBack = seq,
                        version = 1,
                    },
                    Guid.NewGuid()
                )
            ).Status.ShouldBe(HttpStatusCode.OK);
        (await Section(0)).ToJsonString().ShouldBe(before);
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
        await Lead.Post(
            Route("change-classes"),
            new
            {
                section = alder,
                change = new
                {
                    add = new
                    {
                        date = "2026-10-17",
                        start = "10:00",
                        end = "11:00",
                    },
                },
                putBack = (int?)null,
                version = 0,
            },
            Guid.NewGuid()
        );
        (await Section(0))["classes"]!
            .AsArray()
            .Where(one => one!["own"]!.GetValue<bool>())
            .Select(one => one!["words"]!.GetValue<string>())
            .ShouldBe(["Tue 13 Oct, 09:30", "Sat 17 Oct, 10:00"]);
    }

    private async Task<JsonNode> Section(int place) => (await Lead.Get(Route("pace"))).Json["sections"]![place]!;

    private async Task<JsonArray> Changes() => (await Lead.Get(Route("sections"))).Json["sections"]![0]!["differences"]!.AsArray();

    private static void Same(JsonNode one, JsonNode other) => one.ToJsonString().ShouldBe(other.ToJsonString());
}
