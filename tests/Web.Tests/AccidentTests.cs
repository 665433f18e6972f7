using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>
/// Nothing by accident: what is somebody else's is not changed, what was begun is not lost, and what a change does is told before.
/// </summary>
public sealed class AccidentTests : IAsyncLifetime
{
    private School school = null!;
    private Caller lead = null!;
    private Caller co = null!;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open();
        (lead, co) = (await school.As(DemoPeople.Lead), await school.As(DemoPeople.CoTeacher));
    }

    public async ValueTask DisposeAsync()
    {
        lead.Dispose();
        co.Dispose();
        await school.DisposeAsync();
    }

    [Fact]
    public async Task Who_teaches_one_section_changes_that_one_and_neither_others_nor_their_students()
    {
        var item = await school.Item("Cloud diary");
        object Held(params string[] sections) =>
            new
            {
                changes = sections.Select(section => new
                {
                    section = school.Ids["section:" + section],
                    of = "item",
                    target = item,
                    field = "hold",
                    putBack = false,
                    value = true,
                    version = 0,
                }),
            };
        var refused = await co.Post(Route("differ"), Held("9 Dogwood", "9 Birch"), Guid.NewGuid());
        (refused.Status, refused.Json["title"]!.GetValue<string>()).ShouldBe((HttpStatusCode.Forbidden, "9 Birch is not yours to change."));
        refused.Json["detail"]!.GetValue<string>().ShouldContain($"Ask {DemoPeople.Lead}");
        (await co.Post(Route("differ"), Held("9 Dogwood"), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        // Nor by taking back what the lead did there.
        var done = await lead.Post(Route("differ"), Held("9 Birch"), Guid.NewGuid());
        (await co.Post(Route("undo"), new { batch = done.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.Forbidden
        );
        // What is of one section only says whose it is by its row.
        var (unit, lesson) = (
            (await CommandExamples.At(school, "unit", "Fronts")).Id,
            (await CommandExamples.At(school, "lesson", "The warm front")).Id
        );
        var own = await lead.Post(
            Route("add-item"),
            new
            {
                unit,
                lesson,
                kind = "page",
                purpose = "to-read",
                title = "Birch's own",
                section = school.Ids["section:9 Birch"],
            },
            Guid.NewGuid()
        );
        own.Status.ShouldBe(HttpStatusCode.OK, own.Text);
        (
            await co.Post(
                Route("rename-item"),
                new
                {
                    item = await school.Item("Birch's own"),
                    title = "Mine",
                    version = 1,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task Of_a_group_a_co_teacher_learns_the_names_of_their_own_students_only_and_the_history_names_nobody()
    {
        var group = await school.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                "INSERT INTO student_group (edition, name) VALUES (@WeatherWatch, 'Field team') RETURNING id",
                new { school.WeatherWatch }
            )
        );
        var birch = school.Ids["person:" + DemoPeople.HeldUp];
        object Put(long student) => new { group, members = new[] { new { student, @in = true } } };
        (await lead.Post(Route("put-in-group"), Put(birch), Guid.NewGuid())).Json["words"]!
            .GetValue<string>()
            .ShouldBe("put 1 student into the group “Field team”");
        var card = (await co.Get(Route("groups"))).Json["groups"]![0]!;
        (card["members"]!.AsArray().Count, card["others"]!.GetValue<int>()).ShouldBe((0, 1));
        (await co.Post(Route("put-in-group"), Put(school.Ids["person:" + DemoPeople.OnTrack]), Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.NotFound
        );
        (
            await co.Post(Route("put-in-group"), new { group, members = new[] { new { student = birch, @in = false } } }, Guid.NewGuid())
        ).Status.ShouldBe(HttpStatusCode.NotFound);
        var students = await school.Sql(connection =>
            connection.QueryAsync<string>("SELECT DISTINCT p.name FROM person p JOIN enrolment n ON n.person = p.id")
        );
        foreach (var path in new[] { "history", "groups" })
        foreach (var name in students.Except(await OfDogwood()))
            (await co.Get(Route(path))).Text.ShouldNotContain(name);
        // What a change does is told in numbers to the team, by name to whoever teaches them.
        var item = await school.Item("A slow ramp");
        var shown = await co.Post(
            $"{Route("publish-item")}?preview=true&names=true",
            new
            {
                item,
                published = false,
                version = (await CommandExamples.At(school, "item", "A slow ramp")).Version,
            }
        );
        var reach = shown.Json["reach"]!;
        reach["students"]!.AsArray().Select(one => one!["section"]!.GetValue<string>()).Distinct().ShouldBe(["9 Dogwood"]);
        (reach["students"]!.AsArray().Count + reach["others"]!.GetValue<int>()).ShouldBe(93);
        reach["effect"]!.GetValue<string>().ShouldBe("takes");
    }

    [Fact]
    public async Task Narrowing_an_item_to_two_students_says_who_keeps_it_who_loses_it_and_who_had_begun()
    {
        await lead.Post(Route("add-group"), new { name = "Field team" }, Guid.NewGuid());
        var group = (await lead.Get(Route("groups"))).Json["groups"]![0]!["id"]!.GetValue<long>();
        object Members(bool @in) =>
            new
            {
                group,
                members = new[] { DemoPeople.OnTrack, DemoPeople.HeldUp }.Select(name => new
                {
                    student = school.Ids["person:" + name],
                    @in,
                }),
            };
        await lead.Post(Route("put-in-group"), Members(true), Guid.NewGuid());
        var (item, version) = await CommandExamples.At(school, "item", "Isobars by hand");
        var narrower = new
        {
            item,
            groups = new[] { "Field team" },
            except = Array.Empty<string>(),
            version,
        };
        var answer = (await lead.Post($"{Route("for-whom")}?preview=true&names=true", narrower)).Json;
        answer["act"]!.GetValue<string>().ShouldBe("Take 1 item from 91 students");
        var shown = answer["reach"]!;
        shown["sentence"]!
            .GetValue<string>()
            .ShouldMatch(
                "^2.12 Isobars by hand disappears in all 4 sections, for 9 students. .*82 students who have begun "
                    + "2.12 Isobars by hand can still read it, with all they wrote. 2 students keep 2.12 Isobars by hand.$"
            );
        shown["effect"]!.GetValue<string>().ShouldBe("takes");
        // Those who keep it come first.
        var students = shown["students"]!.AsArray();
        students.Take(2).Select(one => one!["name"]!.GetValue<string>()).ShouldBe([DemoPeople.OnTrack, DemoPeople.HeldUp]);
        students.Take(2).ShouldEachBe(one => one!["keeps"]!.AsArray().Count == 1 && one["loses"]!.AsArray().Count == 0);
        students.Skip(2).ShouldEachBe(one => one!["loses"]!.AsArray().Count == 1 && one["keeps"]!.AsArray().Count == 0);
        students.Count(one => one!["begun"]!.AsArray().Count == 1).ShouldBeGreaterThan(10);
        // Leaving the group takes it from them too, and that is said along with what becomes of the group.
        await lead.Post(Route("for-whom"), narrower, Guid.NewGuid());
        (await lead.Post($"{Route("put-in-group")}?preview=true", Members(false))).Json["reach"]!["sentence"]!
            .GetValue<string>()
            .ShouldEndWith("Nobody keeps 2.12 Isobars by hand. “Field team” has 0 students instead of 2; 1 item depends on it.");
    }

    [Fact]
    public async Task Work_on_what_is_removed_stays_with_its_student_and_its_teacher_and_that_is_said_before()
    {
        var (item, version) = await CommandExamples.At(school, "item", "Isobars by hand");
        using var student = await school.As(DemoPeople.HeldUp);
        var path = $"/api/sections/{school.Ids["section:9 Birch"]}/items/{item}";
        var before = (await student.Get(path)).Json["history"]!.ToJsonString();
        async Task<int> Pieces() =>
            (await lead.Get(Route("work"))).Json["sections"]!
                .AsArray()
                .SelectMany(section => section!["pieces"]!.AsArray())
                .Count(piece => piece!["item"]!.GetValue<long>() == item);
        var pieces = await Pieces();
        pieces.ShouldBeGreaterThan(10);
        // What waits for it is changed first.
        foreach (
            var waiting in (
                await school.Sql(connection =>
                    connection.QueryAsync<(long Id, long Version)>(
                        "SELECT id, version FROM item WHERE edition = @WeatherWatch AND "
                            + "gate::text LIKE '%' || (SELECT lineage FROM item WHERE id = @item) || '%'",
                        new { school.WeatherWatch, item }
                    )
                )
            ).AsList()
        )
            (
                await lead.Post(
                    Route("condition-item"),
                    new
                    {
                        item = waiting.Id,
                        gate = (object?)null,
                        version = waiting.Version,
                    },
                    Guid.NewGuid()
                )
            ).Status.ShouldBe(HttpStatusCode.OK);
        var shown = await lead.Post($"{Route("remove-item")}?preview=true", new { item, version });
        shown.Json["reach"]!["sentence"]!
            .GetValue<string>()
            .ShouldMatch(@"\d+ students who have begun it can still read it, with all they wrote\.");
        shown.Json["act"]!.GetValue<string>().ShouldBe("Remove 1 item from 4 sections");
        (await lead.Post(Route("remove-item"), new { item, version }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        var after = await student.Get(path);
        (after.Json["state"]!.GetValue<string>(), after.Json["history"]!.ToJsonString()).ShouldBe(("withdrawn", before));
        (await student.Get($"/api/sections/{school.Ids["section:9 Birch"]}/now")).Json["done"]!
            .AsArray()
            .ShouldContain(row => row!["item"]!.GetValue<long>() == item);
        (await Pieces()).ShouldBe(pieces);
    }

    [Theory]
    [InlineData("work_version", "claimed_at")]
    [InlineData("work_version", "handed_in_at")]
    [InlineData("fact", "at")]
    [InlineData("batch", "at")]
    public async Task A_moment_that_is_none_takes_no_screen_down_and_is_found_by_the_checks(string table, string column)
    {
        await lead.Post(Route("rename-item"), await CommandExamples.Rename(school), Guid.NewGuid());
        await school.Sql(connection =>
            connection.ExecuteAsync(
                $"""
                ALTER TABLE {table} DROP CONSTRAINT IF EXISTS {table}_{column};
                UPDATE {table} SET {column} = '-infinity' WHERE ctid = (SELECT min(ctid) FROM {table})
                """
            )
        );
        foreach (var path in new[] { "work", "today", "outline", "dates", "pace", "history", "sections" })
            (await lead.Get(Route(path))).Status.ShouldBe(HttpStatusCode.OK, path);
        using var student = await school.As(DemoPeople.OnTrack);
        (await student.Get($"/api/sections/{school.Ids["section:9 Alder"]}/now")).Status.ShouldBe(HttpStatusCode.OK);
        var faults = await Verifier.Run(school.Database.Owner, CancellationToken.None);
        faults.ShouldHaveSingleItem().Words.ShouldBe($"{column} of {table} has 1 outside the years 1900 to 3000");
    }

    [Fact]
    public async Task Undo_goes_back_step_by_step_redo_is_told_apart_and_the_log_says_what_was_done()
    {
        var lesson = (await CommandExamples.At(school, "lesson", "Choosing a form")).Id;
        var noted = await lead.Post(
            Route("confirm-taught"),
            new
            {
                section = school.Ids["section:9 Alder"],
                lessons = new[]
                {
                    new
                    {
                        lesson,
                        took = 1,
                        done = false,
                        left = 1,
                        version = 0,
                    },
                },
            },
            Guid.NewGuid()
        );
        noted.Json["words"]!.GetValue<string>().ShouldBe("noted as not finished: “Choosing a form” in 9 Alder");
        long batch = noted.Json["batch"]!.GetValue<long>();
        foreach (
            var (words, isUndo, isRedo) in new[]
            {
                ("undid: noted", true, false),
                ("redid: noted", false, true),
                ("undid: noted", true, false),
            }
        )
        {
            batch = (await lead.Post(Route("undo"), new { batch }, Guid.NewGuid())).Json["batch"]!.GetValue<long>();
            var latest = (await lead.Get(Route("history"))).Json["changes"]![0]!;
            latest["words"]!.GetValue<string>().ShouldStartWith(words);
            (latest["isUndo"]!.GetValue<bool>(), latest["isRedo"]!.GetValue<bool>()).ShouldBe((isUndo, isRedo));
        }
    }

    [Fact]
    public async Task A_lesson_not_finished_is_asked_about_again_after_its_next_class()
    {
        async Task<JsonNode?> Asked(string at) =>
            (await lead.Get($"{Route("today")}?at={at}")).Json["sections"]!
                .AsArray()
                .Single(section => section!["name"]!.GetValue<string>() == "9 Alder")!["toConfirm"]!
                .AsArray()
                .FirstOrDefault();
        var first = (await Asked("2026-10-08T10:15"))!;
        var lesson = first["lesson"]!.GetValue<long>();
        var note = new
        {
            section = school.Ids["section:9 Alder"],
            lessons = new[]
            {
                new
                {
                    lesson,
                    took = first["length"]!.GetValue<int>(),
                    done = false,
                    left = 1,
                    version = first["version"]!.GetValue<long>(),
                },
            },
        };
        (await lead.Post(Route("confirm-taught"), note, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await Asked("2026-10-08T10:16"))?["lesson"]!.GetValue<long>().ShouldNotBe(lesson);
        var again = (await Asked("2026-10-09T18:00"))!;
        (again["lesson"]!.GetValue<long>(), again["length"]!.GetValue<int>(), again["version"]!.GetValue<long>()).ShouldBe(
            (lesson, first["length"]!.GetValue<int>() + 1, 1)
        );
    }

    [Fact]
    public async Task Who_is_in_two_sections_opens_both_sees_one_thing_and_is_named_to_who_teaches_them()
    {
        using var both = await school.As(DemoPeople.InTwoSections);
        var (alder, dogwood) = (
            await both.Get($"/api/sections/{school.Ids["section:9 Alder"]}/now"),
            await both.Get($"/api/sections/{school.Ids["section:9 Dogwood"]}/now")
        );
        (dogwood.Status, dogwood.Json["section"]!.GetValue<string>()).ShouldBe((HttpStatusCode.OK, "9 Alder"));
        foreach (var list in new[] { "now", "next", "locked", "done" })
            dogwood.Json[list]!.ToJsonString().ShouldBe(alder.Json[list]!.ToJsonString());
        foreach (var caller in new[] { lead, co })
            (await caller.Get(Route("today"))).Json["course"]!
                .AsArray()
                .Select(check => check!["words"]!.GetValue<string>())
                .ShouldContain($"{DemoPeople.InTwoSections} is in 9 Alder and 9 Dogwood at the same time; the dates of 9 Alder count.");
        // The co-teacher there looks through their eyes too.
        (
            await co.Get(
                $"/api/sections/{school.Ids["section:9 Dogwood"]}/now?as=student:{school.Ids["person:" + DemoPeople.InTwoSections]}"
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_section_that_follows_from_today_has_nothing_overdue_from_before()
    {
        var evening = school.Ids["section:Evening watch"];
        (await lead.Post(Route("join-section"), await CommandExamples.Join(school), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        var student = await school.Sql(connection =>
            connection.ExecuteScalarAsync<long>("SELECT min(person) FROM enrolment WHERE section = @evening", new { evening })
        );
        var rows = (await lead.Get($"/api/sections/{evening}/now?as=student:{student}")).Json["now"]!.AsArray();
        rows.ShouldNotContain(row => row!["state"]!.GetValue<string>() == "overdue");
        rows.ShouldContain(row => row!["beforeJoining"]!.GetValue<bool>());
        // In 9 Alder, which has followed from the beginning, there is what is overdue.
        var late = await school.Sql(connection =>
            connection.QueryAsync<long>(
                "SELECT DISTINCT person FROM enrolment WHERE section = @alder AND upper_inf(period)",
                new { alder = school.Ids["section:9 Alder"] }
            )
        );
        var overdue = 0;
        foreach (var one in late)
            overdue += (await lead.Get($"/api/sections/{school.Ids["section:9 Alder"]}/now?as=student:{one}")).Json["now"]!
                .AsArray()
                .Count(row => row!["state"]!.GetValue<string>() == "overdue");
        overdue.ShouldBeGreaterThan(0);
    }

    private async Task<IEnumerable<string>> OfDogwood() =>
        await school.Sql(connection =>
            connection.QueryAsync<string>(
                "SELECT p.name FROM person p JOIN enrolment n ON n.person = p.id "
                    + "JOIN section c ON c.id = n.section WHERE c.name = '9 Dogwood'"
            )
        );

    private string Route(string rest) => $"/api/editions/{school.WeatherWatch}/{rest}";
}
