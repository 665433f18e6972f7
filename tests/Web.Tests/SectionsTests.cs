using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>All that a section does differently stands in one list, in words, and is put back from there.</summary>
public sealed class SectionsTests : LeadOfASchool
{
    [Fact]
    public async Task Every_difference_is_said_and_put_back_and_then_the_section_is_as_the_course()
    {
        (await Said("9 Birch")).ShouldBe([
            "3.03 Cloud diary opens at the start of “Wind from pressure”, not at the start of the lesson",
            "3.06 Which storey? is kept back",
        ]);
        (await Said("9 Cedar")).ShouldBe(["Fronts is the 3rd unit here"]);
        (await Said("9 Dogwood")).ShouldBe([
            "3.03 Cloud diary is due at the start of the 3rd class after the lesson, not at the start of the 2nd class after the lesson",
        ]);
        var alder = School.Ids["section:9 Alder"];
        var bare = (await Lead.Get(Route("dates"))).Json["units"]!.ToJsonString();
        var (lesson, _) = await CommandExamples.At(School, "lesson", "The warm front");
        var (after, _) = await CommandExamples.At(School, "lesson", "The cold front");
        await Post(
            "differ",
            new
            {
                changes = new object[]
                {
                    new
                    {
                        section = alder,
                        of = "lesson",
                        target = lesson,
                        field = "length",
                        putBack = false,
                        value = 3,
                        version = 0,
                    },
                    new
                    {
                        section = alder,
                        of = "lesson",
                        target = after,
                        field = "pin",
                        putBack = false,
                        value = "2026-11-20",
                        version = 0,
                    },
                    new
                    {
                        section = alder,
                        of = "unit",
                        target = (await CommandExamples.At(School, "unit", "Storm season")).Id,
                        field = "skip",
                        putBack = false,
                        value = true,
                        version = 0,
                    },
                    new
                    {
                        section = alder,
                        of = "item",
                        target = await School.Item("A slow ramp"),
                        field = "due",
                        putBack = false,
                        value = new
                        {
                            at = "lesson-end",
                            days = 2,
                            clock = "18:00",
                        },
                        version = 0,
                    },
                },
            }
        );
        await Post(
            "order-lesson",
            new
            {
                section = alder,
                lesson,
                after,
                version = 0,
            }
        );
        await Post(
            "change-classes",
            new
            {
                section = alder,
                change = new { cancel = new { date = "2026-10-12" } },
                putBack = (int?)null,
                version = 0,
            }
        );
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
        (await Lead.Get(Route("dates"))).Json["units"]!.ToJsonString().ShouldBe(bare);
    }

    [Fact]
    public async Task A_unit_a_lesson_and_an_item_of_one_section_are_there_and_nowhere_else()
    {
        var (birch, alder) = (School.Ids["section:9 Birch"], School.Ids["section:9 Alder"]);
        var dates = (await Lead.Get(Route("dates"))).Json;
        var (fronts, _) = await CommandExamples.At(School, "unit", "Fronts");
        var (warm, _) = await CommandExamples.At(School, "lesson", "The warm front");
        await Post(
            "add-unit",
            new
            {
                title = "The sea breeze",
                after = fronts,
                section = birch,
            }
        );
        await Post(
            "add-lesson",
            new
            {
                unit = fronts,
                title = "Fronts once more",
                classes = 2,
                after = warm,
                section = birch,
            }
        );
        var (breeze, _) = await CommandExamples.At(School, "unit", "The sea breeze");
        var (again, _) = await CommandExamples.At(School, "lesson", "Fronts once more");
        await Post(
            "add-lesson",
            new
            {
                unit = breeze,
                title = "Land and water",
                classes = 1,
                after = (long?)null,
                section = (long?)null,
            }
        );
        await Post(
            "add-item",
            new
            {
                unit = fronts,
                lesson = again,
                kind = "task",
                purpose = "practice",
                title = "A second ramp",
                section = (long?)null,
            }
        );
        await Post(
            "add-item",
            new
            {
                unit = fronts,
                lesson = warm,
                kind = "page",
                purpose = "to-read",
                title = "For Birch",
                section = birch,
            }
        );
        (await Said("9 Birch"))
            .Where(said => said.Contains("only", StringComparison.Ordinal))
            .ShouldBe(
                [
                    "The sea breeze is a unit for this section only",
                    "Fronts once more is a lesson for this section only",
                    "Land and water is a lesson for this section only",
                    "+1 A second ramp is an item for this section only",
                    "+2 For Birch is an item for this section only",
                ],
                ignoreOrder: true
            );
        var order = (await Card("9 Birch"))["units"]!
            .AsArray()
            .Select(unit => $"{unit!["title"]}: {string.Join(", ", unit["lessons"]!.AsArray().Select(lesson => lesson!["title"]))}")
            .ToList();
        order[4].ShouldBe("The sea breeze: Land and water");
        order[3].ShouldContain("The warm front, Fronts once more, ");
        // No other section's dates are touched, and its students see nothing of it.
        foreach (var row in dates["units"]!.AsArray().SelectMany(unit => unit!["items"]!.AsArray()))
            JsonNode
                .DeepEquals((await Row(row!["title"]!.GetValue<string>()))["cells"]![0], row["cells"]![0])
                .ShouldBeTrue(row["title"]!.GetValue<string>());
        (await Row("A second ramp"))["cells"]!.AsArray().Select(cell => (bool)cell!["absent"]!).ShouldBe([true, false, true, true]);
        var ramp = await School.Item("A second ramp");
        await Post(
            "publish-item",
            new
            {
                item = ramp,
                published = true,
                version = 1,
            }
        );
        async Task<HttpStatusCode> Seen(long section) =>
            (await Lead.Get($"/api/sections/{section}/items/{ramp}?as=pretend:{section}&at=2026-12-17T12:00:00Z")).Status;
        (await Seen(birch), await Seen(alder)).ShouldBe((HttpStatusCode.OK, HttpStatusCode.NotFound));
        // What others have cannot stand in it, hang on it, or differ in it.
        var (shared, version) = await CommandExamples.At(School, "item", "A slow ramp");
        (
            await Refused(
                "move-item",
                new
                {
                    item = shared,
                    unit = fronts,
                    lesson = again,
                    after = (long?)null,
                    version,
                }
            )
        ).ShouldBe("lesson");
        (
            await Refused(
                "add-item",
                new
                {
                    unit = fronts,
                    lesson = again,
                    kind = "page",
                    purpose = "to-read",
                    title = "For Alder",
                    section = alder,
                }
            )
        ).ShouldBe("lesson");
        (
            await Refused(
                "condition-item",
                new
                {
                    item = shared,
                    gate = new { item = (await CommandExamples.Lineage(School, "A second ramp")), @is = "returned" },
                    version,
                }
            )
        ).ShouldBe("gate");
        (
            await Lead.Post(
                Route("differ"),
                new
                {
                    changes = new[]
                    {
                        new
                        {
                            section = alder,
                            of = "item",
                            target = ramp,
                            field = "hold",
                            putBack = false,
                            value = true,
                            version = 0,
                        },
                    },
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.NotFound);
        // What it hangs on is not removed from under it.
        var (cold, coldVersion) = await CommandExamples.At(School, "item", "Before, during, after");
        var own = (await Row("For Birch"))["item"]!.GetValue<long>();
        await Post(
            "condition-item",
            new
            {
                item = own,
                gate = new { item = await CommandExamples.Lineage(School, "Before, during, after"), @is = "returned" },
                version = 1,
            }
        );
        (await Lead.Post(Route("remove-item"), new { item = cold, version = coldVersion }, Guid.NewGuid())).Code.ShouldBe("in-use");
        // Rolled over, it stays behind.
        (await Lead.Get(Route("outline"))).Text.ShouldContain("\"only\":\"B\"");
        foreach (var command in new[] { "remove-unit", "remove-lesson" })
            await Post(command, command == "remove-unit" ? new { unit = breeze, version = 1 } : new { lesson = again, version = 1 });
        (await Said("9 Birch")).Count(said => said.Contains("only", StringComparison.Ordinal)).ShouldBe(1);
    }

    [Fact]
    public async Task For_a_lost_class_what_to_drop_is_chosen_and_using_a_spare_says_when()
    {
        var section = School.Ids["section:9 Alder"];
        var ways = (await Lead.Get(Route($"ways?section={section}&from=2026-10-23T09:30&to=2026-10-23T09:30"))).Json;
        string[] Titles(string way) => [.. ways[way]!.AsArray().Select(one => $"{one!["title"]}, {one["when"]}")];
        Titles("spare").ShouldBe(["The cold front, Wed 16 Dec, 10:40"]);
        Titles("drop").Take(2).ShouldBe(["What makes a storm, Wed 2 Dec, 10:40", "Thunder and distance, Fri 4 Dec, 09:30"]);
        ways["drop"]!.AsArray().Select(one => one!["meant"]!.GetValue<bool>()).ShouldBe([true, false, false, false, false]);
        object Lose(string how, params object[] drop) =>
            new
            {
                section,
                classes = new[] { new { date = "2026-10-23", start = "09:30" } },
                how,
                drop = drop.Length > 0 ? drop : null,
            };
        async Task<JsonNode> Shown(object request) => (await Lead.Post($"{Route("lose-classes")}?preview=true", request)).Json;
        (await Shown(Lose("spare")))["words"]!
            .GetValue<string>()
            .ShouldEndWith("“The cold front” is taught in the spare class on 16 Dec instead");
        var surge = ways["drop"]![2]!["id"]!.GetValue<long>();
        var shown = await Shown(Lose("drop", surge));
        shown["words"]!.GetValue<string>().ShouldEndWith(": made up for by dropping “Surge and tide”");
        // Dates say when they were and come to be, for a table in the order of time.
        var row = shown["reach"]!["rows"]!.AsArray().First(one => one!["field"]!.GetValue<string>() == "opens")!;
        (row["from"]!.GetValue<string>(), row["to"]!.GetValue<string>(), row["kind"]!.GetValue<string>()).ShouldBe(
            ("2026-10-23T09:30", "2026-11-02T08:40", "page")
        );
        await Post("lose-classes", Lose("drop", surge));
        (await Said("9 Alder")).ShouldContain("Surge and tide is dropped here");
        var front = (await CommandExamples.At(School, "lesson", "A week of charts")).Id;
        (
            await Refused(
                "lose-classes",
                new
                {
                    section,
                    classes = new[] { new { date = "2026-11-02", start = "08:40" } },
                    how = "drop",
                    drop = new[] { front },
                }
            )
        ).ShouldBe("drop[0]");
        (
            await Refused(
                "lose-classes",
                new
                {
                    section,
                    classes = new[] { new { date = "2026-11-02", start = "08:40" } },
                    how = "spare",
                    drop = new[] { front },
                }
            )
        ).ShouldBe("drop");
        (await Lead.Get(Route($"ways?section={section}&from=tomorrow&to=2026-10-23T09:30"))).Json["field"]!
            .GetValue<string>()
            .ShouldBe("from");
    }

    [Fact]
    public async Task What_others_changed_is_shown_until_one_has_seen_it()
    {
        using var co = await School.As(DemoPeople.CoTeacher);
        await Lead.Post(Route("rename-item"), await CommandExamples.Rename(School), Guid.NewGuid());
        var mine = await co.Post(Route("order-unit"), await CommandExamples.All["order-unit"](School), Guid.NewGuid());
        var changed = (await Lead.Get(Route("today"))).Json["changed"]!.AsArray();
        changed
            .Select(change => $"{change!["author"]} {change["words"]}")
            .ShouldBe([$"{DemoPeople.CoTeacher} made “Storm season” the 5th unit in 9 Dogwood"]);
        (await Lead.Post(Route("mark-changes-seen"), new { batch = mine.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.OK
        );
        (await Lead.Get(Route("today"))).Json["changed"]!.AsArray().ShouldBeEmpty();
        (await co.Get(Route("today"))).Json["changed"]!.AsArray().Count.ShouldBe(1);
    }

    private async Task PutBack(long section, JsonNode difference)
    {
        var (target, version) = (difference["target"]!.GetValue<long>(), difference["version"]!.GetValue<long>());
        await (
            difference["kind"]!.GetValue<string>() switch
            {
                "class" => Post(
                    "change-classes",
                    new
                    {
                        section,
                        change = (object?)null,
                        putBack = difference["seq"]!.GetValue<int>(),
                        version,
                    }
                ),
                "order" => Post(
                    "order-lesson",
                    new
                    {
                        section,
                        lesson = target,
                        after = (long?)null,
                        version,
                    }
                ),
                _ => Post(
                    "differ",
                    new
                    {
                        changes = new[]
                        {
                            new
                            {
                                section,
                                of = difference["of"]!.GetValue<string>(),
                                target,
                                field = difference["field"]!.GetValue<string>(),
                                putBack = true,
                                value = (object?)null,
                                version,
                            },
                        },
                    }
                ),
            }
        );
    }

    private async Task<string?> Refused(string command, object body)
    {
        var reply = await Lead.Post(Route(command), body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, reply.Text);
        return reply.Json["field"]?.GetValue<string>();
    }

    private async Task<JsonNode> Row(string title) =>
        (await Lead.Get(Route("dates"))).Json["units"]!
            .AsArray()
            .SelectMany(unit => unit!["items"]!.AsArray())
            .Single(row => row!["title"]!.GetValue<string>() == title)!;

    private async Task<IEnumerable<string>> Said(string section) =>
        (await Card(section))["differences"]!.AsArray().Select(one => $"{one!["title"]} {one["words"]}");

    private async Task<JsonNode> Card(string section) =>
        (await Lead.Get(Route("sections"))).Json["sections"]!.AsArray().Single(one => one!["name"]!.GetValue<string>() == section)!;
}
