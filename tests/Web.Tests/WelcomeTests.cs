using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The welcome unit: open from the first day, for everyone, whatever a team does.</summary>
public sealed class WelcomeTests : LeadOfASchool
{
    private async Task<Reply> Welcome(string unit, bool welcome)
    {
        var (id, version) = await CommandExamples.At(School, "unit", unit);
        return await Lead.Post(
            Route("change-unit"),
            new
            {
                unit = id,
                title = unit,
                published = true,
                before = (string?)null,
                welcome,
                version,
            },
            Guid.NewGuid()
        );
    }

    private async Task<List<string>> Seen(Caller student) =>
        [
            .. (await student.Get($"/api/sections/{School.Ids["section:9 Alder"]}/now")).Json["welcome"]!
                .AsArray()
                .Select(row => row!["title"]!.GetValue<string>()),
        ];

    private async Task<JsonNode> Item(string title) => (await Lead.Get(Route($"items/{await School.Item(title)}"))).Json;

    [Fact]
    public async Task It_opens_at_once_for_everyone_and_comes_back_as_it_was_when_that_is_undone()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var before = (await Item("Three storms in the harbour's books"))["opens"]!.ToJsonString();
        (await Seen(imke)).ShouldBeEmpty();
        // Of what has opened everywhere nothing changes, and it says so.
        var early = await Welcome("Looking up", true);
        early.Json["reach"]!["sentence"]!.GetValue<string>().ShouldBe("Students can already open all of it, so nothing changes for them.");
        await Post("undo", new { batch = early.Json["batch"]!.GetValue<long>() });
        var done = await Welcome("Storm season", true);
        done.Status.ShouldBe(HttpStatusCode.OK, done.Text);
        done.Json["words"]!.GetValue<string>().ShouldContain("the welcome unit, always open");
        var item = await Item("Three storms in the harbour's books");
        (item["opens"]!["anchor"], item["closes"]!["anchor"], item["condition"]).ShouldBe((null, null, null));
        // What is not published is still nobody's but the team's.
        var open = await Seen(imke);
        open.ShouldNotContain("Three storms in the harbour's books");
        await Post(
            "publish-item",
            new
            {
                item = item["id"]!.GetValue<long>(),
                published = true,
                version = item["version"]!.GetValue<long>(),
            }
        );
        (await Seen(imke)).ShouldBe([.. open, "Three storms in the harbour's books"], ignoreOrder: true);

        await Post("undo", new { batch = done.Json["batch"]!.GetValue<long>() });
        (await Item("Three storms in the harbour's books"))["opens"]!.ToJsonString().ShouldBe(before);
        (await Seen(imke)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Nothing_in_it_can_open_later_close_or_wait_and_there_is_one()
    {
        (await Welcome("Storm season", true)).Status.ShouldBe(HttpStatusCode.OK);
        var other = await Welcome("Fronts", true);
        (other.Status, other.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "welcome"));
        var (item, version) = await CommandExamples.At(School, "item", "Three storms in the harbour's books");
        foreach (var field in new[] { "opens", "closes" })
        {
            var timed = await Lead.Post(
                Route("time-item"),
                new
                {
                    item,
                    field,
                    anchor = new
                    {
                        at = "fixed",
                        date = "2026-12-01",
                        time = "12:00",
                    },
                    version,
                },
                Guid.NewGuid()
            );
            (timed.Status, timed.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "welcome"), field);
            timed.Text.ShouldContain("Three storms in the harbour");
        }
        // A due date is not an end.
        await Post(
            "time-item",
            new
            {
                item,
                field = "due",
                anchor = new
                {
                    at = "fixed",
                    date = "2026-12-01",
                    time = "12:00",
                },
                version,
            }
        );
        // What is added to it opens with it.
        var (unit, _) = await CommandExamples.At(School, "unit", "Storm season");
        await Post(
            "add-item",
            new
            {
                unit,
                lesson = (long?)null,
                kind = "page",
                purpose = "to-read",
                title = "Hello everyone",
                section = (long?)null,
            }
        );
        (await Item("Hello everyone"))["opens"]!["anchor"].ShouldBeNull();
    }
}
