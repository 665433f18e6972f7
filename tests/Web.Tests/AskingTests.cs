using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What an item asks for: said by the team, seen by its students, held against what they hand in.</summary>
public sealed class AskingTests : LeadOfASchool
{
    private static readonly object Photograph = new
    {
        way = "work",
        text = "asked",
        links = "welcome",
        files = new[] { new { what = "the photograph", kind = "picture" } },
        others = false,
    };

    private static readonly object Log = Way("log");
    private static readonly object Tick = Way("tick");

    private static object Way(string way) =>
        new
        {
            way,
            text = "welcome",
            links = "welcome",
            files = Array.Empty<object>(),
            others = true,
        };

    private string InAlder(string rest) => $"/api/sections/{School.Ids["section:9 Alder"]}/{rest}";

    private string InCourse(string rest) => $"/api/editions/{School.WeatherWatch}/{rest}";

    private async Task<JsonNode> Planned(string command, object body)
    {
        var reply = await Lead.Post(InCourse(command), body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json;
    }

    private async Task<JsonNode> Ask(long item, object? asks) =>
        await Planned(
            "ask-item",
            new
            {
                item,
                asks,
                version = (await Lead.Get(InCourse($"items/{item}"))).Json["version"]!.GetValue<long>(),
            }
        );

    private Task<Reply> Send(Caller student, string command, long item, object rest)
    {
        var body = System.Text.Json.JsonSerializer.SerializeToNode(rest)!.AsObject();
        body["item"] = item;
        return student.Post(InAlder(command), body, Guid.NewGuid());
    }

    private static object File(Guid upload) => new { id = (long?)null, upload };

    private static IEnumerable<string> Words(JsonNode? list) => list!.AsArray().Select(one => one!.GetValue<string>());

    [Fact]
    public async Task What_is_asked_for_is_said_before_it_is_missed_and_shown_to_the_teacher_after()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var item = await School.Item("Cloud diary");
        (await Ask(item, Photograph))["words"]!.GetValue<string>().ShouldContain("text and the photograph");
        var page = (await imke.Get(InAlder($"items/{item}"))).Json;
        page["asks"]!["files"]![0]!["what"]!.GetValue<string>().ShouldBe("the photograph");
        Words(page["stillAsked"]).ShouldBe(["your text", "the photograph"]);
        var saved = await Send(imke, "save-draft", item, new { text = "Heaps.", version = 0 });
        Words(saved.Json["stillAsked"]).ShouldBe(["the photograph"]);
        var wrong = await Send(
            imke,
            "save-draft",
            item,
            new
            {
                text = "Heaps.",
                version = 1,
                files = new[] { File(await imke.SendFile("monday.txt", "grey"u8.ToArray())) },
            }
        );
        (wrong.Status, wrong.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "files[0]"));
        wrong.Text.ShouldContain("only pictures can");
        // It is theirs to hand in all the same; the teacher sees what is missing.
        (await Send(imke, "hand-in", item, new { text = "Heaps.", pressedAt = (string?)null })).Status.ShouldBe(HttpStatusCode.OK);
        Words((await Piece(item))["stillAsked"]).ShouldBe(["the photograph"]);
        (await Send(imke, "take-back", item, new { })).Status.ShouldBe(HttpStatusCode.OK);
        var whole = await Send(
            imke,
            "hand-in",
            item,
            new
            {
                text = "Heaps.",
                pressedAt = (string?)null,
                files = new[] { File(await imke.SendFile("sky.jpg", Polycline.Tests.Web.Photograph.WithPlace)) },
            }
        );
        whole.Status.ShouldBe(HttpStatusCode.OK, whole.Text);
        Words((await Piece(item))["stillAsked"]).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_log_keeps_its_entries_by_day_through_draft_hand_in_and_taking_back()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var item = await School.Item("Cloud diary");
        await Ask(item, Log);
        object[] entries = [new { on = "2026-10-07", text = "Streaks." }, new { on = "2026-10-05", text = "Heaps by noon." }];
        string[] links = ["https://harbour.fenwater.example/today"];
        var saved = await Send(
            imke,
            "save-draft",
            item,
            new
            {
                text = "",
                version = 0,
                entries,
                links,
            }
        );
        saved.Status.ShouldBe(HttpStatusCode.OK, saved.Text);
        (
            await Send(
                imke,
                "hand-in",
                item,
                new
                {
                    text = "",
                    pressedAt = (string?)null,
                    entries,
                    links,
                }
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        var piece = await Piece(item);
        piece["entries"]!.AsArray().Select(one => (string)one!["on"]!).ShouldBe(["2026-10-05", "2026-10-07"]);
        Words(piece["links"]).ShouldBe(links);
        (await Send(imke, "take-back", item, new { })).Status.ShouldBe(HttpStatusCode.OK);
        var draft = (await imke.Get(InAlder($"items/{item}"))).Json["draft"]!;
        draft["entries"]![0]!["text"]!.GetValue<string>().ShouldBe("Heaps by noon.");
        Words(draft["links"]).ShouldBe(links);
        // Erased with everything else that somebody wrote.
        (await School.TablesWith("Heaps by noon")).ShouldBe(["draft", "work_version"], ignoreOrder: true);
        await School.Sql(async connection =>
        {
            await Dapper.SqlMapper.ExecuteAsync(
                connection,
                "SELECT erase_files(@person)",
                new { person = School.Ids["person:" + DemoPeople.OnTrack] }
            );
            return true;
        });
        (await School.TablesWith("Heaps by noon")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("entries", """{"text":"","version":0,"entries":[{"on":"5/10/2026","text":"x"}]}""")]
    [InlineData("entries", """{"text":"","version":0,"entries":[{"on":"9999-99-99","text":"x"}]}""")]
    [InlineData("links", """{"text":"","version":0,"links":["javascript:alert(1)"]}""")]
    [InlineData("links", """{"text":"","version":0,"links":["nowhere"]}""")]
    public async Task What_is_no_day_and_no_address_is_refused_by_name(string field, string body)
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var reply = await Send(imke, "save-draft", await School.Item("Cloud diary"), JsonNode.Parse(body)!);
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, field));
    }

    [Fact]
    public async Task What_is_ticked_off_is_done_is_counted_opens_what_waits_for_it_and_can_be_taken_back()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var item = await School.Item("Guide: the rain gauge");
        // What is handed in is not ticked off.
        var task = await School.Item("Cloud diary");
        (await Send(imke, "tick-off", task, new { done = true })).Status.ShouldBe(HttpStatusCode.Conflict);
        await Ask(task, Tick);
        (await Send(imke, "tick-off", task, new { done = true })).Status.ShouldBe(HttpStatusCode.OK);
        var waiting = await School.Item("A slow ramp");
        var lineage = (await Lead.Get(InCourse($"items/{item}"))).Json["lineage"]!.GetValue<string>();
        await Planned(
            "condition-item",
            new
            {
                item = waiting,
                gate = new { item = lineage, @is = "ticked" },
                version = (await Lead.Get(InCourse($"items/{waiting}"))).Json["version"]!.GetValue<long>(),
            }
        );
        var before = await Counted(item);
        (await Page())["mayTick"]!.GetValue<bool>().ShouldBeTrue();
        (await Send(imke, "tick-off", item, new { done = true })).Status.ShouldBe(HttpStatusCode.OK);
        var done = await Page();
        (done["isTicked"]!.GetValue<bool>(), done["progress"]!.GetValue<string>()).ShouldBe((true, "done"));
        (await Counted(item)).ShouldBe(before + 1);
        (await imke.Get(InAlder($"items/{waiting}/why"))).Json["steps"]!.AsArray().ShouldBeEmpty();
        // Nothing is handed in here, nor waits to be read.
        (await Send(imke, "hand-in", item, new { text = "Here.", pressedAt = (string?)null })).Status.ShouldBe(HttpStatusCode.Conflict);
        (await Send(imke, "tick-off", item, new { done = false })).Status.ShouldBe(HttpStatusCode.OK);
        (await Page())["isTicked"]!.GetValue<bool>().ShouldBeFalse();
        (await Counted(item)).ShouldBe(before);

        async Task<JsonNode> Page() => (await imke.Get(InAlder($"items/{item}"))).Json;
    }

    [Theory]
    [InlineData("Which window will be yours?", "tick", "asks")]
    [InlineData("Six things one can measure", "work", "asks")]
    public async Task What_a_kind_of_item_cannot_ask_is_refused(string title, string way, string field)
    {
        var item = await School.Item(title);
        var reply = await Lead.Post(
            InCourse("ask-item"),
            new
            {
                item,
                asks = Way(way),
                version = (await Lead.Get(InCourse($"items/{item}"))).Json["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, field));
    }

    private async Task<int> Counted(long item)
    {
        var counted = (await Lead.Get(InCourse("handed-in"))).Json;
        var alder = counted["sections"]!.AsArray().Select(one => one!.GetValue<long>()).ToList().IndexOf(School.Ids["section:9 Alder"]);
        return counted["items"]!
            .AsArray()
            .SingleOrDefault(row => row!["item"]!.GetValue<long>() == item)
            ?["students"]![alder]!.GetValue<int>()
            ?? 0;
    }

    private async Task<JsonNode> Piece(long item) =>
        (await Lead.Get(InCourse("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(section => section!["pieces"]!.AsArray())
            .Single(piece =>
                piece!["item"]!.GetValue<long>() == item && piece["student"]!.GetValue<long>() == School.Ids["person:" + DemoPeople.OnTrack]
            )!;
}
