using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The same course on several timetables, what a section has otherwise, and putting it back.</summary>
public sealed class DatesTests : LeadOfASchool
{
    [Fact]
    public async Task One_item_has_a_date_of_its_own_in_every_section_and_what_does_not_fit_is_named()
    {
        var dates = (await Lead.Get(Route("dates"))).Json;
        var sections = dates["sections"]!.AsArray();
        sections
            .Select(section => $"{section!["name"]} {section["classes"]} {section["lacking"]}")
            .ShouldBe(["9 Alder 44 0", "9 Birch 36 8", "9 Cedar 22 0", "9 Dogwood 30 12"]);
        sections[3]!["toCheck"]!
            .AsArray()
            .Select(words => words!.GetValue<string>())
            .ShouldContain("“Warnings” does not fit, by 2 classes.");
        (await Cell("Cloud diary", 0))["due"]!["local"]!.GetValue<string>().ShouldBe("2026-10-07T10:40:00");
        (await Cell("Cloud diary", 1))["due"]!["local"]!.GetValue<string>().ShouldBe("2026-10-20T11:30:00");
        (await Cell("Cloud diary", 3))["differs"]!.AsArray().Single()!["field"]!.GetValue<string>().ShouldBe("due");
        (await Cell("Which storey?", 1))["held"]!.GetValue<bool>().ShouldBeTrue();
    }

    [Fact]
    public async Task One_due_is_changed_for_one_section_and_put_back_with_one_request()
    {
        var item = await School.Item("Cloud diary");
        var before = await Cell("Cloud diary", 0);
        var answer = await Adjust(Change("9 Alder", item, "2026-10-12"));
        answer.Json["reach"]!["sentence"]!
            .GetValue<string>()
            .ShouldBe("1 date moves in 9 Alder, for 24 students. 19 students have handed in work for it.");
        var changed = await Cell("Cloud diary", 0);
        changed["due"]!["words"]!.GetValue<string>().ShouldBe("Mon 12 Oct, 12:00");
        var difference = changed["differs"]!.AsArray().Single()!;
        difference["course"]!.ToJsonString().ShouldBe(before["due"]!.ToJsonString());
        var back = await Lead.Post(
            Route("differ"),
            new
            {
                changes = new[]
                {
                    new
                    {
                        section = School.Ids["section:9 Alder"],
                        of = "item",
                        target = item,
                        field = "due",
                        putBack = true,
                        value = (object?)null,
                        version = difference["version"]!.GetValue<long>(),
                    },
                },
            },
            Guid.NewGuid()
        );
        back.Json["words"]!.GetValue<string>().ShouldBe("put back “Cloud diary” in 9 Alder");
        (await Cell("Cloud diary", 0)).ToJsonString().ShouldBe(before.ToJsonString());
    }

    [Fact]
    public async Task As_a_table_for_a_spreadsheet_it_says_the_same_and_no_title_is_carried_out_as_a_formula()
    {
        var (item, version) = await CommandExamples.At(School, "item", "A slow ramp");
        await Lead.Post(
            Route("rename-item"),
            new
            {
                item,
                title = "=1+1, \"or\" so",
                version,
            },
            Guid.NewGuid()
        );
        var csv = (await Lead.Get(Route("dates.csv"))).Text;
        var lines = csv.TrimStart('\ufeff').Split("\r\n");
        lines[0].ShouldStartWith("Code,Title,Kind,9 Alder opens,9 Alder due,9 Alder closes,9 Birch opens");
        lines.ShouldContain(
            line => line.StartsWith("3.03,Cloud diary,task,2026-10-02 09:30,2026-10-07 10:40,,", StringComparison.Ordinal),
            csv
        );
        lines.ShouldContain(line => line.Contains("\"'=1+1, \"\"or\"\" so\"", StringComparison.Ordinal));
        lines.Length.ShouldBe((await Lead.Get(Route("dates"))).Json["units"]!.AsArray().Sum(unit => unit!["items"]!.AsArray().Count) + 2);
    }

    [Fact]
    public async Task Two_people_give_one_section_a_date_and_the_second_is_shown_both()
    {
        var item = await School.Item("Cloud diary");
        using var co = await School.As(DemoPeople.CoTeacher);
        await Adjust(Change("9 Alder", item, "2026-10-12"));
        var late = await co.Post(Route("differ"), new { changes = new[] { Change("9 Alder", item, "2026-10-13") } }, Guid.NewGuid());
        (late.Status, late.Code).ShouldBe((HttpStatusCode.Conflict, "changed-meanwhile"));
        late.Json["conflict"]!["by"]!.GetValue<string>().ShouldBe(DemoPeople.Lead);
        late.Json["conflict"]!["version"]!.GetValue<long>().ShouldBe(1);
        (await Cell("Cloud diary", 0))["due"]!["words"]!.GetValue<string>().ShouldBe("Mon 12 Oct, 12:00");
    }

    [Fact]
    public async Task The_same_change_for_all_sections_is_one_change_with_its_reach_and_one_undo()
    {
        var item = await School.Item("A slow ramp");
        var before = (await Lead.Get(Route("dates"))).Json["units"]!.ToJsonString();
        var changes = new[] { "9 Alder", "9 Birch", "9 Cedar", "9 Dogwood" }
            .Select(section => Change(section, item, "2026-11-20"))
            .ToArray();
        var shown = await Lead.Post(Route("differ?preview=true"), new { changes });
        shown.Json["reach"]!["sentence"]!.GetValue<string>().ShouldBe("4 dates move in all 4 sections, for 93 students.");
        var batch = (await Adjust(changes)).Json["batch"]!.GetValue<long>();
        (await Lead.Post(Route("undo"), new { batch }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await Lead.Get(Route("dates"))).Json["units"]!.ToJsonString().ShouldBe(before);
    }

    [Fact]
    public async Task A_longer_lesson_moves_what_comes_after_it_by_each_sections_own_classes()
    {
        var (lesson, version) = await CommandExamples.At(School, "lesson", "The ten families");
        var reply = await Lead.Post(
            Route("change-lesson"),
            new
            {
                lesson,
                title = "The ten families",
                classes = 2,
                shortest = (int?)null,
                optional = false,
                published = true,
                version,
            },
            Guid.NewGuid()
        );
        var moved = reply.Json["reach"]!["rows"]!
            .AsArray()
            .Where(row =>
                row!["name"]!.GetValue<string>().EndsWith("Film: three storeys of sky", StringComparison.Ordinal)
                && row["field"]!.GetValue<string>() == "opens"
            );
        moved
            .Select(row => $"{row!["section"]}: {row["before"]} → {row["after"]}")
            .ShouldBe(
            // In 9 Alder it has been taught, and what it took is known.
            [
                "9 Birch: Fri 16 Oct, 13:10 → Tue 20 Oct, 11:30",
                "9 Cedar: Thu 15 Oct, 10:40 → Wed 21 Oct, 11:30",
                "9 Dogwood: Mon 19 Oct, 14:00 → Thu 22 Oct, 14:00",
            ]);
    }

    private object Change(string section, long item, string date) =>
        new
        {
            section = School.Ids["section:" + section],
            of = "item",
            target = item,
            field = "due",
            putBack = false,
            value = new
            {
                at = "fixed",
                date,
                time = "12:00",
            },
            version = 0,
        };

    private async Task<Reply> Adjust(params object[] changes)
    {
        var reply = await Lead.Post(Route("differ"), new { changes }, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply;
    }

    private async Task<JsonNode> Cell(string title, int section) =>
        (await Lead.Get(Route("dates"))).Json["units"]!
            .AsArray()
            .SelectMany(unit => unit!["items"]!.AsArray())
            .Single(item => item!["title"]!.GetValue<string>() == title)!["cells"]![section]!;
}
