using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Why a student can or cannot see an item, and what opens it from there.</summary>
public sealed class WhyTests : LeadOfASchool
{
    private long Id(string student) => School.Ids["person:" + student];

    private async Task<JsonNode> Why(string student, long item, string query = "") =>
        (await Lead.Get(Route($"students/{Id(student)}/items/{item}/why{query}"))).Json;

    private async Task<IReadOnlyList<JsonNode>> Items(string student, string query = "") =>
        [.. (await Lead.Get(Route($"students/{Id(student)}{query}"))).Json["items"]!.AsArray().Select(item => item!)];

    private static string Text(JsonNode? node) => node!.GetValue<string>();

    private static IEnumerable<string> Texts(JsonNode? list) => list!.AsArray().Select(Text);

    private static JsonNode Mend(JsonNode why, string kind) => why["mends"]!.AsArray().Single(mend => Text(mend!["kind"]) == kind)!;

    private async Task Done(string command, object body)
    {
        var reply = await Lead.Post(Route(command), body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
    }

    private Task Hold(long item, bool isHeld) =>
        Done(
            "differ",
            new
            {
                changes = new[]
                {
                    new
                    {
                        section = School.Ids["section:9 Birch"],
                        of = "item",
                        target = item,
                        field = "hold",
                        putBack = !isHeld,
                        value = isHeld ? (bool?)true : null,
                        version = 0,
                    },
                },
            }
        );

    [Theory]
    [InlineData("")]
    [InlineData("?at=2026-10-20T09:00:00Z")]
    public async Task It_agrees_with_how_the_item_stands_for_them(string query)
    {
        var states = new HashSet<string>();
        foreach (var student in new[] { DemoPeople.HeldUp, DemoPeople.JoinedLate, DemoPeople.InTwoSections })
        foreach (var item in await Items(student, query))
        {
            var why = await Why(student, item["id"]!.GetValue<long>(), query);
            var state = Text(item["state"]);
            Text(why["state"]).ShouldBe(state);
            Text(why["title"]).ShouldBe(Text(item["title"]));
            (why["inTheWay"]!.AsArray().Count == 0).ShouldBe(state is "open" or "overdue");
            why["dates"]!.AsArray().ShouldAllBe(date => date!["steps"]!.AsArray().Count > 0);
            states.Add(state);
        }
        states.ShouldBeSubsetOf([
            "open",
            "overdue",
            "closed",
            "upcoming",
            "locked",
            "excused",
            "withdrawn",
            "unpublished",
            "held",
            "unscheduled",
        ]);
        states.Count.ShouldBeGreaterThan(4);
    }

    [Fact]
    public async Task What_waits_for_feedback_says_so_part_by_part_and_opens_for_the_student_alone()
    {
        var locked = new List<JsonNode>();
        foreach (var item in (await Items(DemoPeople.HeldUp)).Where(item => Text(item["state"]) == "locked"))
            locked.Add(await Why(DemoPeople.HeldUp, item["id"]!.GetValue<long>()));
        var why = locked.First(one => one["mends"]!.AsArray().Any(mend => Text(mend!["kind"]) == "give-back"));
        Texts(why["inTheWay"]).First().ShouldStartWith("The item opens only when feedback on 2.12 Isobars by hand is given back");
        var lines = why["conditions"]![0]!["lines"]!.AsArray();
        lines.ShouldContain(line => Text(line!["words"]).StartsWith("feedback on ") && Text(line["outcome"]) == "not-met");
        Mend(why, "give-back")["items"]!.AsArray().Count.ShouldBeGreaterThan(0);
        Text(Mend(why, "open-for-student")["words"]).ShouldBe("open it for Davit Lindqvist alone");
        var item2 = why["item"]!.GetValue<long>();
        await Done(
            "for-students",
            new
            {
                students = new[] { Id(DemoPeople.HeldUp) },
                items = new[] { item2 },
                change = "open",
                days = (int?)null,
                until = (string?)null,
            }
        );
        var opened = await Why(DemoPeople.HeldUp, item2);
        Text(opened["state"]).ShouldBeOneOf("open", "overdue");
        opened["conditions"]![0]!["isOpened"]!.GetValue<bool>().ShouldBeTrue();
        opened["mends"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public async Task What_the_section_does_differently_is_mended_as_it_is_proposed()
    {
        var item = (await Items(DemoPeople.HeldUp)).First(one => Text(one["state"]) == "open")["id"]!.GetValue<long>();
        await Hold(item, true);
        var held = await Why(DemoPeople.HeldUp, item);
        Texts(held["inTheWay"]).ShouldBe(["The item is kept back in this section."]);
        Text(Mend(held, "put-back-hold")["words"]).ShouldEndWith("in this section");
        await Done("differ", new { changes = Mend(held, "put-back-hold")["changes"] });
        Text((await Why(DemoPeople.HeldUp, item))["state"]).ShouldBe("open");

        // What is still to come can be let open at once, which its later version then says.
        var upcoming = (await Items(DemoPeople.HeldUp)).First(one => Text(one["state"]) == "upcoming")["id"]!.GetValue<long>();
        var why = await Why(DemoPeople.HeldUp, upcoming);
        Texts(why["inTheWay"]).First().ShouldStartWith("It opens only on ");
        Text(why["since"]).ShouldStartWith("If nothing else changes, it opens on ");
        await Done("differ", new { changes = Mend(why, "move-opening")["changes"] });
        Text((await Why(DemoPeople.HeldUp, upcoming))["state"]).ShouldBeOneOf("open", "locked", "overdue");
    }

    [Fact]
    public async Task Of_a_section_it_is_said_by_reason_who_can_and_only_to_whom_they_are_theirs()
    {
        var item = await School.Item("Arrows on the chart");
        var sections = (await Lead.Get(Route($"items/{item}/who-can"))).Json["sections"]!.AsArray();
        sections.Select(section => Text(section!["name"])).ShouldContain("9 Birch");
        foreach (var section in sections)
        {
            var groups = section!["groups"]!.AsArray().Select(group => group!).ToList();
            groups.SelectMany(group => group["students"]!.AsArray()).Select(one => one!["student"]!.GetValue<long>()).ShouldBeUnique();
            groups
                .Where(group => !group["canOpen"]!.GetValue<bool>())
                .Select(group => -group["students"]!.AsArray().Count)
                .ShouldBeInOrder();
            // What is said of a group is so for each of it.
            foreach (var group in groups)
            {
                var first = group["students"]![0]!["student"]!.GetValue<long>();
                var why = (await Lead.Get(Route($"students/{first}/items/{item}/why"))).Json;
                (why["inTheWay"]!.AsArray().Count == 0).ShouldBe(group["canOpen"]!.GetValue<bool>());
            }
        }
        var birch = sections.Single(section => Text(section!["name"]) == "9 Birch")!["groups"]!.AsArray();
        birch.Single(group => group!["students"]!.AsArray().Any(one => Text(one!["name"]) == DemoPeople.HeldUp))!["reason"]!
            .GetValue<string>()
            .ShouldContain("feedback on 2.12 Isobars by hand is given back");
        using var co = await School.As(DemoPeople.CoTeacher);
        (await co.Get(Route($"items/{item}/who-can"))).Json["sections"]!
            .AsArray()
            .Select(section => Text(section!["name"]))
            .ShouldBeSubsetOf(["9 Birch", "9 Cedar", "9 Dogwood"]);
    }

    [Fact]
    public async Task Each_date_of_a_section_is_where_its_steps_end_and_the_days_without_a_class_on_the_way_are_named()
    {
        var past = new List<string>();
        foreach (var title in new[] { "Isobars by hand", "Arrows on the chart", "Label the ramp", "A slow ramp" })
        {
            var item = await School.Item(title);
            foreach (var section in (await Lead.Get(Route($"items/{item}"))).Json["sections"]!.AsArray())
            {
                var path = (await Lead.Get(Route($"items/{item}/date-path/{section!["section"]!.GetValue<long>()}"))).Json;
                foreach (var (what, field) in new[] { ("Opens", "opens"), ("Due", "due") })
                {
                    if (section[field] is not { } date)
                        continue;
                    var steps = path["dates"]!.AsArray().Single(one => Text(one!["what"]) == what)!["steps"]!.AsArray();
                    Text(steps[^1]!["moment"]!["instant"]).ShouldBe(Text(date["instant"]));
                    past.AddRange(steps.Select(step => Text(step!["words"])));
                }
            }
        }
        past.ShouldContain(words => words.Contains("no class from Mon 26 Oct to Fri 30 Oct"));
    }
}
