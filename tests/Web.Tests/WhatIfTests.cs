using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>
/// What if: a threshold moved, a step dropped, feedback given. Nothing is written, and what is said comes true once it is done.
/// </summary>
public sealed class WhatIfTests : LeadOfASchool
{
    private static string Text(JsonNode? node) => node!.GetValue<string>();

    private async Task<JsonNode> Suppose(object what, HttpStatusCode status = HttpStatusCode.OK)
    {
        var before = await School.RowCounts();
        var reply = await Lead.Post(Route("what-if"), what);
        reply.Status.ShouldBe(status, reply.Text);
        (await School.RowCounts()).ShouldBe(before);
        return reply.Json;
    }

    private static JsonNode? Change(JsonNode answer, string section, string code) =>
        answer["sections"]!.AsArray().Single(one => Text(one!["name"]) == section)!["changes"]!
            .AsArray()
            .SingleOrDefault(change => Text(change!["code"]) == code);

    private static IReadOnlyList<string> Names(JsonNode? change, string which) =>
        [.. (change?[which]?.AsArray() ?? []).Select(one => Text(one!["name"]))];

    private async Task<string> StateOf(string title, string student)
    {
        var id = School.Ids["person:" + student];
        return Text((await Lead.Get(Route($"students/{id}/items/{await School.Item(title)}/why"))).Json["state"]);
    }

    [Fact]
    public async Task Feedback_that_is_supposed_opens_for_those_whose_work_waits()
    {
        var isobars = await School.Item("Isobars by hand");
        var opens = Names(Change(await Suppose(new { giveBack = isobars }), "9 Birch", "2.15"), "opens");
        opens.ShouldContain(DemoPeople.HeldUp);
        var today = (await Lead.Get(Route("today"))).Json["sections"]!.AsArray().Single(one => Text(one!["name"]) == "9 Birch")!;
        today["freeing"]!.AsArray().Single(one => one!["item"]!.GetValue<long>() == isobars)!["pieces"]!
            .GetValue<int>()
            .ShouldBe(opens.Count);
        (await StateOf("Arrows on the chart", DemoPeople.HeldUp)).ShouldBe("locked");
    }

    [Fact]
    public async Task A_step_that_is_dropped_lets_on_who_waited_at_it_and_does_so_once_it_is()
    {
        var isobars = await School.Item("Isobars by hand");
        var dropped = await Suppose(new { drop = isobars });
        var opens = Names(Change(dropped, "9 Birch", "2.15"), "opens");
        opens.ShouldContain(DemoPeople.HeldUp);
        Change(dropped, "9 Birch", "2.12").ShouldBeNull();
        await Post(
            "differ",
            new
            {
                changes = new[]
                {
                    new
                    {
                        section = School.Ids["section:9 Birch"],
                        of = "item",
                        target = isobars,
                        field = "skip",
                        putBack = false,
                        value = true,
                        version = 0,
                    },
                },
            }
        );
        (await StateOf("Arrows on the chart", DemoPeople.HeldUp)).ShouldBeOneOf("open", "overdue");
        // It is so there now; in the others it would still be.
        var again = await Suppose(new { drop = isobars });
        Change(again, "9 Birch", "2.15").ShouldBeNull();
        Names(Change(again, "9 Alder", "2.15"), "opens").ShouldBe(Names(Change(dropped, "9 Alder", "2.15"), "opens"));
    }

    [Fact]
    public async Task A_threshold_that_is_moved_changes_the_side_of_those_between_and_of_nobody_else()
    {
        var (quiz, ramp) = (await School.Item("Reading scales"), await School.Item("A slow ramp"));
        var lineage = await CommandExamples.Lineage(School, "Reading scales");
        object Gate(int min) =>
            new
            {
                item = lineage,
                scoreMin = min,
                latch = false,
            };
        var version = (await CommandExamples.At(School, "item", "A slow ramp")).Version;
        await Post(
            "condition-item",
            new
            {
                item = ramp,
                gate = Gate(60),
                version,
            }
        );
        var reached = (await Lead.Get(Route($"items/{quiz}/scores-reached"))).Json;
        var scored = reached["scored"]!.AsArray();
        scored.Select(one => one!["score"]!.GetValue<decimal>()).ShouldBeInOrder(SortDirection.Descending);
        var between = scored
            .Where(one => one!["score"]!.GetValue<decimal>() is >= 60 and < 90)
            .Select(one => $"{Text(one!["section"])} {Text(one["name"])}")
            .ToHashSet();
        between.Count.ShouldBeGreaterThan(0);
        var moved = await Suppose(
            new
            {
                condition = new
                {
                    of = "item",
                    place = ramp,
                    gate = Gate(90),
                },
            }
        );
        var closes = moved["sections"]!
            .AsArray()
            .SelectMany(section =>
                Names(Change(moved, Text(section!["name"]), "4.04"), "closes").Select(name => $"{Text(section["letter"])} {name}")
            )
            .ToHashSet();
        // To those to whom it is not open at all nothing closes.
        closes.IsSubsetOf(between).ShouldBeTrue();
        moved["sections"]!.AsArray().ShouldAllBe(section => Names(Change(moved, Text(section!["name"]), "4.04"), "opens").Count == 0);
    }

    [Fact]
    public async Task One_thing_is_supposed_at_a_time_of_something_that_is_there()
    {
        var isobars = await School.Item("Isobars by hand");
        foreach (var what in new object[] { new { }, new { drop = isobars, giveBack = isobars } })
            Text((await Suppose(what, HttpStatusCode.UnprocessableEntity))["field"]).ShouldBe("drop");
        Text((await Suppose(new { giveBack = 999_999 }, HttpStatusCode.NotFound))["field"]).ShouldBe("giveBack");
        var itself = new
        {
            condition = new
            {
                of = "item",
                place = isobars,
                gate = new { item = await CommandExamples.Lineage(School, "Isobars by hand"), @is = "opened" },
            },
        };
        Text((await Suppose(itself, HttpStatusCode.UnprocessableEntity))["field"]).ShouldBe("condition.gate");
        // A teacher is told of their own students only.
        using var co = await School.As(DemoPeople.CoTeacher);
        (await co.Post(Route("what-if"), new { giveBack = isobars })).Json["sections"]!
            .AsArray()
            .Select(section => Text(section!["name"]))
            .ShouldBe(["9 Dogwood"]);
    }
}
