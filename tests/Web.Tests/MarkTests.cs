using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>How items are marked, marks that are given, and what a score opens.</summary>
public sealed class MarkTests : LeadOfASchool
{
    private const string Step = "Isobars by hand";
    private const string Next = "Arrows on the chart";

    private static object Points(decimal outOf) =>
        new
        {
            As = "points",
            outOf,
            levels = Array.Empty<object>(),
        };

    private static object Scale(params (string Name, decimal? Percent)[] levels) =>
        new
        {
            As = "scale",
            outOf = 100,
            levels = levels.Select(level => new { name = level.Name, percent = level.Percent }),
        };

    private async Task<Reply> Set(string item, string command, string member, object? value)
    {
        var id = await School.Item(item);
        var request = new JsonObject
        {
            ["item"] = id,
            [member] = System.Text.Json.JsonSerializer.SerializeToNode(value, System.Text.Json.JsonSerializerOptions.Web),
            ["version"] = (await Lead.Get(Route($"items/{id}"))).Json["version"]!.GetValue<long>(),
        };
        return await Lead.Post(Route(command), request, Guid.NewGuid());
    }

    private Task<Reply> MarkAs(string item, object? marked) => Set(item, "mark-item-as", "marked", marked);

    private async Task<Reply> GiveBack(object? mark, bool again = false, bool preview = false, bool close = false)
    {
        var work = await School.Sql(async connection =>
            await connection.ExecuteScalarAsync<long>(
                "SELECT id FROM work WHERE person = @person AND item = @item",
                new { person = School.Ids["person:" + DemoPeople.HeldUp], item = await School.Item(Step) }
            )
        );
        return await Lead.Post(
            $"/api/sections/{School.Ids["section:9 Birch"]}/give-back" + (preview ? "?preview=true" : ""),
            new
            {
                work,
                n = 1,
                text = "Read the edges again.",
                again,
                mark,
                close,
            },
            preview ? null : Guid.NewGuid()
        );
    }

    private Task<decimal?> ScoreKept() =>
        School.Sql(async connection =>
            await connection.ExecuteScalarAsync<decimal?>(
                "SELECT score FROM fact WHERE person = @person AND item = @item AND event = 'scored' ORDER BY id DESC LIMIT 1",
                new { person = School.Ids["person:" + DemoPeople.HeldUp], item = await School.Item(Step) }
            )
        );

    private async Task<JsonNode> Seen(Caller student, string item) =>
        (await student.Get($"/api/sections/{School.Ids["section:9 Birch"]}/items/{await School.Item(item)}")).Json;

    [Fact]
    public async Task A_mark_is_given_read_and_opens_what_asks_for_that_score()
    {
        using var student = await School.As(DemoPeople.HeldUp);
        (await MarkAs(Step, Points(12))).Status.ShouldBe(HttpStatusCode.OK);
        var lineage = await School.Sql(async connection =>
            await connection.ExecuteScalarAsync<string>(
                "SELECT lineage::text FROM item WHERE id = @id",
                new { id = await School.Item(Step) }
            )
        );
        (
            await Set(Next, "condition-item", "gate", new Dictionary<string, object?> { ["item"] = lineage, ["scoreMin"] = 75 })
        ).Status.ShouldBe(HttpStatusCode.OK);
        // A little less opens nothing, to the hundredth of a point.
        (await GiveBack(new { value = 8.99m }, preview: true)).Json["sentence"]!
            .GetValue<string>()
            .ShouldBe("2.12 goes back to Davit Lindqvist with 8.99 of 12; nothing depends on it.");
        (await GiveBack(new { value = 9 }, preview: true)).Json["sentence"]!
            .GetValue<string>()
            .ShouldBe("2.12 goes back to Davit Lindqvist with 9 of 12, for whom 2.15 Arrows on the chart opens.");
        (await ScoreKept()).ShouldBeNull();
        (await Seen(student, Next))["state"]!.GetValue<string>().ShouldBe("locked");

        (await GiveBack(new { value = 9 })).Status.ShouldBe(HttpStatusCode.OK);
        (await ScoreKept()).ShouldBe(75);
        (await Seen(student, Next))["state"]!.GetValue<string>().ShouldBe("open");
        (await Seen(student, Step))["history"]![0]!["feedback"]![0]!["mark"]!["words"]!.GetValue<string>().ShouldBe("9 of 12");
        (await student.Get($"/api/sections/{School.Ids["section:9 Birch"]}/now")).Json["back"]![0]!["mark"]!
            .GetValue<string>()
            .ShouldBe("9 of 12");
        var piece = (await Lead.Get(Route("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(section => section!["pieces"]!.AsArray())
            .Single(piece => piece!["name"]!.GetValue<string>() == DemoPeople.HeldUp && piece["title"]!.GetValue<string>() == Step)!;
        piece["back"]!["mark"]!["words"]!.GetValue<string>().ShouldBe("9 of 12");

        // What was given says what it was given out of, whatever the item is marked by later.
        (await MarkAs(Step, Points(20))).Status.ShouldBe(HttpStatusCode.OK);
        (await Seen(student, Step))["history"]![0]!["feedback"]![0]!["mark"]!["words"]!.GetValue<string>().ShouldBe("9 of 12");
    }

    [Fact]
    public async Task What_a_mistyped_mark_let_in_is_said_and_closes_by_choice()
    {
        using var student = await School.As(DemoPeople.HeldUp);
        await MarkAs(Step, Points(12));
        var lineage = await School.Sql(async connection =>
            await connection.ExecuteScalarAsync<string>(
                "SELECT lineage::text FROM item WHERE id = @id",
                new { id = await School.Item(Step) }
            )
        );
        await Set(Next, "condition-item", "gate", new Dictionary<string, object?> { ["item"] = lineage, ["scoreMin"] = 75 });
        await GiveBack(new { value = 11 });
        var shown = (await GiveBack(new { value = 1 }, preview: true)).Json;
        shown["stays"]!.GetValue<bool>().ShouldBeTrue();
        shown["sentence"]!
            .GetValue<string>()
            .ShouldEndWith("2.15 Arrows on the chart stays open for Davit Lindqvist, whom the earlier score had let in.");
        // To try again gives no score, so nothing is put right by it.
        (await GiveBack(new { value = 1 }, again: true, preview: true)).Json["stays"]!.GetValue<bool>().ShouldBeFalse();
        await GiveBack(new { value = 1 });
        (await Seen(student, Next))["state"]!.GetValue<string>().ShouldBe("open");
        await GiveBack(new { value = 2 }, close: true);
        (await Seen(student, Next))["state"]!.GetValue<string>().ShouldBe("locked");
        (await ScoreKept()).ShouldBe(16.6666m);
    }

    [Fact]
    public async Task A_mark_put_right_says_what_it_closes_and_that_can_stay_open()
    {
        // What is open while a condition is met, and only then; else it stays open by itself.
        using var student = await School.As(DemoPeople.HeldUp);
        await MarkAs(Step, Points(12));
        var lineage = await School.Sql(async connection =>
            await connection.ExecuteScalarAsync<string>(
                "SELECT lineage::text FROM item WHERE id = @id",
                new { id = await School.Item(Step) }
            )
        );
        await Set(
            Next,
            "condition-item",
            "gate",
            new Dictionary<string, object?>
            {
                ["item"] = lineage,
                ["scoreMin"] = 75,
                ["latch"] = false,
            }
        );
        var mistyped = (await GiveBack(new { value = 11 })).Json;
        mistyped["closes"]!.AsArray().ShouldBeEmpty();
        (await Seen(student, Next))["state"]!.GetValue<string>().ShouldBe("open");

        var shown = (await GiveBack(new { value = 1 }, preview: true)).Json;
        shown["sentence"]!.GetValue<string>().ShouldEndWith("2.15 Arrows on the chart closes for Davit Lindqvist.");
        shown["closes"]!.AsArray().Select(item => item!.GetValue<long>()).ShouldBe([await School.Item(Next)]);
        (await Seen(student, Next))["state"]!.GetValue<string>().ShouldBe("open");

        (await GiveBack(new { value = 1 })).Status.ShouldBe(HttpStatusCode.OK);
        (await ScoreKept()).ShouldBe(8.3333m);
        (await Seen(student, Next))["state"]!.GetValue<string>().ShouldBe("locked");
        // Both stay on the page, the later one first.
        (await Seen(student, Step))["history"]![0]!["feedback"]!
            .AsArray()
            .Select(back => back!["mark"]!["words"]!.GetValue<string>())
            .ShouldBe(["1 of 12", "11 of 12"]);
        await Post(
            "for-students",
            new
            {
                students = new[] { School.Ids["person:" + DemoPeople.HeldUp] },
                items = shown["closes"],
                change = "open",
                days = (int?)null,
                until = (string?)null,
            }
        );
        (await Seen(student, Next))["state"]!.GetValue<string>().ShouldBe("open");
    }

    [Fact]
    public async Task To_try_again_gives_no_score_and_neither_does_a_level_without_percent()
    {
        await MarkAs(Step, Scale(("not yet", null), ("there", null)));
        (await GiveBack(new { level = "not yet" }, again: true)).Status.ShouldBe(HttpStatusCode.OK);
        (await GiveBack(new { level = "there" })).Status.ShouldBe(HttpStatusCode.OK);
        (await ScoreKept()).ShouldBeNull();
        await MarkAs(Step, Scale(("not yet", 0), ("nearly", 66.67m), ("there", 100)));
        (await GiveBack(new { level = "nearly" }, again: true)).Status.ShouldBe(HttpStatusCode.OK);
        (await ScoreKept()).ShouldBeNull();
        (await GiveBack(new { level = "nearly" })).Status.ShouldBe(HttpStatusCode.OK);
        (await ScoreKept()).ShouldBe(66.67m);
    }

    [Fact]
    public async Task A_mark_that_does_not_fit_is_refused_at_its_field_and_nothing_is_given_back()
    {
        await Refused(null, new { value = 9 });
        await Refused(Points(12), new { value = 9.001m }, new { value = -1 }, new { level = "there" }, new { });
        await Refused(
            Scale(("not yet", 0), ("there", 100)),
            new { value = 9 },
            new { level = "nearly" },
            new { value = 1, level = "there" }
        );

        async Task Refused(object? marked, params object[] marks)
        {
            await MarkAs(Step, marked);
            var before = await School.RowCounts();
            foreach (var mark in marks)
            {
                var reply = await GiveBack(mark);
                (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "mark"), reply.Text);
            }
            (await School.RowCounts()).ShouldBe(before);
        }
    }

    [Theory]
    [InlineData("points", 0, "[]")]
    [InlineData("points", 10.001, "[]")]
    [InlineData("points", 10, """[{"name":"a"},{"name":"b"}]""")]
    [InlineData("grades", 10, "[]")]
    [InlineData("scale", 100, """[{"name":"there"}]""")]
    [InlineData("scale", 100, """[{"name":"there"},{"name":" There "}]""")]
    [InlineData("scale", 100, """[{"name":"not yet","percent":0},{"name":"there"}]""")]
    [InlineData("scale", 100, """[{"name":"not yet","percent":50},{"name":"there","percent":49}]""")]
    [InlineData("scale", 100, """[{"name":"not yet","percent":0},{"name":"there","percent":101}]""")]
    public async Task What_is_no_way_of_marking_is_refused(string how, decimal outOf, string levels)
    {
        var reply = await MarkAs(
            Step,
            new
            {
                As = how,
                outOf,
                levels = JsonNode.Parse(levels),
            }
        );
        (reply.Status, reply.Json["field"]!.GetValue<string>().StartsWith("marked", StringComparison.Ordinal)).ShouldBe(
            (HttpStatusCode.UnprocessableEntity, true),
            reply.Text
        );
    }

    [Fact]
    public async Task What_is_only_read_or_ticked_off_is_not_marked()
    {
        var reply = await MarkAs("A slow ramp", Points(10));
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "marked"));
    }
}
