using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Conditions: what they can ask, whom they let in, how they are set together, and who stands where.</summary>
public sealed class ConditionsTests : LeadOfASchool
{
    private static string Text(JsonNode? node) => node!.GetValue<string>();

    private static int Count(JsonNode? list) => list!.AsArray().Count;

    private async Task<JsonNode> Conditions(Caller? who = null) => (await (who ?? Lead).Get(Route("conditions"))).Json;

    private static JsonNode Place(JsonNode answer, string title) =>
        answer["places"]!.AsArray().Single(place => Text(place!["title"]) == title)!;

    private Task<string> Lineage(string title) => CommandExamples.Lineage(School, title);

    private Task<long> Version(long item) =>
        School.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT version FROM item WHERE id = @item", new { item }));

    private async Task<Reply> Admits(string title, object gate) =>
        await Lead.Post(
            Route("would-admit"),
            new
            {
                of = "item",
                place = await School.Item(title),
                gate,
            }
        );

    [Fact]
    public async Task Of_each_item_only_what_can_happen_to_it_can_be_asked()
    {
        var items = (await Lead.Get(Route("askable"))).Json["items"]!.AsArray();
        JsonNode Item(string title) => items.Single(item => Text(item!["title"]) == title)!;
        string Deeds(string title) => string.Join(' ', Item(title)["deeds"]!.AsArray().Select(Text));
        Deeds("Isobars by hand").ShouldBe("opened submitted returned");
        Deeds("Film: a day over the harbour").ShouldBe("opened");
        Item("Reading scales")["isScored"]!.GetValue<bool>().ShouldBeTrue();
        Deeds("Reading scales").ShouldBe("opened submitted");
        Count(Item(ChoiceTests.Title)["options"]).ShouldBe(2);
        Item("Film: a day over the harbour")["isScored"]!.GetValue<bool>().ShouldBeFalse();
        // What is offered is taken, and what is not offered is refused.
        foreach (var title in new[] { "Isobars by hand", "Film: a day over the harbour", "Reading scales" })
        foreach (var deed in new[] { "opened", "submitted", "returned" })
        {
            var reply = await Admits("A slow ramp", new { item = await Lineage(title), @is = deed });
            reply.Status.ShouldBe(
                Deeds(title).Split(' ').Contains(deed) ? HttpStatusCode.OK : HttpStatusCode.UnprocessableEntity,
                $"{title} {deed}"
            );
        }
    }

    [Fact]
    public async Task Whom_it_lets_in_is_told_by_section_and_name_and_is_so_once_it_is_set()
    {
        var isobars = await Lineage("Isobars by hand");
        var (given, handedIn) = (
            (await Admits("A slow ramp", new { item = isobars, @is = "returned" })).Json,
            (await Admits("A slow ramp", new { item = isobars, @is = "submitted" })).Json
        );
        Text(given["inWords"]).ShouldBe("Opens when feedback on 2.12 is given back. Students are told.");
        var sections = given["sections"]!.AsArray();
        sections.Select(section => Text(section!["letter"])).ShouldBe(["A", "B", "C", "D"]);
        int Sum(JsonNode answer, string which) => answer["sections"]!.AsArray().Sum(section => Count(section![which]));
        Sum(given, "admitted").ShouldBeInRange(1, Sum(handedIn, "admitted") - 1);
        (Sum(given, "admitted") + Sum(given, "others")).ShouldBe(Sum(handedIn, "admitted") + Sum(handedIn, "others"));
        var names = sections.SelectMany(section => section!["others"]!.AsArray()).Select(one => Text(one!["name"])).ToList();
        names.ShouldContain(DemoPeople.HeldUp);
        // The opposite lets in the others, and hides itself.
        var not = (await Admits("A slow ramp", new { not = new { item = isobars, @is = "returned" } })).Json;
        Sum(not, "admitted").ShouldBe(Sum(given, "others"));
        Text(not["inWords"]).ShouldEndWith("as long as that holds. Until then students see nothing of it.");
        // Once it is set, the picture has as many before it as it does not let in.
        var ramp = await School.Item("A slow ramp");
        await Post(
            "set-conditions",
            new
            {
                conditions = new[]
                {
                    new
                    {
                        item = ramp,
                        gate = new { item = isobars, @is = "returned" },
                        version = await Version(ramp),
                    },
                },
            }
        );
        var place = Place(await Conditions(), "A slow ramp");
        Text(place["condition"]).ShouldBe(Text(given["inWords"]));
        place["standing"]!.AsArray().Sum(section => Count(section!["before"])).ShouldBeGreaterThanOrEqualTo(Sum(given, "others"));
    }

    [Fact]
    public async Task What_would_be_wrong_with_it_is_said_before_it_is_set()
    {
        var (isobars, ramp) = (await Lineage("Isobars by hand"), await Lineage("A slow ramp"));
        (await Admits("A slow ramp", new { item = isobars, @is = "opened" })).Json["atFault"]!.AsArray().ShouldBeEmpty();
        var item = await School.Item("Isobars by hand");
        await Post(
            "condition-item",
            new
            {
                item,
                gate = new { item = ramp, @is = "opened" },
                version = await Version(item),
            }
        );
        var circle = (await Admits("A slow ramp", new { item = isobars, @is = "opened" })).Json["atFault"]!.AsArray();
        circle.Select(Text).ShouldContain(fault => fault.Contains("wait for one another"));
        (await Admits("A slow ramp", new { item = ramp, @is = "opened" })).Json["title"]!.GetValue<string>().ShouldContain("itself");
    }

    [Fact]
    public async Task Steps_are_set_together_undone_together_and_a_unit_waits_with_all_that_is_in_it()
    {
        var titles = new[] { "Isobars by hand", "A slow ramp", "Label the ramp" };
        var ids = new List<(long Id, string Lineage)>();
        foreach (var title in titles)
            ids.Add((await School.Item(title), await Lineage(title)));
        async Task<object> After(int n) =>
            new
            {
                item = ids[n].Id,
                gate = new { item = ids[n - 1].Lineage, @is = "opened" },
                version = await Version(ids[n].Id),
            };
        var done = await Post("set-conditions", new { conditions = new[] { await After(1), await After(2) } });
        var arrows = (await Conditions())["arrows"]!.AsArray();
        foreach (var n in new[] { 1, 2 })
            Text(arrows.Single(arrow => Text(arrow!["from"]) == ids[n - 1].Lineage && Text(arrow["to"]) == ids[n].Lineage)!["asks"])
                .ShouldBe("opened");
        await Post("undo", new { batch = done.Json["batch"]!.GetValue<long>() });
        (await Conditions())["arrows"]!.AsArray().ShouldNotContain(arrow => Text(arrow!["to"]) == ids[2].Lineage);

        var unit = await School.Sql(connection =>
            connection.QuerySingleAsync<(long Id, long Version)>(
                "SELECT id, version FROM unit WHERE edition = @edition AND title = 'Storm season'",
                new { edition = School.WeatherWatch }
            )
        );
        object On(object gate) =>
            new
            {
                conditions = new[]
                {
                    new
                    {
                        unit = unit.Id,
                        gate,
                        version = unit.Version,
                    },
                },
            };
        var inside = await School.Sql(connection =>
            connection.QueryFirstAsync<Guid>("SELECT lineage FROM item WHERE unit = @unit AND kind = 'task'", new { unit = unit.Id })
        );
        var refused = await Lead.Post(Route("set-conditions"), On(new { item = inside.ToString(), @is = "opened" }), Guid.NewGuid());
        refused.Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        Text(refused.Json["field"]).ShouldBe("conditions[0].gate");
        Text(refused.Json["title"]).ShouldContain("is in this unit itself");
        await Post("set-conditions", On(new { item = ids[0].Lineage, @is = "returned" }));
        var student = School.Ids["person:" + DemoPeople.HeldUp];
        var shut = (await Lead.Get(Route($"students/{student}"))).Json["items"]!
            .AsArray()
            .Where(item => Text(item!["unit"]) == "Storm season")
            .ToList();
        shut.ShouldNotBeEmpty();
        var outline = (await Lead.Get(Route("outline"))).Json["units"]!.AsArray();
        Text(outline.Single(one => one!["id"]!.GetValue<long>() == unit.Id)!["condition"]).ShouldStartWith("Opens when feedback on 2.12");
    }

    [Fact]
    public async Task Who_stands_where_agrees_with_each_student_s_own_page_and_those_of_others_are_not_shown()
    {
        var answer = await Conditions();
        answer["places"]!.AsArray().ShouldNotBeEmpty();
        var student = School.Ids["person:" + DemoPeople.HeldUp];
        var theirs = (await Lead.Get(Route($"students/{student}"))).Json["items"]!
            .AsArray()
            .ToDictionary(item => item!["id"]!.GetValue<long>(), item => Text(item!["state"]));
        var checkedPlaces = 0;
        foreach (var place in answer["places"]!.AsArray().Where(place => Text(place!["of"]) == "item"))
        {
            bool In(string which) =>
                place!["standing"]!.AsArray().Any(section => section![which]!.AsArray().Any(id => id!.GetValue<long>() == student));
            if (!theirs.TryGetValue(place!["id"]!.GetValue<long>(), out var state))
                continue;
            checkedPlaces++;
            if (In("before"))
                state.ShouldNotBeOneOf("open", "overdue");
            if (In("at"))
                state.ShouldBeOneOf("open", "overdue");
            if (state is "open" or "overdue")
                (In("at") || In("past")).ShouldBeTrue();
        }
        checkedPlaces.ShouldBeGreaterThan(3);
        var held = answer["places"]!
            .AsArray()
            .SelectMany(place => place!["standing"]!.AsArray())
            .SelectMany(section => section!["forFeedback"]!.AsArray())
            .ToList();
        held.ShouldContain(waits => waits!["student"]!.GetValue<long>() == student);

        using var co = await School.As(DemoPeople.CoTeacher);
        (await Conditions(co))["sections"]!.AsArray().Select(section => Text(section!["letter"])).ShouldNotContain("A");
    }

    [Fact]
    public async Task Is_it_ready_says_what_is_missing_until_it_is_mended()
    {
        var birch = School.Ids["section:9 Birch"];
        async Task<JsonNode> Ready(string query = "") => (await Lead.Get(Route($"ready/{birch}{query}"))).Json;
        static IReadOnlyList<JsonNode> Checks(JsonNode ready) =>
            [.. ready["groups"]!.AsArray().SelectMany(group => group!["checks"]!.AsArray()).Select(check => check!)];
        var (soon, whole) = (await Ready(), await Ready("?term=true"));
        soon["items"]!.GetValue<int>().ShouldBeInRange(1, whole["items"]!.GetValue<int>() - 1);
        Checks(soon).Count.ShouldBeInRange(1, Checks(whole).Count - 1);
        foreach (var ready in new[] { soon, whole })
        {
            ready["groups"]!.AsArray().ShouldAllBe(group => group!["checks"]!.AsArray().Count > 0);
            Checks(ready).ShouldAllBe(check => check["mend"]!["words"] != null);
            Checks(ready).Select(check => Text(check["words"])).ShouldBeUnique();
        }
        // Whoever is stuck with something that is due is there, and is stuck.
        var stuck = soon["groups"]!.AsArray().Single(group => Text(group!["title"]).StartsWith("Students who"))!["checks"]!.AsArray();
        stuck.ShouldContain(check => Text(check!["words"]).Contains("can’t open"));
        // What is mended is no longer there.
        var item = await School.Item("Isobars by hand");
        bool Lacks(JsonNode ready, string words) =>
            Checks(ready).Any(check => Text(check["words"]).Contains("Isobars by hand") && Text(check["words"]).Contains(words));
        Lacks(whole, "has no rubric").ShouldBeTrue();
        var purpose = await Post(
            "describe-item",
            new
            {
                item,
                purpose = "practice",
                before = (string?)null,
                version = await Version(item),
            }
        );
        Lacks(await Ready("?term=true"), "has no rubric").ShouldBeFalse();
        await Post("undo", new { batch = purpose.Json["batch"]!.GetValue<long>() });
        Lacks(await Ready("?term=true"), "has no rubric").ShouldBeTrue();
        // Fewer on one day are too many sooner.
        int Crowded(JsonNode ready) =>
            ready["groups"]!.AsArray().Where(group => Text(group!["title"]).StartsWith("Too much")).Sum(group => Count(group!["checks"]));
        Crowded(await Ready("?term=true&perDay=1")).ShouldBeGreaterThan(Crowded(await Ready("?term=true&perDay=5")));
        (await Lead.Get(Route($"ready/{birch}?perDay=0"))).Json["field"]!.GetValue<string>().ShouldBe("perDay");
    }
}
