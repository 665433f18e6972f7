using System.Net;
using Dapper;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What is published is seen when it should be, and what could never be met is not asked for.</summary>
public sealed class PublishingTests : LeadOfASchool
{
    [Fact]
    public async Task An_item_whose_condition_hides_it_is_not_said_to_be_listed_before()
    {
        async Task<bool> Hidden(string title) =>
            (await Lead.Get(Route($"items/{await School.Item(title)}"))).Json["hiddenUntilMet"]!.GetValue<bool>();
        (await Hidden("Reading an ascent"), await Hidden("Clouds again"), await Hidden("Cloud diary")).ShouldBe((false, true, false));
        // The condition of its lesson hides it just as well.
        await School.Sql(connection =>
            connection.ExecuteAsync(
                "UPDATE lesson SET gate = jsonb_build_object('not', jsonb_build_object('group', 'Field team')) "
                    + "WHERE id = (SELECT lesson FROM item WHERE title = 'Cloud diary' AND edition = @WeatherWatch)",
                new { School.WeatherWatch }
            )
        );
        await Lead.Post(Route("rename-item"), await CommandExamples.Rename(School), Guid.NewGuid());
        (await Hidden("Cloud diary")).ShouldBeTrue();
    }

    [Fact]
    public async Task Something_new_opens_with_its_lesson_and_a_units_unpublished_items_are_published_together_each_with_its_moment()
    {
        var (unit, version) = await CommandExamples.At(School, "unit", "Fronts");
        var lesson = (await CommandExamples.At(School, "lesson", "The warm front")).Id;
        foreach (var (title, on) in new[] { ("On the lesson", (long?)lesson), ("On the unit", null) })
            (
                await Lead.Post(
                    Route("add-item"),
                    new
                    {
                        unit,
                        lesson = on,
                        kind = "page",
                        purpose = "to-read",
                        title,
                        section = (long?)null,
                    },
                    Guid.NewGuid()
                )
            ).Json["reach"]!["effect"]!.GetValue<string>().ShouldBe("none");
        var (first, second) = (await School.Item("On the lesson"), await School.Item("On the unit"));
        (await Opens(first), await Opens(second)).ShouldBe(("lesson-start", "unit-start"));
        var done = await Lead.Post(
            Route("publish-items"),
            new
            {
                unit,
                version,
                items = new object[]
                {
                    new
                    {
                        item = first,
                        opens = new
                        {
                            at = "fixed",
                            date = "2026-10-01",
                            time = "08:00",
                        },
                        version = 1,
                    },
                    new
                    {
                        item = second,
                        opens = new { at = "term-end" },
                        version = 1,
                    },
                },
            },
            Guid.NewGuid()
        );
        done.Json["reach"]!["sentence"]!
            .GetValue<string>()
            .ShouldBe(
                "4.06a On the lesson opens now in all 4 sections, for 93 students. 4.17 On the unit is listed from now on "
                    + "in all 4 sections, for 93 students. Opens later in all 4 sections, first Fri 18 Dec, 23:59 in 9 Alder."
            );
        (await Opens(first), await Opens(second)).ShouldBe(("fixed", "term-end"));
        // In a unit that is not published, published is not seen.
        var (storm, stormVersion) = await CommandExamples.At(School, "unit", "Storm season");
        (
            await Lead.Post(
                Route("change-unit"),
                new
                {
                    unit = storm,
                    title = "Storm season",
                    published = false,
                    before = (string?)null,
                    welcome = false,
                    version = stormVersion,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBeOneOf(HttpStatusCode.OK);
        var (rowed, rowVersion) = await School.Sql(connection =>
            connection.QueryFirstAsync<(long, long)>("SELECT id, version FROM item WHERE unit = @storm ORDER BY id", new { storm })
        );
        await Lead.Post(
            Route("publish-item"),
            new
            {
                item = rowed,
                published = true,
                version = rowVersion,
            },
            Guid.NewGuid()
        );
        var row = (await Lead.Get(Route("outline"))).Json["units"]!.AsArray().Single(one => one!["id"]!.GetValue<long>() == storm)![
            "lessons"
        ]!
            .AsArray()
            .SelectMany(one => one!["items"]!.AsArray())
            .Single(one => one!["id"]!.GetValue<long>() == rowed)!;
        (row["published"]!.GetValue<bool>(), row["behind"]!.GetValue<string>()).ShouldBe((true, "unit"));
    }

    [Fact]
    public async Task What_could_never_come_is_refused_where_it_is_made()
    {
        var (item, version) = await CommandExamples.At(School, "item", "Label the ramp");
        foreach (var (field, anchor) in new[] { ("due", "own-due"), ("opens", "own-opens") })
            (
                await Lead.Post(
                    Route("time-item"),
                    new
                    {
                        item,
                        field,
                        anchor = new { at = anchor },
                        version,
                    },
                    Guid.NewGuid()
                )
            ).Json["field"]!.GetValue<string>().ShouldBe("anchor");
        var page = await CommandExamples.Lineage(School, "A slow ramp");
        foreach (
            var gate in new object[]
            {
                new { item = page, @is = "returned" },
                new { item = page, scoreMin = 50 },
                new { item = page, @is = "submitted" },
            }
        )
            (
                await Lead.Post(
                    Route("condition-item"),
                    new
                    {
                        item,
                        gate,
                        version,
                    },
                    Guid.NewGuid()
                )
            ).Json["title"]!.GetValue<string>().ShouldContain("nobody could meet this");
        (
            await Lead.Post(
                Route("condition-item"),
                new
                {
                    item,
                    gate = new { item = page, @is = "opened" },
                    version,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
    }

    private async Task<string> Opens(long item) =>
        await School.Sql(connection =>
            connection.ExecuteScalarAsync<string>("SELECT opens ->> 'at' FROM item WHERE id = @item", new { item })
        ) ?? "";
}
