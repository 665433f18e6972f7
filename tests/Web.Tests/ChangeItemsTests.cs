using System.Net;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Several items changed at once: each as by the command for one, all of them or none, undone together.</summary>
public sealed class ChangeItemsTests : LeadOfASchool
{
    private async Task<object[]> Items(params string[] titles)
    {
        var items = new List<object>();
        foreach (var title in titles)
        {
            var (id, version) = await CommandExamples.At(School, "item", title);
            items.Add(new { item = id, version });
        }
        return [.. items];
    }

    private async Task<object[]> Lessons(params string[] titles)
    {
        var lessons = new List<object>();
        foreach (var title in titles)
        {
            var (id, version) = await CommandExamples.At(School, "lesson", title);
            lessons.Add(new { lesson = id, version });
        }
        return [.. lessons];
    }

    // The lessons of each unit, each with its items, in order.
    private async Task<Dictionary<string, string[]>> Shape() =>
        (await Lead.Get(Route("outline"))).Json["units"]!
            .AsArray()
            .ToDictionary(
                unit => unit!["title"]!.GetValue<string>(),
                unit =>
                    unit!["lessons"]!
                        .AsArray()
                        .Select(lesson =>
                            string.Join(" | ", lesson!["items"]!.AsArray().Prepend(lesson).Select(one => one!["title"]!.GetValue<string>()))
                        )
                        .ToArray()
            );

    private async Task<string[]> Titles(string unit) =>
        [
            .. (await Lead.Get(Route("outline"))).Json["units"]!.AsArray().Single(one => one!["title"]!.GetValue<string>() == unit)![
                "lessons"
            ]!
                .AsArray()
                .SelectMany(lesson => lesson!["items"]!.AsArray())
                .Select(item => item!["title"]!.GetValue<string>()),
        ];

    [Fact]
    public async Task They_are_moved_in_the_order_in_which_they_stand_and_put_back_with_one_undo()
    {
        var before = await Titles("Fronts");
        var (unit, _) = await CommandExamples.At(School, "unit", "Fronts");
        var (lesson, _) = await CommandExamples.At(School, "lesson", "The warm front");
        var moved = before[^2..];
        var done = await Lead.Post(
            Route("change-items"),
            new
            {
                // Named the other way round.
                items = (await Items(moved)).Reverse(),
                place = new
                {
                    unit,
                    lesson,
                    after = (long?)null,
                },
            },
            Guid.NewGuid()
        );
        done.Status.ShouldBe(HttpStatusCode.OK, done.Text);
        done.Json["words"]!.GetValue<string>().ShouldBe("moved 2 items");
        var after = await Titles("Fronts");
        var at = Array.IndexOf(after, moved[0]);
        after[at + 1].ShouldBe(moved[1]);
        at.ShouldBeLessThan(Array.IndexOf(after, before[^3]));
        (await Lead.Post(Route("undo"), new { batch = done.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.OK
        );
        (await Titles("Fronts")).ShouldBe(before);
    }

    [Fact]
    public async Task What_others_refer_to_is_not_removed_unless_these_go_with_it()
    {
        var alone = await Lead.Post(Route("change-items"), new { items = await Items("Isobars by hand"), remove = true }, Guid.NewGuid());
        (alone.Status, alone.Json["detail"]!.GetValue<string>()).ShouldBe(
            (HttpStatusCode.Conflict, "Nothing was removed. Change their timing or condition first.")
        );
        var together = await Lead.Post(
            Route("change-items?preview=true"),
            new { items = await Items("Isobars by hand", "Arrows on the chart"), remove = true }
        );
        (together.Status, together.Json["act"]!.GetValue<string>()).ShouldBe((HttpStatusCode.OK, "Remove 2 items from 4 sections"));
    }

    [Fact]
    public async Task Whole_lessons_go_into_another_unit_with_their_items_and_come_back_with_one_undo()
    {
        var before = await Shape();
        var (unit, _) = await CommandExamples.At(School, "unit", "Storm season");
        var lessons = await Lessons("The warm front", "The cold front");
        var done = await Lead.Post(
            Route("change-items"),
            new
            {
                items = await Items("A slow ramp"),
                lessons,
                lessonsPlace = new { unit, after = (long?)null },
            },
            Guid.NewGuid()
        );
        done.Status.ShouldBe(HttpStatusCode.OK, done.Text);
        done.Json["words"]!.GetValue<string>().ShouldBe("moved 2 lessons");
        var after = await Shape();
        after["Storm season"]
            [..2]
            .ShouldBe(before["Fronts"].Where(lesson => lesson.StartsWith("The warm front") || lesson.StartsWith("The cold front")));
        after["Fronts"].ShouldBe(before["Fronts"].Except(after["Storm season"]));
        after["Storm season"][2..].ShouldBe(before["Storm season"]);
        await Lead.Post(Route("undo"), new { batch = done.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
        (await Shape())["Fronts"].ShouldBe(before["Fronts"]);
        (await Shape())["Storm season"].ShouldBe(before["Storm season"]);
    }

    [Fact]
    public async Task Rows_of_several_kinds_are_published_and_removed_together_but_do_not_move_to_one_place()
    {
        var (unit, version) = await CommandExamples.At(School, "unit", "Clouds by name");
        var body = new Dictionary<string, object>
        {
            ["items"] = await Items("A slow ramp"),
            ["lessons"] = await Lessons("The cold front"),
            ["units"] = new[] { new { unit, version } },
        };
        async Task<Reply> Ask(string what, object value) =>
            await Lead.Post(Route("change-items"), new Dictionary<string, object>(body) { [what] = value }, Guid.NewGuid());

        var moved = await Ask("unitsPlace", new { after = (long?)null });
        (moved.Status, moved.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "items"));

        var unpublished = await Ask("published", false);
        unpublished.Json["words"]!.GetValue<string>().ShouldBe("unpublished 1 unit, 1 lesson and 1 item");

        body["items"] = body["lessons"] = Array.Empty<object>();
        (unit, version) = await CommandExamples.At(School, "unit", "Clouds by name");
        body["units"] = new[] { new { unit, version } };
        var shape = await Shape();
        var first = await Ask("unitsPlace", new { after = (long?)null });
        first.Json["words"]!.GetValue<string>().ShouldBe("moved 1 unit");
        (await Shape()).Keys.First().ShouldBe("Clouds by name");
        var dated = await Ask("date", new { field = "closes", anchor = (object?)null });
        (dated.Status, dated.Json["title"]!.GetValue<string>()).ShouldBe(
            (HttpStatusCode.UnprocessableEntity, "Only items can be changed like this. Choose at least one.")
        );
        await Lead.Post(Route("undo"), new { batch = first.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
        (await Shape()).Keys.ShouldBe(shape.Keys);

        // What is in a lesson that goes is not said, or removed, twice.
        body.Remove("units");
        body["lessons"] = await Lessons("Warnings");
        body["items"] = await Items("Write a warning", "How far was it?");
        var removed = await Ask("remove", true);
        removed.Json["words"]!.GetValue<string>().ShouldBe("removed 1 lesson and 4 items");
        (await Shape())["Storm season"].ShouldNotContain(lesson => lesson.StartsWith("Warnings") || lesson.Contains("How far was it?"));
        await Lead.Post(Route("undo"), new { batch = removed.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
        (await Shape())["Storm season"].ShouldBe(shape["Storm season"]);
    }

    [Fact]
    public async Task One_thing_is_asked_for_at_a_time_and_one_that_was_changed_meanwhile_holds_up_all()
    {
        var items = await Items("A slow ramp", "Isobars by hand");
        foreach (
            var body in new object[]
            {
                new { items },
                new
                {
                    items,
                    published = true,
                    purpose = "practice",
                },
            }
        )
        {
            var refused = await Lead.Post(Route("change-items"), body, Guid.NewGuid());
            (refused.Status, refused.Json["field"]!.GetValue<string>()).ShouldBe(
                (HttpStatusCode.UnprocessableEntity, "items"),
                refused.Text
            );
        }
        await Lead.Post(Route("rename-item"), await CommandExamples.Rename(School), Guid.NewGuid());
        var (renamed, version) = await CommandExamples.At(School, "item", "Cloud diary");
        var stale = await Lead.Post(
            Route("change-items"),
            new { items = items.Append(new { item = renamed, version = version + 1 }), published = false },
            Guid.NewGuid()
        );
        stale.Status.ShouldBe(HttpStatusCode.Conflict, stale.Text);
        (await Lead.Get(Route("outline"))).Json["units"]!
            .AsArray()
            .SelectMany(unit => unit!["lessons"]!.AsArray().SelectMany(lesson => lesson!["items"]!.AsArray()))
            .Single(item => item!["title"]!.GetValue<string>() == "A slow ramp")!["published"]!
            .GetValue<bool>()
            .ShouldBeTrue();
    }

    [Fact]
    public async Task A_new_item_comes_to_stand_where_it_was_put()
    {
        var (unit, _) = await CommandExamples.At(School, "unit", "Fronts");
        var (lesson, _) = await CommandExamples.At(School, "lesson", "The warm front");
        var after = await School.Item("A slow ramp");
        foreach (var (title, place) in new[] { ("After the ramp", (long?)after), ("First of all", null) })
            (
                await Lead.Post(
                    Route("add-item"),
                    new
                    {
                        unit,
                        lesson,
                        kind = "page",
                        purpose = "to-read",
                        title,
                        section = (long?)null,
                        after = place,
                        first = place is null,
                    },
                    Guid.NewGuid()
                )
            ).Status.ShouldBe(HttpStatusCode.OK);
        var titles = await Titles("Fronts");
        titles[Array.IndexOf(titles, "A slow ramp") + 1].ShouldBe("After the ramp");
        Array.IndexOf(titles, "First of all").ShouldBeLessThan(Array.IndexOf(titles, "A slow ramp"));
    }

    [Fact]
    public async Task How_many_have_handed_in_is_counted_by_item_and_section()
    {
        var item = await School.Item("Isobars by hand");
        var counted = (await Lead.Get(Route("handed-in"))).Json;
        var row = counted["items"]!.AsArray().Single(one => one!["item"]!.GetValue<long>() == item)!;
        var counts = row["students"]!.AsArray().Select(count => count!.GetValue<int>()).ToArray();
        counts.Length.ShouldBe(counted["sections"]!.AsArray().Count);
        var bySection = await School.Sql(connection =>
            Dapper.SqlMapper.QueryAsync<(long Section, int Count)>(
                connection,
                "SELECT section, count(*)::int FROM work WHERE item = @item GROUP BY section",
                new { item }
            )
        );
        var expected = bySection.ToDictionary(one => one.Section, one => one.Count);
        counts.ShouldBe(counted["sections"]!.AsArray().Select(section => expected.GetValueOrDefault(section!.GetValue<long>())));
        counts.Sum().ShouldBeGreaterThan(20);
    }
}
