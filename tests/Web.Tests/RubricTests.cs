using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Rubrics: made, read by students, marked with, and changed after that.</summary>
public sealed class RubricTests : LeadOfASchool
{
    private const string Step = "Isobars by hand";
    private const string Diary = "Cloud diary";

    private static JsonObject Level(string id, string name, decimal from, decimal? to = null, string words = "") =>
        new()
        {
            ["id"] = id,
            ["name"] = name,
            ["from"] = from,
            ["to"] = to ?? from,
            ["isRange"] = to is not null,
            ["words"] = words,
        };

    private static JsonObject Criterion(string id, string title, decimal weight, params JsonObject[] levels) =>
        new()
        {
            ["id"] = id,
            ["title"] = title,
            ["weight"] = weight,
            ["isOptional"] = false,
            ["levels"] = new JsonArray([.. levels]),
        };

    private static JsonObject Rubric(string name, params JsonObject[] criteria) =>
        new() { ["name"] = name, ["criteria"] = new JsonArray([.. criteria]) };

    private static JsonObject Isobars() =>
        Rubric(
            "Isobars",
            Criterion("", "Every line closed", 1, Level("", "", 0), Level("", "", 2, words: "All of them.")),
            Criterion("", "Labelled", 0.5m, Level("", "some", 0, 2), Level("", "all", 3))
        );

    private async Task<Reply> Write(string item, JsonObject? rubric, bool preview = false)
    {
        var id = await School.Item(item);
        return await Lead.Post(
            Route("write-rubric") + (preview ? "?preview=true" : ""),
            new JsonObject
            {
                ["item"] = id,
                ["rubric"] = rubric?.DeepClone(),
                ["version"] = (await Lead.Get(Route($"items/{id}"))).Json["version"]!.GetValue<long>(),
            },
            preview ? null : Guid.NewGuid()
        );
    }

    private async Task<JsonNode> Read(string item) => (await Lead.Get(Route($"items/{await School.Item(item)}/rubric"))).Json["rubric"]!;

    private async Task<Reply> GiveBack(
        bool again = false,
        bool preview = false,
        params (string Criterion, string Level, decimal? Points)[] levels
    )
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
                text = "",
                again,
                mark = new
                {
                    rubric = levels.Select(one => new
                    {
                        one.Criterion,
                        one.Level,
                        one.Points,
                    }),
                },
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

    private async Task<JsonNode> Seen(Caller student) =>
        (await student.Get($"/api/sections/{School.Ids["section:9 Birch"]}/items/{await School.Item(Step)}")).Json;

    private static string Text(JsonNode? node) => node!.GetValue<string>();

    [Fact]
    public async Task A_rubric_is_read_before_marked_with_and_the_mark_keeps_it_whatever_becomes_of_it()
    {
        using var student = await School.As(DemoPeople.HeldUp);
        var written = await Write(Step, Isobars());
        written.Status.ShouldBe(HttpStatusCode.OK, written.Text);
        // It was marked out of 10 points before, and stays so.
        Text(written.Json["words"]).ShouldBe("wrote the rubric of “Isobars by hand”");
        var seen = await Seen(student);
        var before = Text(seen["rubric"]);
        seen["rubrics"]![before]!["criteria"]!.AsArray().Select(one => Text(one!["title"])).ShouldBe(["Every line closed", "Labelled"]);

        (await GiveBack(levels: [("c1", "l2", null)])).Json["title"]!.GetValue<string>().ShouldBe("Choose a level for “Labelled”.");
        (await GiveBack(levels: [("c1", "l2", null), ("c2", "l1", 2.01m)])).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await GiveBack(levels: [("c1", "l2", null), ("c1", "l1", null), ("c2", "l2", null)])).Status.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        Text((await GiveBack(preview: true, levels: [("c1", "l2", null), ("c2", "l1", 1)])).Json["sentence"])
            .ShouldStartWith("2.12 goes back to Davit Lindqvist with 7.14 of 10 (2.5 of 3.5 by the rubric)");
        // To try again it may be marked in part, and gives no score.
        (await GiveBack(again: true, levels: [("c1", "l1", null)])).Status.ShouldBe(HttpStatusCode.OK);
        (await ScoreKept()).ShouldBeNull();
        (await GiveBack(levels: [("c1", "l2", null), ("c2", "l1", 1)])).Status.ShouldBe(HttpStatusCode.OK);
        (await ScoreKept()).ShouldBe(71.4285m);

        // Changed after that: what becomes of the mark is said, and it stays as it was given.
        var anew = (JsonObject)(await Read(Step)).DeepClone();
        anew["criteria"]![1]!["weight"] = 2;
        Text((await Write(Step, anew, preview: true)).Json["reach"]!["sentence"])
            .ShouldEndWith("1 mark made with another rubric keeps it. By this one 1 would be lower.");
        (await Write(Step, anew)).Status.ShouldBe(HttpStatusCode.OK);
        (await ScoreKept()).ShouldBe(71.4285m);
        var back = (await Seen(student))["history"]![0]!["feedback"]![0]!["mark"]!;
        Text(back["rubric"]!["is"]).ShouldBe(before);
        (await Seen(student))["rubrics"]!.AsObject().Select(one => one.Key).Count().ShouldBe(2);
        var work = (await Lead.Get(Route("work"))).Json;
        var piece = work["sections"]!
            .AsArray()
            .SelectMany(section => section!["pieces"]!.AsArray())
            .Single(piece => Text(piece!["name"]) == DemoPeople.HeldUp && Text(piece["title"]) == Step)!;
        Text(piece["back"]!["byPresent"]).ShouldBe("50.0 %");
        work["rubrics"]!.AsObject().ContainsKey(before).ShouldBeTrue();

        // Taken off, it is marked in points as before; the mark still says what it was made with.
        Text((await Write(Step, null, preview: true)).Json["reach"]!["sentence"]).ShouldEndWith("1 mark made with a rubric keeps it.");
        (await Write(Step, null)).Status.ShouldBe(HttpStatusCode.OK);
        var after = await Seen(student);
        after["rubric"].ShouldBeNull();
        after["rubrics"]![before].ShouldNotBeNull();
    }

    [Fact]
    public async Task One_s_own_piece_is_judged_first_where_that_is_asked_and_stands_beside_the_mark()
    {
        using var student = await School.As(DemoPeople.HeldUp);
        (await Write(Step, Isobars())).Status.ShouldBe(HttpStatusCode.OK);
        var item = await School.Item(Step);
        async Task<Reply> Ask(bool judged) =>
            await Lead.Post(
                Route("ask-item"),
                new
                {
                    item,
                    asks = new
                    {
                        way = "work",
                        text = "welcome",
                        links = "welcome",
                        files = Array.Empty<object>(),
                        others = true,
                        judged,
                    },
                    version = (await Lead.Get(Route($"items/{item}"))).Json["version"]!.GetValue<long>(),
                },
                Guid.NewGuid()
            );
        Task<Reply> Send(string what, object[] judged, long version = 0) =>
            student.Post(
                $"/api/sections/{School.Ids["section:9 Birch"]}/{what}",
                what == "hand-in"
                    ? new
                    {
                        item,
                        text = "Once more.",
                        pressedAt = (string?)null,
                        judged,
                    }
                    : new
                    {
                        item,
                        text = "Once more.",
                        version,
                        judged,
                    },
                Guid.NewGuid()
            );
        var (lines, labels, unknown) = (
            new
            {
                criterion = "c1",
                level = "l2",
                points = (decimal?)null,
            },
            new
            {
                criterion = "c2",
                level = "l1",
                points = (decimal?)1.5m,
            },
            new
            {
                criterion = "c2",
                level = "l9",
                points = (decimal?)null,
            }
        );
        // Nobody has asked for it yet: it is not kept.
        (await Send("save-draft", [lines])).Json["stillAsked"]!.AsArray().ShouldBeEmpty();
        (await Seen(student))["draft"]!["judged"]!.AsArray().ShouldBeEmpty();
        var asked = await Ask(true);
        Text(asked.Json["words"]).ShouldEndWith(": their own judgement of it");

        // Part of what is written: kept in the draft, and missed where it is not whole.
        (await Send("save-draft", [lines, unknown], 1)).Json["stillAsked"]!.AsArray().Select(Text).ShouldBe(["your own judgement of it"]);
        (await Seen(student))["draft"]!["judged"]!.AsArray().Select(one => Text(one!["level"])).ShouldBe(["l2"]);
        (await Send("save-draft", [null!], 2)).Status.ShouldBe(HttpStatusCode.BadRequest);
        (await Send("save-draft", [lines, labels], 2)).Json["stillAsked"]!.AsArray().ShouldBeEmpty();
        (await Send("hand-in", [lines, labels])).Status.ShouldBe(HttpStatusCode.OK);
        var own = (await Seen(student))["history"]![0]!["judged"]!;
        own["levels"]!.AsArray().Select(one => Text(one!["level"])).ShouldBe(["l2", "l1"]);
        var piece = (await Lead.Get(Route("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(section => section!["pieces"]!.AsArray())
            .Single(piece => Text(piece!["name"]) == DemoPeople.HeldUp && Text(piece["title"]) == Step)!;
        piece["judged"]!.ToJsonString().ShouldBe(own.ToJsonString());
        piece["judged"]!["levels"]![1]!["points"]!.GetValue<decimal>().ShouldBe(1.5m);

        // Taken back, it is written on with what was said of it.
        await student.Post($"/api/sections/{School.Ids["section:9 Birch"]}/take-back", new { item }, Guid.NewGuid());
        (await Seen(student))["draft"]!["judged"]!.AsArray().Count.ShouldBe(2);
        // By another rubric it is to be judged anew.
        var anew = (JsonObject)(await Read(Step)).DeepClone();
        anew["criteria"]![1]!["weight"] = 2;
        (await Write(Step, anew)).Status.ShouldBe(HttpStatusCode.OK);
        var seen = await Seen(student);
        (seen["draft"]!["judged"]!.AsArray().Count, Text(seen["stillAsked"]![0])).ShouldBe((0, "your own judgement of it"));
    }

    [Fact]
    public async Task A_rubric_sets_how_it_is_marked_and_nothing_is_set_that_it_cannot_give()
    {
        (await MarkAs(Step, null)).Status.ShouldBe(HttpStatusCode.OK);
        Text((await Write(Step, Isobars())).Json["words"]).ShouldBe("wrote the rubric of “Isobars by hand”, marked out of 3.5 points");
        Text((await MarkAs(Step, null)).Json["title"])
            .ShouldBe("The rubric gives points. Mark it in points or per cent, or take the rubric off first.");
        Text((await Write("What a cloud is", Isobars())).Json["title"]).ShouldStartWith("Only what students hand in");
    }

    private async Task<Reply> MarkAs(string item, object? marked)
    {
        var id = await School.Item(item);
        return await Lead.Post(
            Route("mark-item-as"),
            new
            {
                item = id,
                marked,
                version = (await Lead.Get(Route($"items/{id}"))).Json["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );
    }

    [Fact]
    public async Task What_is_no_rubric_is_refused_at_its_field_and_nothing_is_written()
    {
        (JsonObject Rubric, string Field)[] faults =
        [
            (Rubric(" ", Criterion("", "a", 1, Level("", "", 1))), "rubric.name"),
            (Rubric("x"), "rubric.criteria"),
            (Rubric("x", Criterion("", "", 1, Level("", "", 1))), "rubric.criteria"),
            (Rubric("x", Criterion("", "a", 1, Level("", "", 1)), Criterion("", "A", 1, Level("", "", 1))), "rubric.criteria"),
            (Rubric("x", Criterion("", "a", -1, Level("", "", 1))), "rubric.criteria"),
            (Rubric("x", Criterion("", "a", 1)), "rubric.criteria"),
            (Rubric("x", Criterion("", "a", 1, Level("", "", 1.001m))), "rubric.criteria[0].levels"),
            (Rubric("x", Criterion("", "a", 1, Level("", "", 3, 1))), "rubric.criteria[0].levels"),
            (Rubric("x", Criterion("", "a", 1, Level("", "", 1), Level("", "", 1))), "rubric.criteria[0].levels"),
            (Rubric("x", Criterion("", "a", 1, Level("", new string('n', 101), 1))), "rubric.criteria[0].levels"),
        ];
        foreach (var (rubric, field) in faults)
        {
            var refused = await Write(Step, rubric);
            refused.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, rubric.ToJsonString());
            Text(refused.Json["field"]).ShouldBe(field);
        }
        (await Lead.Get(Route($"items/{await School.Item(Step)}/rubric"))).Json["rubric"].ShouldBeNull();
    }

    [Fact]
    public async Task A_rubric_goes_out_as_a_table_and_comes_in_again_as_it_was()
    {
        var item = await School.Item(Diary);
        var csv = await Lead.Get(Route($"items/{item}/rubric.csv"));
        csv.Text.ShouldContain("Seven entries,None.,One to three.,Four to six.,\"Seven, on seven days.\"");
        var understood = (await Lead.Post(Route("understand-rubric"), new { item, text = csv.Text })).Json;
        JsonNode.DeepEquals(understood["criteria"], (await Read(Diary))["criteria"]).ShouldBeTrue();

        var fault = (await Lead.Post(Route("understand-rubric"), new { item, text = "Criterion,Good\nTime,yes" })).Json;
        fault["criteria"].ShouldBeNull();
        var said = fault["faults"]!.AsArray().ShouldHaveSingleItem()!;
        (said["row"]!.GetValue<int>(), Text(said["column"])).ShouldBe((2, "Good"));
    }

    [Fact]
    public async Task Rubrics_of_one_s_own_courses_are_found_and_those_of_nobody_else()
    {
        var mine = (await Lead.Get(Route("rubrics"))).Json.AsArray();
        mine.Count.ShouldBeGreaterThanOrEqualTo(6);
        mine.Single(one => Text(one!["rubric"]!["name"]) == Diary)!["where"]!.GetValue<string>().ShouldStartWith("Weather Watch, ");
        using var other = await School.As(DemoPeople.HeldUp);
        (await other.Get(Route("rubrics"))).Status.ShouldBe(HttpStatusCode.NotFound);
        (await other.Get(Route($"items/{await School.Item(Diary)}/rubric"))).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Before_it_can_be_read_nothing_of_a_rubric_reaches_a_student()
    {
        using var student = await School.As(DemoPeople.OnTrack);
        var section = School.Ids["section:9 Alder"];
        // The project is not published yet.
        var later = await School.Item("Project, step 3: the real thing");
        var reply = await student.Get($"/api/sections/{section}/items/{later}");
        (
            reply.Status == HttpStatusCode.NotFound
            || JsonSerializer.Serialize(reply.Json).Contains("Evidence", StringComparison.Ordinal) == false
        ).ShouldBeTrue(reply.Text);
        foreach (var page in new[] { "now", "course" })
            (await student.Get($"/api/sections/{section}/{page}")).Text.ShouldNotContain("somebody wants to know");
    }
}
