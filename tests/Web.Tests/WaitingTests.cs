using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Who waits: what giving work back opens, and who has nothing to go on with, in a course of two steps.</summary>
public sealed class WaitingTests : LeadOfASchool
{
    private long birch;

    private static string Text(JsonNode? node) => node!.GetValue<string>();

    private static IReadOnlyList<string> Names(JsonNode group) => [.. group["students"]!.AsArray().Select(one => Text(one!["name"]))];

    // Everything but the two is taken out of sight.
    protected override async Task Prepare()
    {
        birch = School.Ids["section:9 Birch"];
        var items = new List<object>();
        var units = (await Lead.Get(Route("outline"))).Json["units"]!.AsArray();
        foreach (
            var item in units
                .SelectMany(unit => unit!["lessons"]!.AsArray().Append(unit))
                .SelectMany(place => place!["items"]!.AsArray())
                .Where(item => Text(item!["title"]) is not ("Isobars by hand" or "Arrows on the chart"))
        )
            items.Add(new { item = item!["id"]!.GetValue<long>(), version = item["version"]!.GetValue<long>() });
        await Post("change-items", new { items, published = false });
    }

    private async Task<JsonNode> Today(string query = "") =>
        (await Lead.Get(Route($"today{query}"))).Json["sections"]!.AsArray().Single(section => section!["id"]!.GetValue<long>() == birch)!;

    private async Task<JsonNode> Work() =>
        (await Lead.Get(Route("work"))).Json["sections"]!.AsArray().Single(section => section!["section"]!.GetValue<long>() == birch)!;

    private async Task<Dictionary<string, IReadOnlyList<string>>> Reasons(string query = "") =>
        (await Today(query))["nothingOpen"]!.AsArray().ToDictionary(group => Text(group!["words"]), group => Names(group!));

    [Fact]
    public async Task Who_waits_for_feedback_has_nothing_open_until_it_is_given_back()
    {
        const string Waits = "2.12 is still to be given back";
        var (today, work) = (await Today(), await Work());
        today["freeing"]!.ToJsonString().ShouldBe(work["freeing"]!.ToJsonString());
        today["nothingOpen"]!.ToJsonString().ShouldBe(work["nothingOpen"]!.ToJsonString());
        var frees = today["freeing"]!.AsArray().ShouldHaveSingleItem()!;
        var many = frees["pieces"]!.GetValue<int>();
        Text(frees["words"]).ShouldBe($"giving back 2.12 to {many} students opens 2.15 for them");
        var waiting = (await Reasons())[Waits];
        (waiting.Count, waiting.Contains(DemoPeople.HeldUp)).ShouldBe((many, true));
        waiting.ShouldBe(waiting.Order(StringComparer.OrdinalIgnoreCase));

        var piece = work["pieces"]!
            .AsArray()
            .Single(piece => Text(piece!["name"]) == DemoPeople.HeldUp && Text(piece["code"]) == "2.12" && piece["back"] is null)!;
        piece["frees"]!.AsArray().Select(Text).ShouldBe(["2.15"]);
        var given = await Lead.Post(
            $"/api/sections/{birch}/give-back",
            new
            {
                work = piece["work"]!.GetValue<long>(),
                n = piece["n"]!.GetValue<int>(),
                text = "",
                again = false,
            },
            Guid.NewGuid()
        );
        given.Status.ShouldBe(HttpStatusCode.OK, given.Text);
        (await Reasons())[Waits].ShouldBe(waiting.Where(name => name != DemoPeople.HeldUp));
        (await Today())["freeing"]![0]!["pieces"]!.GetValue<int>().ShouldBe(many - 1);
    }

    [Fact]
    public async Task The_reason_is_the_first_thing_that_is_to_come_and_leads_to_its_mend()
    {
        var arrows = await School.Item("Arrows on the chart");
        await Post(
            "differ",
            new
            {
                changes = new[]
                {
                    new
                    {
                        section = birch,
                        of = "item",
                        target = arrows,
                        field = "hold",
                        putBack = false,
                        value = true,
                        version = 0,
                    },
                },
            }
        );
        // What is kept back is not opened by giving anything back.
        (await Today())["freeing"]!.AsArray().ShouldBeEmpty();
        var held = (await Today())["nothingOpen"]!.AsArray().Single(group => Names(group!).Contains(DemoPeople.HeldUp))!;
        Text(held["words"]).ShouldBe("2.15 is kept back");
        (Text(held["mend"]!["screen"]), Text(held["mend"]!["row"])).ShouldBe(("outline", $"item-{arrows}"));

        // Before term begins everybody waits for the first date, and nothing is to be mended.
        var before = await Reasons("?at=2026-08-20T08:00:00Z");
        var (words, students) = before.ShouldHaveSingleItem();
        words.ShouldStartWith("2.12 opens on ");
        students.Count.ShouldBeGreaterThan(20);
        // Whose students they are not is told nothing of them.
        using var co = await School.As(DemoPeople.CoTeacher);
        (await co.Get(Route("today"))).Json["sections"]!
            .AsArray()
            .Where(section => Text(section!["name"]) != "9 Dogwood")
            .ShouldEachBe(section => section!["nothingOpen"]!.AsArray().Count + section["freeing"]!.AsArray().Count == 0);
    }

    [Fact]
    public async Task Two_feedbacks_given_at_once_open_what_waits_for_both_and_the_next_read_on_any_instance_shows_it()
    {
        await using var school = await School.Open(instances: 2);
        using var first = await school.As(DemoPeople.Lead);
        using var second = await school.As(DemoPeople.Lead, 1);
        var edition = $"/api/editions/{school.WeatherWatch}";
        var (one, other, last) = (
            await school.Item("Pressure log: two weeks"),
            await school.Item("Cloud diary"),
            await school.Item("A slow ramp")
        );
        async Task<object> Returned(string title) => new { item = await CommandExamples.Lineage(school, title), @is = "returned" };
        var both = new { all = new[] { await Returned("Pressure log: two weeks"), await Returned("Cloud diary") } };
        var version = (await CommandExamples.At(school, "item", "A slow ramp")).Version;
        (
            await first.Post(
                $"{edition}/condition-item",
                new
                {
                    item = last,
                    gate = both,
                    version,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        // Whoever has handed in both, in whichever section it is open by its date.
        var sections = (await first.Get($"{edition}/work")).Json["sections"]!.AsArray();
        var pairs = sections
            .SelectMany(section =>
                section!["pieces"]!.AsArray().Select(piece => (Section: section["section"]!.GetValue<long>(), Piece: piece!))
            )
            .Where(row => row.Piece["back"] is null && row.Piece["item"]!.GetValue<long>() is var item && (item == one || item == other))
            .GroupBy(row => row.Piece["student"]!.GetValue<long>())
            .Where(pair => pair.Count() == 2)
            .ToList();
        pairs.ShouldNotBeEmpty();
        Task<Reply> Give(Caller who, long section, JsonNode piece) =>
            who.Post(
                $"/api/sections/{section}/give-back",
                new
                {
                    work = piece["work"]!.GetValue<long>(),
                    n = piece["n"]!.GetValue<int>(),
                    text = "",
                    again = false,
                },
                Guid.NewGuid()
            );
        async Task<IReadOnlyList<string>> Conditions(Caller who, long student) =>
            [
                .. (await who.Get($"{edition}/students/{student}/items/{last}/why")).Json["conditions"]!
                    .AsArray()
                    .Select(condition => $"{condition!["met"]}"),
            ];
        foreach (var pair in pairs.Take(3))
        {
            var (a, b) = (pair.First(), pair.Last());
            foreach (var who in new[] { first, second })
                (await Conditions(who, pair.Key)).ShouldBe(["false"]);
            var given = await Task.WhenAll(Give(first, a.Section, a.Piece), Give(second, b.Section, b.Piece));
            given.ShouldAllBe(reply => reply.Status == HttpStatusCode.OK);
            foreach (var who in new[] { first, second })
                (await Conditions(who, pair.Key)).ShouldBe(["true"]);
        }
    }
}
