using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>All that a section does differently stands in one list, in words, and is put back from there.</summary>
public sealed class SectionsTests : IAsyncLifetime
{
    private School school = null!;
    private Caller lead = null!;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open();
        lead = await school.As(DemoPeople.Lead);
    }

    public async ValueTask DisposeAsync()
    {
        lead.Dispose();
        await school.DisposeAsync();
    }

    [Fact]
    public async Task Every_difference_is_said_and_put_back_and_then_the_section_is_as_the_course()
    {
        (await Said("9 Birch")).ShouldBe([
            "3.03 Cloud diary opens at the start of “Wind from pressure”, not at the start of the lesson",
            "3.06 Which storey? is kept back",
        ]);
        (await Said("9 Cedar")).ShouldBe(["Fronts is the 3rd unit here"]);
        (await Said("9 Dogwood")).ShouldBe(["3.03 Cloud diary is due at the start of the 3rd class after the lesson, not at the start of the 2nd class after the lesson"]);
        var alder = school.Ids["section:9 Alder"];
        var bare = (await lead.Get(Route("dates"))).Json["units"]!.ToJsonString();
        var (lesson, _) = await CommandExamples.At(school, "lesson", "The warm front");
        var (after, _) = await CommandExamples.At(school, "lesson", "The cold front");
        await Post("differ", new
        {
            changes = new object[]
            {
                new { section = alder, of = "lesson", target = lesson, field = "length", putBack = false, value = 3, version = 0 },
                new { section = alder, of = "lesson", target = after, field = "pin", putBack = false, value = "2026-11-20", version = 0 },
                new { section = alder, of = "unit", target = (await CommandExamples.At(school, "unit", "Storm season")).Id, field = "skip", putBack = false, value = true, version = 0 },
                new { section = alder, of = "item", target = await school.Item("A slow ramp"), field = "due", putBack = false, value = new { at = "lesson-end", days = 2, clock = "18:00" }, version = 0 },
            },
        });
        await Post("order-lesson", new { section = alder, lesson, after, version = 0 });
        await Post("change-classes", new { section = alder, change = new { cancel = new { date = "2026-10-12" } }, putBack = (int?)null, version = 0 });
        (await Said("9 Alder")).ShouldBe([
            "The warm front comes after “The cold front” here",
            "Storm season is dropped here",
            "The cold front is fixed to Fri 20 Nov",
            "The warm front lasts 3 classes instead of 1",
            "4.04 A slow ramp is due 2 days after the end of the lesson, 18:00",
            "A class cancelled on Mon 12 Oct",
        ]);
        foreach (var difference in (await Card("9 Alder"))["differences"]!.AsArray())
            await PutBack(alder, difference!);
        (await Said("9 Alder")).ShouldBeEmpty();
        (await lead.Get(Route("dates"))).Json["units"]!.ToJsonString().ShouldBe(bare);
    }

    [Theory]
    [InlineData("lesson", "length", "-1", "changes[0].value")]
    [InlineData("lesson", "pin", "\"2026-02-30\"", "changes[0].value")]
    [InlineData("item", "hold", "\"yes\"", "changes[0].value")]
    [InlineData("unit", "length", "2", "changes[0]")]
    public async Task A_difference_that_is_none_names_what_is_wrong(string of, string field, string value, string at)
    {
        var target = of == "item" ? await school.Item("A slow ramp") : (await CommandExamples.At(school, of, of == "unit" ? "Fronts" : "The warm front")).Id;
        var reply = await lead.Post(Route("differ"), new
        {
            changes = new[] { new { section = school.Ids["section:9 Alder"], of, target, field, putBack = false, value = JsonNode.Parse(value), version = 0 } },
        }, Guid.NewGuid());
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, at), reply.Text);
    }

    [Theory]
    [InlineData("""[{"day":"C-mon","periods":["P1"]}]""", "slots[0].day")]
    [InlineData("""[{"day":"mon","periods":["P1"]},{"day":"tue","periods":["P9"]}]""", "slots[1].periods")]
    [InlineData("""[{"day":"mon","start":"10:00","end":"09:00"}]""", "slots")]
    public async Task A_timetable_that_the_term_does_not_know_names_the_time(string slots, string at)
    {
        var version = (await Card("9 Alder"))["version"]!.GetValue<long>();
        var reply = await lead.Post(Route("change-timetable"), new { section = school.Ids["section:9 Alder"], slots = JsonNode.Parse(slots), version }, Guid.NewGuid());
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, at), reply.Text);
    }

    [Fact]
    public async Task What_others_changed_is_shown_until_one_has_seen_it()
    {
        using var co = await school.As(DemoPeople.CoTeacher);
        await lead.Post(Route("rename-item"), await CommandExamples.Rename(school), Guid.NewGuid());
        var mine = await co.Post(Route("order-unit"), await CommandExamples.All["order-unit"](school), Guid.NewGuid());
        var changed = (await lead.Get(Route("today"))).Json["changed"]!.AsArray();
        changed.Select(change => $"{change!["author"]} {change["words"]}").ShouldBe([$"{DemoPeople.CoTeacher} took “Storm season” as the 5th unit in 9 Dogwood"]);
        (await lead.Post(Route("looked"), new { batch = mine.Json["batch"]!.GetValue<long>() })).Status.ShouldBe(HttpStatusCode.NoContent);
        (await lead.Get(Route("today"))).Json["changed"]!.AsArray().ShouldBeEmpty();
        (await co.Get(Route("today"))).Json["changed"]!.AsArray().Count.ShouldBe(1);
    }

    private async Task PutBack(long section, JsonNode difference)
    {
        var (target, version) = (difference["target"]!.GetValue<long>(), difference["version"]!.GetValue<long>());
        await (difference["kind"]!.GetValue<string>() switch
        {
            "class" => Post("change-classes", new { section, change = (object?)null, putBack = difference["seq"]!.GetValue<int>(), version }),
            "order" => Post("order-lesson", new { section, lesson = target, after = (long?)null, version }),
            _ => Post("differ", new { changes = new[] { new { section, of = difference["of"]!.GetValue<string>(), target, field = difference["field"]!.GetValue<string>(), putBack = true, value = (object?)null, version } } }),
        });
    }

    private async Task Post(string command, object body)
    {
        var reply = await lead.Post(Route(command), body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
    }

    private async Task<IEnumerable<string>> Said(string section) => (await Card(section))["differences"]!.AsArray().Select(one => $"{one!["title"]} {one["words"]}");

    private async Task<JsonNode> Card(string section) => (await lead.Get(Route("sections"))).Json["sections"]!.AsArray().Single(one => one!["name"]!.GetValue<string>() == section)!;

    private string Route(string rest) => $"/api/editions/{school.WeatherWatch}/{rest}";
}
