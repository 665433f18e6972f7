using System.Net;
using System.Text.Json.Nodes;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What is refused names the field, says what to do, and changes nothing: so one school is enough for all of it.</summary>
public sealed class RefusalTests(SchoolOfClass shared) : LeadOfASharedSchool(shared)
{
    [Theory]
    [InlineData("", "A title needs at least one letter.")]
    [InlineData("   ", "A title needs at least one letter.")]
    [InlineData("two\nlines", "A title is one line of text.")]
    public async Task A_bad_title_names_the_field_and_says_what_to_do(string title, string words)
    {
        var (item, version) = await CommandExamples.FirstItem(School, School.WeatherWatch);
        var reply = await Lead.Post(
            Route("rename-item"),
            new
            {
                item,
                title,
                version,
            },
            Guid.NewGuid()
        );
        reply.Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (reply.Json["field"]!.GetValue<string>(), reply.Json["title"]!.GetValue<string>()).ShouldBe(("title", words));
    }

    [Theory]
    [InlineData("""{"item":1,"title":"x"}""")]
    [InlineData("""{"item":1,"title":"x","version":"1"}""")]
    [InlineData("""{"item":-1,"title":"x","version":1}""")]
    [InlineData("""{"item":1,"title":null,"version":1}""")]
    [InlineData("""{"item":1,"title":"x","version":1,"more":true}""")]
    [InlineData("""{"item":1,""")]
    public async Task A_request_of_another_form_is_refused_whole(string body)
    {
        var before = await School.RowCounts();
        var reply = await Lead.Post(Route("rename-item"), null, Guid.NewGuid(), request =>
            request.Content = new StringContent(body, System.Text.Encoding.UTF8, "application/json")
        );
        reply.Code.ShouldBe("malformed");
        (await School.RowCounts()).ShouldBe(before);
    }

    [Theory]
    [InlineData("""{"add":{"date":"2027-10-17","start":"10:00","end":"11:00"}}""", "change.add.date")]
    [InlineData("""{"add":{"date":"2026-10-17","start":"10:00"}}""", "change")]
    [InlineData("""{"cancel":{"date":"2026-02-30"}}""", "change")]
    [InlineData("""{"swap":{}}""", "change")]
    [InlineData("null", "change")]
    public async Task A_change_of_classes_that_cannot_be_carried_out_names_the_field(string change, string field)
    {
        var reply = await Lead.Post(
            Route("change-classes"),
            new
            {
                section = School.Ids["section:9 Alder"],
                change = JsonNode.Parse(change),
                putBack = (int?)null,
                version = 0,
            },
            Guid.NewGuid()
        );
        (reply.Status, reply.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, field), reply.Text);
    }

    [Theory]
    [InlineData("{\"at\":\"lesson-end\",\"of\":\"00000000-0000-0000-0000-000000000000\"}", HttpStatusCode.NotFound)]
    [InlineData("{\"at\":\"midnight\"}", HttpStatusCode.UnprocessableEntity)]
    [InlineData("{\"at\":\"fixed\",\"date\":\"2026-02-30\",\"time\":\"10:00\"}", HttpStatusCode.UnprocessableEntity)]
    public async Task A_timing_that_is_none_is_refused_by_name(string anchor, HttpStatusCode status)
    {
        var (item, version) = await CommandExamples.At(School, "item", "A slow ramp");
        var reply = await Lead.Post(
            Route("time-item"),
            new
            {
                item,
                field = "due",
                anchor = JsonNode.Parse(anchor),
                version,
            },
            Guid.NewGuid()
        );
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((status, "anchor"));
    }

    [Theory]
    [InlineData("lesson", "length", "-1", "changes[0].value")]
    [InlineData("lesson", "pin", "\"2026-02-30\"", "changes[0].value")]
    [InlineData("item", "hold", "\"yes\"", "changes[0].value")]
    [InlineData("unit", "length", "2", "changes[0]")]
    public async Task A_difference_that_is_none_names_what_is_wrong(string of, string field, string value, string at)
    {
        var target =
            of == "item"
                ? await School.Item("A slow ramp")
                : (await CommandExamples.At(School, of, of == "unit" ? "Fronts" : "The warm front")).Id;
        var reply = await Lead.Post(
            Route("differ"),
            new
            {
                changes = new[]
                {
                    new
                    {
                        section = School.Ids["section:9 Alder"],
                        of,
                        target,
                        field,
                        putBack = false,
                        value = JsonNode.Parse(value),
                        version = 0,
                    },
                },
            },
            Guid.NewGuid()
        );
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, at), reply.Text);
    }

    [Fact]
    public async Task A_word_that_is_none_of_those_there_are_is_told_which_there_are()
    {
        var change = """{"section":1,"of":"chapter","target":1,"field":"hold","putBack":true,"version":0}""";
        var reply = await Lead.Post(Route("differ"), JsonNode.Parse($$"""{"changes":[{{change}}]}"""), Guid.NewGuid());
        (reply.Json["field"]!.GetValue<string>(), $"{reply.Json["title"]} {reply.Json["detail"]}").ShouldSatisfyAllConditions(
            told => told.Item1.ShouldBe("changes[0].of"),
            told => told.Item2.ShouldContain("unit, lesson, item")
        );
    }

    [Theory]
    [InlineData("""[{"day":"C-mon","periods":["P1"]}]""", "slots[0].day")]
    [InlineData("""[{"day":"mon","periods":["P1"]},{"day":"tue","periods":["P9"]}]""", "slots[1].periods")]
    [InlineData("""[{"day":"mon","start":"10:00","end":"09:00"}]""", "slots")]
    public async Task A_timetable_that_the_term_does_not_know_names_the_time(string slots, string at)
    {
        var version = (await Lead.Get(Route("sections"))).Json["sections"]!
            .AsArray()
            .Single(card => card!["name"]!.GetValue<string>() == "9 Alder")!["version"]!.GetValue<long>();
        var reply = await Lead.Post(
            Route("change-timetable"),
            new
            {
                section = School.Ids["section:9 Alder"],
                slots = JsonNode.Parse(slots),
                version,
            },
            Guid.NewGuid()
        );
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, at), reply.Text);
    }

    [Theory]
    [InlineData("Origin", "https://elsewhere.example")]
    [InlineData("Origin", "null")]
    [InlineData("Sec-Fetch-Site", "cross-site")]
    [InlineData("Sec-Fetch-Site", "same-site")]
    [InlineData(SameSiteOnly.Header, null)]
    public async Task What_another_site_makes_a_browser_send_changes_nothing(string header, string? value)
    {
        var before = await School.RowCounts();
        var reply = await Lead.Post(
            $"/api/editions/{School.WeatherWatch}/rename-item",
            await CommandExamples.Rename(School),
            Guid.NewGuid(),
            request =>
            {
                request.Headers.Remove(header);
                if (value is not null)
                    request.Headers.Add(header, value);
            }
        );
        reply.Code.ShouldBe("cross-site");
        (await School.RowCounts()).ShouldBe(before);
        var connect = await Lead.Send(HttpMethod.Get, "/live", null, request =>
        {
            request.Headers.Add("Upgrade", "websocket");
            request.Headers.Add("Origin", "https://elsewhere.example");
        });
        connect.Code.ShouldBe("cross-site");
    }

    private string Route(string rest) => $"/api/editions/{School.WeatherWatch}/{rest}";
}
