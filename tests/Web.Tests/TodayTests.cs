using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What needs a team member on the day, and the clicks that answer it.</summary>
public sealed class TodayTests : IAsyncLifetime
{
    private School school = null!;

    public async ValueTask InitializeAsync() => school = await School.Open();

    public ValueTask DisposeAsync() => school.DisposeAsync();

    [Fact]
    public async Task The_day_says_what_meets_what_comes_what_waits_and_what_is_to_be_confirmed()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var alder = await Section(lead, 0);
        alder["comes"]!
            .AsArray()
            .Select(date => date!["at"]!["instant"]!.GetValue<string>())
            .ShouldEachBe(at =>
                string.CompareOrdinal(at, "2026-10-08T09:15:00Z") > 0 && string.CompareOrdinal(at, "2026-10-15T09:30:00Z") < 0
            );
        alder["waiting"]!.GetValue<int>().ShouldBe((await lead.Get(Route("work"))).Json["sections"]![0]!["waiting"]!.GetValue<int>());
        alder["freeing"]![0]!["words"]!.GetValue<string>().ShouldStartWith("giving back ");
        // Thursday: 9 Birch and 9 Dogwood meet, 9 Alder does not.
        alder["classes"]!.AsArray().ShouldBeEmpty();
        (await Section(lead, 1))["classes"]![0]!["start"]!.GetValue<string>().ShouldBe("08:40");
        (await Section(lead, 3))["classes"]![0]!["isOver"]!.GetValue<bool>().ShouldBeFalse();
        // The co-teacher reads the work of 9 Dogwood only.
        using var co = await school.As(DemoPeople.CoTeacher);
        (await co.Get(Route("today"))).Json["sections"]!
            .AsArray()
            .Select(section => section!["waiting"] is null)
            .ShouldBe([true, true, true, false]);
        (await lead.Get(Route($"today?as=student:{school.Ids["person:" + DemoPeople.OnTrack]}"))).Status.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_class_that_took_place_is_confirmed_with_one_click_and_where_one_went_further_the_next_lesson_is_too()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var lesson = (await Section(lead, 0))["toConfirm"]!.AsArray().ShouldHaveSingleItem()!;
        object Note(JsonNode? of, int took) =>
            new
            {
                lesson = of!.GetValue<long>(),
                took,
                done = true,
                left = (int?)null,
                version = 0,
            };
        var further = await lead.Post(
            Route("confirm-taught"),
            new { section = school.Ids["section:9 Alder"], lessons = new[] { Note(lesson["lesson"], 1), Note(lesson["next"], 0) } },
            Guid.NewGuid()
        );
        further.Status.ShouldBe(HttpStatusCode.OK, further.Text);
        (await Section(lead, 0))["toConfirm"]!.AsArray().ShouldBeEmpty();
        (await lead.Get(Route("pace"))).Json["sections"]![0]!["behindBy"]!.GetValue<int>().ShouldBe(-1);
    }

    [Fact]
    public async Task Whatever_is_to_be_checked_says_where_it_is_mended_and_that_is_there()
    {
        using var lead = await school.As(DemoPeople.Lead);
        // A step dropped in one section: what waits for it there does so no longer, and says so.
        var (step, cedar) = (await school.Item("Cloud diary"), school.Ids["section:9 Cedar"]);
        (
            await lead.Post(
                Route("differ"),
                new
                {
                    changes = new[]
                    {
                        new
                        {
                            section = cedar,
                            of = "item",
                            target = step,
                            field = "skip",
                            putBack = false,
                            value = true,
                            version = 0,
                        },
                    },
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        var today = (await lead.Get(Route("today"))).Json;
        var mends = today["sections"]!
            .AsArray()
            .SelectMany(section => section!["toCheck"]!.AsArray())
            .Concat(today["course"]!.AsArray())
            .Select(check => check!["mend"]!)
            .ToList();
        mends.ShouldEachBe(mend => mend["words"]!.GetValue<string>().Length > 0 && mend["screen"] != null);
        mends
            .Select(mend => mend["screen"]!.GetValue<string>())
            .Distinct()
            .Order()
            .ShouldBe(["dates", "one-student", "outline", "sections"]);
        var dates = (await lead.Get(Route("dates"))).Json;
        var items = dates["units"]!
            .AsArray()
            .SelectMany(unit => unit!["items"]!.AsArray())
            .Select(row => row!["item"]!.GetValue<long>())
            .ToHashSet();
        var sections = dates["sections"]!.AsArray().Select(section => section!["id"]!.GetValue<long>()).ToHashSet();
        foreach (var mend in mends)
        {
            if (mend["screen"]!.GetValue<string>() == "outline")
                mend["row"]!.GetValue<string>().ShouldMatch("^(unit|lesson|item)-[0-9]+$");
            else if (mend["screen"]!.GetValue<string>() == "one-student")
                (await lead.Get(Route($"students/{mend["row"]!.GetValue<string>()["student-".Length..]}"))).Json["needsHome"]!
                    .GetValue<bool>()
                    .ShouldBeTrue();
            else
                sections.ShouldContain(mend["section"]!.GetValue<long>());
            if (mend["screen"]!.GetValue<string>() == "dates")
                (
                    items.Contains(mend["item"]!.GetValue<long>()),
                    mend["field"]!.GetValue<string>() is "opens" or "due" or "closes"
                ).ShouldBe((true, true));
        }
    }

    private string Route(string rest) => $"/api/editions/{school.WeatherWatch}/{rest}";

    private async Task<JsonNode> Section(Caller caller, int place) => (await caller.Get(Route("today"))).Json["sections"]![place]!;
}
