using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A section that ends before its term.</summary>
public sealed class EndingTests(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    private School school = null!;
    private Caller office = null!;
    private Caller lead = null!;
    private long term;

    public async ValueTask InitializeAsync()
    {
        school = await shared.Open();
        office = await school.As(DemoPeople.Office);
        lead = await school.As(DemoPeople.Lead);
        term = await TermCommandExamples.Autumn(school);
    }

    public ValueTask DisposeAsync()
    {
        office.Dispose();
        lead.Dispose();
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task A_section_that_ended_is_planned_for_no_more_and_its_work_is_kept_until_it_goes_on()
    {
        var birch = await Card("9 Birch");
        // Its last day was the Friday before, so that it has ended by now.
        var shown = await End(birch, "2026-10-02", preview: true);
        var sentence = shown.Json["reach"]!["sentence"]!.GetValue<string>();
        sentence.ShouldMatch(
            "The last day of 9 Birch is Fri 2 Oct: [0-9]+ classes after it are not held, and 23 students leave with it\\."
        );
        sentence.ShouldMatch("^[0-9]+ items? disappears? in 9 Birch, for 23 students\\.");
        shown.Json["reach"]!["effect"]!.GetValue<string>().ShouldBe("takes");

        var (work, dates, pace) = (await Read("work"), await Read("dates"), await Read("pace"));
        using var davit = await school.As(DemoPeople.HeldUp);
        var mine = (await davit.Get("/api/places")).Text;
        var done = await End(birch, "2026-10-02");
        done.Json["applied"]!.GetValue<bool>().ShouldBeTrue();

        // Dates, today and the ribbon know it no more, nor does any count.
        foreach (var screen in new[] { "dates", "outline", "today", "ribbon" })
            (await lead.Get($"/api/editions/{school.WeatherWatch}/{screen}")).Text.ShouldNotContain("9 Birch", customMessage: screen);
        (await Read("pace"))["sections"]!.AsArray().Single(one => one!["ended"] is not null)!["ended"]!
            .GetValue<string>()
            .ShouldBe("Fri 2 Oct");
        // What its students handed in is read as before.
        (await Read("work"))["sections"]!.AsArray().Count.ShouldBe(work["sections"]!.AsArray().Count);
        var card = await Card("9 Birch");
        (card["students"]!.GetValue<int>(), card["standing"]!.GetValue<string>()).ShouldBe((23, "last day Fri 2 Oct"));
        // Nobody joins it now, and a class that a closure takes from it moves nothing.
        var joined = await lead.Post(
            $"/api/editions/{school.WeatherWatch}/join-students",
            new
            {
                section = birch["id"],
                addresses = new[] { DemoPeople.Email(DemoPeople.HeldUp) },
                from = "2026-10-08",
            },
            Guid.NewGuid()
        );
        joined.Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        joined.Text.ShouldContain("9 Birch ended on Fri 2 Oct.");
        var imported = await office.Post(
            "/api/school/import-roster?preview=true",
            new
            {
                term,
                fileName = "late.csv",
                file = Convert.ToBase64String("Student,Mail,Section\nLate Comer,late@fenwater.example,9 Birch"u8),
                columns = (object?)null,
                from = "2026-10-08",
                endMissing = false,
            }
        );
        imported.Text.ShouldContain("9 Birch ended on 2 Oct, so nobody is added to it.");
        var closed = await office.Post(
            $"/api/terms/{term}/mark-days?preview=true",
            new { marks = new[] { TermCommandExamples.Closure("2026-10-20", "2026-10-20", "Polling day") } }
        );
        closed.Json["reach"]!["sentence"]!.GetValue<string>().ShouldNotContain("9 Birch");

        // It goes on after all, with everybody in it, as before.
        (await End(await Card("9 Birch"), null)).Json["words"]!.GetValue<string>().ShouldBe("let 9 Birch go on to the end of the term");
        Same(await Read("dates"), dates);
        Same(await Read("pace"), pace);
        (await davit.Get("/api/places")).Text.ShouldBe(mine);
    }

    [Fact]
    public async Task A_section_that_is_still_to_end_is_planned_for_until_then_and_nobody_loses_anything_yet()
    {
        var alder = await Card("9 Alder");
        var sentence = (await End(alder, "2026-11-20", preview: true)).Json["reach"]!["sentence"]!.GetValue<string>();
        sentence.ShouldStartWith("The last day of 9 Alder is Fri 20 Nov: ");
        await End(alder, "2026-11-20");
        (await lead.Get($"/api/editions/{school.WeatherWatch}/dates")).Text.ShouldContain("9 Alder");
        var ended = await Card("9 Alder");
        ended["students"]!.GetValue<int>().ShouldBe(alder["students"]!.GetValue<int>());
        ended["classes"]!.GetValue<int>().ShouldBeLessThan(alder["classes"]!.GetValue<int>());
        await End(ended, null);
    }

    [Theory]
    [InlineData("soon", "That is not a date.")]
    [InlineData("2026-08-01", "Choose a day in the term, before its last")]
    [InlineData("2026-12-18", "Choose a day in the term, before its last")]
    public async Task A_last_day_is_a_day_of_the_term(string last, string said)
    {
        var refused = await End(await Card("9 Birch"), last, preview: true);
        refused.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, refused.Text);
        $"{refused.Json["field"]}: {refused.Json["title"]}".ShouldStartWith($"last: {said}");
    }

    private Task<Reply> End(JsonNode section, string? last, bool preview = false) =>
        office.Post(
            $"/api/terms/{term}/end-section{(preview ? "?preview=true" : "")}",
            new
            {
                section = section["id"],
                last,
                version = section["version"],
            },
            Guid.NewGuid()
        );

    private async Task<JsonNode> Card(string name) =>
        (await TermCommandExamples.Calendar(school))["sections"]!.AsArray().First(one => one!["name"]!.GetValue<string>() == name)!;

    private async Task<JsonNode> Read(string screen) => (await lead.Get($"/api/editions/{school.WeatherWatch}/{screen}")).Json;

    // Counters apart.
    private static void Same(JsonNode now, JsonNode before)
    {
        (now["version"], before["version"]) = (null, null);
        System
            .Text.RegularExpressions.Regex.Replace(now.ToJsonString(), "\"version\":[0-9]+", "")
            .ShouldBe(System.Text.RegularExpressions.Regex.Replace(before.ToJsonString(), "\"version\":[0-9]+", ""));
    }
}
