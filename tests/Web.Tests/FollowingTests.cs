using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A section stops following a course and follows it again, with everything that is in it: nothing of anybody's is lost.</summary>
public sealed class FollowingTests : LeadOfASchool
{
    private long Alder => School.Ids["section:9 Alder"];

    private static string At(long edition, string rest) => $"/api/editions/{edition}/{rest}";

    // Hand-ins, scores, feedback and drafts, by student and by what the item is called.
    private Task<string> Work() =>
        School.Sql(async connection =>
            string.Join(
                '\n',
                await connection.QueryAsync<string>(
                    """
                    SELECT line FROM (
                      SELECT concat_ws(' ', 'fact', f.person, i.title, f.event, f.at, f.score, f.again) AS line
                      FROM fact f JOIN item i ON i.id = f.item WHERE f.section = @Alder
                      UNION ALL
                      SELECT concat_ws(' ', 'work', w.person, i.title, v.n, v.text) FROM work w
                      JOIN item i ON i.id = w.item JOIN work_version v ON v.work = w.id WHERE w.section = @Alder
                      UNION ALL
                      SELECT concat_ws(' ', 'feedback', w.person, i.title, b.n, b.text) FROM work w
                      JOIN item i ON i.id = w.item JOIN feedback b ON b.work = w.id WHERE w.section = @Alder
                      UNION ALL
                      SELECT concat_ws(' ', 'draft', d.person, i.title, d.text) FROM draft d JOIN item i ON i.id = d.item
                    ) lines ORDER BY line
                    """,
                    new { Alder }
                )
            )
        );

    private async Task<string> Page(Caller student) => Plain((await student.Get($"/api/sections/{Alder}/now")).Json);

    // What a student sees, without the numbers of rows and the course's name.
    private static string Plain(JsonNode? node) =>
        node switch
        {
            JsonObject row => string.Concat(
                row.Where(field =>
                        field.Key is not ("item" or "id" or "unitId" or "version" or "course" or "edition" or "title" or "moment" or "at")
                    )
                    .Select(field => $"{field.Key}:{Plain(field.Value)} ")
            ),
            JsonArray list => string.Join("\n", list.Select(Plain)),
            _ => node?.ToString() ?? "",
        };

    private async Task<(long Edition, long Batch)> Stop()
    {
        var stopped = await Post("stop-following", (await CommandExamples.Stop(School))!);
        var own = await School.Sql(connection =>
            connection.ExecuteScalarAsync<long>("SELECT edition FROM section WHERE id = @Alder", new { Alder })
        );
        own.ShouldNotBe(School.WeatherWatch);
        return (own, stopped.Json["batch"]!.GetValue<long>());
    }

    private async Task<Reply> Join(string? from = "2026-08-31", params object[] homes) =>
        await Lead.Post(
            Route("join-section"),
            new
            {
                section = Alder,
                version = (await Check())["version"]!.GetValue<long>(),
                from,
                homes,
            },
            Guid.NewGuid()
        );

    private async Task<JsonNode> Check() => (await Lead.Get(Route($"join-check?section={Alder}&from=2026-08-31"))).Json;

    private async Task<IEnumerable<string>> Faults() =>
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).Select(fault => fault.Words);

    [Fact]
    public async Task A_section_that_stops_keeps_everything_and_its_students_see_no_difference()
    {
        using var student = await School.As(DemoPeople.OnTrack);
        var (work, page) = (await Work(), await Page(student));
        var sentence = (await Lead.Post(Route("stop-following?preview=true"), (await CommandExamples.Stop(School))!)).Json["reach"]![
            "sentence"
        ]!;
        sentence.GetValue<string>().ShouldContain("24 students");
        (await Work()).ShouldBe(work);

        var (own, batch) = await Stop();
        (await Work()).ShouldBe(work);
        (await Page(student)).ShouldBe(page);
        (await Lead.Get(At(own, "outline"))).Json["canChange"]!.GetValue<bool>().ShouldBeTrue();
        (await Lead.Get(Route("sections"))).Text.ShouldNotContain("9 Alder");
        (await Faults()).ShouldBeEmpty();

        // Undone, redone, undone: the work goes along each time.
        for (var round = 0; round < 3; round++)
        {
            var undone = await Lead.Post(Route("undo"), new { batch }, Guid.NewGuid());
            undone.Status.ShouldBe(HttpStatusCode.OK, undone.Text);
            batch = undone.Json["batch"]!.GetValue<long>();
            (await Work()).ShouldBe(work);
            (await Page(student)).ShouldBe(page);
        }
        (await Lead.Get(Route("sections"))).Text.ShouldContain("9 Alder");
        // The course that was made for it is nobody's now.
        (await Lead.Get("/api/places")).Text.ShouldNotContain("Weather Watch, 9 Alder");
        (await Faults()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Followed_again_what_is_the_same_goes_together_and_what_is_its_own_stays_with_its_work()
    {
        using var student = await School.As(DemoPeople.OnTrack);
        var page = await Page(student);
        var (own, _) = await Stop();
        var unit = (await Lead.Get(At(own, "outline"))).Json["units"]![0]!["id"]!.GetValue<long>();
        var added = await Lead.Post(
            At(own, "add-item"),
            new
            {
                unit,
                lesson = (long?)null,
                kind = "task",
                purpose = "practice",
                title = "Only ours",
                section = (long?)null,
            },
            Guid.NewGuid()
        );
        added.Status.ShouldBe(HttpStatusCode.OK, added.Text);
        var ours = await School.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT id FROM item WHERE title = 'Only ours'"));
        await Lead.Post(
            At(own, "publish-item"),
            new
            {
                item = ours,
                published = true,
                version = 1,
            },
            Guid.NewGuid()
        );
        var handed = await student.Post(
            $"/api/sections/{Alder}/hand-in",
            new
            {
                item = ours,
                text = "Written for us alone",
                pressedAt = (string?)null,
            },
            Guid.NewGuid()
        );
        handed.Status.ShouldBe(HttpStatusCode.OK, handed.Text);
        var work = await Work();

        var check = await Check();
        check["stays"]!.AsArray().Select(title => title!.GetValue<string>()).ShouldBe(["Only ours"]);
        check["together"]!.AsArray().Select(pair => pair!["by"]!.GetValue<string>()).Distinct().ShouldBe(["lineage"]);
        var counts = check["work"]![0]!;
        counts["own"]!.GetValue<int>().ShouldBe(1);
        counts["before"]!.GetValue<int>().ShouldBe(counts["matched"]!.GetValue<int>() + 1);

        var joined = await Join();
        joined.Status.ShouldBe(HttpStatusCode.OK, joined.Text);
        (await Work()).ShouldBe(work);
        (await Lead.Get(Route("sections"))).Text.ShouldContain("9 Alder");
        // It is of this section only, and only its students have it.
        (await student.Get($"/api/sections/{Alder}/now")).Text.ShouldContain("Only ours");
        using var other = await School.As(DemoPeople.HeldUp);
        (await other.Get($"/api/sections/{School.Ids["section:9 Birch"]}/now")).Text.ShouldNotContain("Only ours");
        (await Lead.Get(Route("work"))).Text.ShouldContain("Written for us alone");
        (await Faults()).ShouldBeEmpty();

        var undone = await Lead.Post(Route("undo"), new { batch = joined.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
        undone.Status.ShouldBe(HttpStatusCode.OK, undone.Text);
        (await Work()).ShouldBe(work);
        (await student.Get($"/api/sections/{Alder}/now")).Text.ShouldContain("Only ours");
        (await Faults()).ShouldBeEmpty();
        page.ShouldNotBeEmpty();
    }

    [Fact]
    public async Task What_students_did_since_is_never_left_behind_by_an_undo()
    {
        var (own, _) = await Stop();
        var joined = await Join();
        joined.Status.ShouldBe(HttpStatusCode.OK, joined.Text);
        // Something that came after: the section's own course knows nothing of it.
        await Lead.Post(
            Route("add-item"),
            new
            {
                unit = (await CommandExamples.At(School, "unit", "Looking up")).Id,
                lesson = (long?)null,
                kind = "task",
                purpose = "practice",
                title = "Came later",
                section = (long?)null,
            },
            Guid.NewGuid()
        );
        var later = await School.Item("Came later");
        await Lead.Post(
            Route("publish-item"),
            new
            {
                item = later,
                published = true,
                version = 1,
            },
            Guid.NewGuid()
        );
        using var student = await School.As(DemoPeople.OnTrack);
        (
            await student.Post(
                $"/api/sections/{Alder}/hand-in",
                new
                {
                    item = later,
                    text = "On something new",
                    pressedAt = (string?)null,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        var work = await Work();
        var refused = await Lead.Post(Route("undo"), new { batch = joined.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
        refused.Code.ShouldBe("cannot-undo");
        (await Work()).ShouldBe(work);
        // To stop is safe in any case.
        (await Lead.Post(Route("stop-following"), (await CommandExamples.Stop(School))!, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.OK
        );
        (await Work()).ShouldBe(work);
        own.ShouldBePositive();
    }

    [Fact]
    public async Task A_student_in_two_of_them_is_named_with_both_and_the_home_section_is_chosen_on_the_spot()
    {
        await Stop();
        var both = School.Ids["person:" + DemoPeople.InTwoSections];
        var named = (await Check())["doubles"]!.AsArray().Single()!;
        named["name"]!.GetValue<string>().ShouldBe(DemoPeople.InTwoSections);
        named["others"]![0]!["name"]!.GetValue<string>().ShouldBe("9 Dogwood");
        (await Join("2026-08-31", new { student = both, section = School.Ids["section:9 Cedar"] })).Status.ShouldBe(HttpStatusCode.OK);
        (await Check())["doubles"]!.AsArray().ShouldBeEmpty();
        (await Lead.Get(Route($"students/{both}"))).Json["needsHome"]!.GetValue<bool>().ShouldBeFalse();
    }

    [Fact]
    public async Task It_follows_from_a_day_and_only_its_teachers_say_so()
    {
        await Stop();
        foreach (var wrong in new[] { "tomorrow", "2026-01-01" })
            (await Join(wrong)).Json["field"]!.GetValue<string>().ShouldBe("from");
        (await Join("2026-10-12")).Status.ShouldBe(HttpStatusCode.OK);
        using var student = await School.As(DemoPeople.OnTrack);
        (await student.Get($"/api/sections/{Alder}/now")).Text.ShouldNotContain("overdue");
        using var office = await School.As(DemoPeople.Office);
        (await office.Get(Route($"join-check?section={Alder}"))).Status.ShouldBe(HttpStatusCode.NotFound);
    }
}
