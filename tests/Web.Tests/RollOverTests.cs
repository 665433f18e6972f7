using System.Net;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The next edition: a new projection. Whole or not at all, once, and undone until a student has worked in it.</summary>
public sealed class RollOverTests : IAsyncLifetime
{
    private School school = null!;
    private Caller lead = null!;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open();
        lead = await school.As(DemoPeople.Lead);
    }

    public async ValueTask DisposeAsync()
    {
        lead.Dispose();
        await school.DisposeAsync();
    }

    /// <summary>Weather Watch for the spring term, with one section that succeeds 9 Dogwood.</summary>
    public static async Task<object?> Spring(School school) =>
        new
        {
            title = "edition 2027",
            term = await school.Sql(connection =>
                connection.ExecuteScalarAsync<long>("SELECT id FROM term WHERE name = 'Spring term 2027'")
            ),
            fixedDates = "week",
            sections = new[]
            {
                new
                {
                    name = "9 Elm",
                    letter = "A",
                    succeeds = school.Ids["section:9 Dogwood"],
                },
            },
        };

    [Fact]
    public async Task It_carries_everything_of_the_course_and_nothing_of_the_students()
    {
        var request = await Spring(school);
        var before = await school.RowCounts();
        var shown = await lead.Post(Route("roll-over?preview=true"), request);
        shown.Status.ShouldBe(HttpStatusCode.OK, shown.Text);
        (await school.RowCounts()).ShouldBe(before);
        shown.Json["sentence"]!
            .GetValue<string>()
            .ShouldBe(
                "Carries 6 units, 38 lessons and 110 items, and no student work. edition 2026 goes on as it is. Not everything fits."
            );
        var section = shown.Json["sections"]![0]!;
        section["classes"]!.GetValue<int>().ShouldBe(30);
        section["lacking"]!.GetValue<int>().ShouldBe(12);
        section["doesNotFit"]!.AsArray().Count.ShouldBeGreaterThan(0);

        var key = Guid.NewGuid();
        var done = await lead.Post(Route("roll-over"), request, key);
        var next = done.Json["edition"]!.GetValue<long>();
        (await lead.Post(Route("roll-over"), request, key)).Text.ShouldBe(done.Text);
        // One edition is prepared at a time, and the one that is taught goes on.
        (await lead.Post(Route("roll-over"), request, Guid.NewGuid())).Code.ShouldBe("in-use");
        (await lead.Get(Route("outline"))).Json["state"]!.GetValue<string>().ShouldBe("current");
        (await lead.Get($"/api/editions/{next}/outline")).Json["state"]!.GetValue<string>().ShouldBe("draft");

        var outline = (await lead.Get($"/api/editions/{next}/outline")).Json;
        outline["counts"]!.ToJsonString().ShouldBe((await lead.Get(Route("outline"))).Json["counts"]!.ToJsonString());
        outline["sections"]!.AsArray().Single()!["students"]!.GetValue<int>().ShouldBe(0);
        var spring = (await lead.Get($"/api/editions/{next}/dates")).Json["units"]![0]!["items"]![0]!;
        spring["cells"]![0]!["opens"]!["local"]!.GetValue<string>().ShouldBe("2027-01-11T14:00:00");
        (await lead.Get($"/api/editions/{next}/work")).Json["sections"]![0]!["pieces"]!.AsArray().ShouldBeEmpty();
        (await Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Fixed_dates_go_to_the_same_teaching_week_or_are_cleared_and_both_are_listed()
    {
        var (item, version) = await CommandExamples.At(school, "item", "A slow ramp");
        await lead.Post(
            Route("time-item"),
            new
            {
                item,
                field = "due",
                anchor = new
                {
                    at = "fixed",
                    date = "2026-09-16",
                    time = "12:00",
                },
                version,
            },
            Guid.NewGuid()
        );
        var redated = (await lead.Post(Route("roll-over?preview=true"), await Spring(school))).Json["redated"]!.AsArray().Single()!;
        (redated["before"]!.GetValue<string>(), redated["after"]!.GetValue<string>()).ShouldBe(
            ("on Wed 16 Sep 2026, 12:00", "on Wed 27 Jan 2027, 12:00")
        );
    }

    [Fact]
    public async Task Undone_nothing_of_it_is_left_but_not_once_a_student_has_worked_in_it()
    {
        var before = await school.RowCounts("audit", "request", "edition");
        var next = (await lead.Post(Route("roll-over"), await Spring(school), Guid.NewGuid())).Json["edition"]!.GetValue<long>();
        var back = await lead.Post($"/api/editions/{next}/take-back-roll-over", new { }, Guid.NewGuid());
        back.Json["edition"]!.GetValue<long>().ShouldBe(school.WeatherWatch);
        (await school.RowCounts("audit", "request", "edition")).ShouldBe(before);
        (await lead.Get(Route("outline"))).Json["state"]!.GetValue<string>().ShouldBe("current");

        next = (await lead.Post(Route("roll-over"), await Spring(school), Guid.NewGuid())).Json["edition"]!.GetValue<long>();
        await school.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO fact (person, item, section, event, at, recorded_at, by, request)
                SELECT @person, min(i.id), min(c.id), 'opened', now(), now(), @person, gen_random_uuid()
                  FROM item i, section c WHERE i.edition = @next AND c.edition = @next
                """,
                new { person = school.Ids["person:" + DemoPeople.OnTrack], next }
            )
        );
        (await lead.Post($"/api/editions/{next}/take-back-roll-over", new { }, Guid.NewGuid())).Code.ShouldBe("cannot-undo");
    }

    [Fact]
    public async Task A_section_that_had_joined_keeps_its_students_when_the_roll_over_is_taken_back()
    {
        var next = (await lead.Post(Route("roll-over"), await Spring(school), Guid.NewGuid())).Json["edition"]!.GetValue<long>();
        var evening = school.Ids["section:Evening watch"];
        await school.Sql(connection =>
            connection.ExecuteAsync(
                "UPDATE section SET term = (SELECT term FROM edition WHERE id = @next), edition = NULL WHERE id = @evening",
                new { next, evening }
            )
        );
        (await lead.Post($"/api/editions/{next}/join-section", await CommandExamples.Join(school), Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.OK
        );
        (await lead.Post($"/api/editions/{next}/take-back-roll-over", new { }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        var left = await school.Sql(connection =>
            connection.QuerySingleAsync<(long? Edition, long Students, long Teachers)>(
                "SELECT edition, (SELECT count(*) FROM enrolment WHERE section = c.id), (SELECT "
                    + "count(*) FROM section_teacher WHERE section = c.id) FROM section c WHERE id = @evening",
                new { evening }
            )
        );
        left.ShouldBe((null, 18, 1));
        (await Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_name_that_is_taken_and_a_term_that_is_not_ahead_are_refused_by_name()
    {
        var term = await school.Sql(connection =>
            connection.ExecuteScalarAsync<long>("SELECT id FROM term WHERE name = 'Autumn term 2025'")
        );
        var wrong = await lead.Post(
            Route("roll-over"),
            new
            {
                title = "edition 2027",
                term,
                fixedDates = "week",
                sections = Array.Empty<object>(),
            },
            Guid.NewGuid()
        );
        (wrong.Status, wrong.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.NotFound, "term"));
        using var co = await school.As(DemoPeople.CoTeacher);
        (await co.Post(Route("roll-over"), await Spring(school), Guid.NewGuid())).Code.ShouldBe("forbidden");
    }

    [Fact]
    public async Task This_edition_goes_on_while_the_next_is_prepared_and_ends_by_an_act_of_its_own_which_can_be_taken_back()
    {
        var next = (await lead.Post(Route("roll-over"), await Spring(school), Guid.NewGuid())).Json["edition"]!.GetValue<long>();
        // Preparing the next leaves this one as it is, and what is changed here is not changed there.
        var (item, version) = await CommandExamples.At(school, "item", "A slow ramp");
        (
            await lead.Post(
                Route("rename-item"),
                new
                {
                    item,
                    title = "A very slow ramp",
                    version,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        (await lead.Get($"/api/editions/{next}/outline")).Text.ShouldNotContain("A very slow ramp");

        var before = await school.RowCounts();
        var shown = await lead.Post(Route("end-edition?preview=true"), new { on = (string?)null });
        (await school.RowCounts()).ShouldBe(before);
        shown.Json["sentence"]!
            .GetValue<string>()
            .ShouldMatch(
                @"^Weather Watch, edition 2026 becomes a past edition now\. "
                    + @"Everything in it stays, students’ work included\. It can still be read and searched, but no longer changed\."
                    + @" 30 items in it were never published\. \d+ pieces of work have not been read and given back; "
                    + @"that can still be done\. Edition 2027 becomes the current one\.$"
            );
        using var co = await school.As(DemoPeople.CoTeacher);
        (await co.Post(Route("end-edition"), new { on = (string?)null }, Guid.NewGuid())).Code.ShouldBe("forbidden");
        (await lead.Post(Route("end-edition"), new { on = (string?)null }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        async Task<string> States() =>
            string.Join(
                ", ",
                (await lead.Get(Route("editions"))).Json["editions"]!
                    .AsArray()
                    .Select(one => $"{one!["title"]!.GetValue<string>()[^4..]} {one["state"]}")
            );
        (await States()).ShouldBe("2027 current, 2026 resting, 2025 resting");
        (
            await lead.Post(
                Route("rename-item"),
                new
                {
                    item,
                    title = "Never",
                    version = version + 1,
                },
                Guid.NewGuid()
            )
        ).Code.ShouldBe("at-rest");
        (await lead.Post(Route("resume-edition"), new { }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await States()).ShouldBe("2027 draft, 2026 current, 2025 resting");
        (await lead.Post(Route("end-edition"), new { on = (string?)null }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        await school.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO fact (person, item, section, event, at, recorded_at, by, request)
                SELECT @person, min(i.id), min(c.id), 'opened', now(), now(), @person, gen_random_uuid()
                  FROM item i, section c WHERE i.edition = @next AND c.edition = @next
                """,
                new { person = school.Ids["person:" + DemoPeople.OnTrack], next }
            )
        );
        (await lead.Post(Route("resume-edition"), new { }, Guid.NewGuid())).Code.ShouldBe("cannot-undo");
    }

    [Fact]
    public async Task On_a_day_that_is_set_it_ends_by_itself_and_not_before()
    {
        (await lead.Post(Route("end-edition"), new { on = "2026-10-01" }, Guid.NewGuid())).Json["field"]!.GetValue<string>().ShouldBe("on");
        (await lead.Post(Route("end-edition"), new { on = "2026-10-08" }, Guid.NewGuid())).Json["act"]!
            .GetValue<string>()
            .ShouldBe("End edition 2026 after Thu 8 Oct");
        var sweep = school.Instance.Services.GetRequiredService<OpeningSweep>();
        await sweep.Sweep(CancellationToken.None);
        (await lead.Get(Route("outline"))).Json["state"]!.GetValue<string>().ShouldBe("current");
        await school.Sql(connection => connection.ExecuteAsync("UPDATE edition SET ends_on = '2026-10-07' WHERE ends_on IS NOT NULL"));
        await sweep.Sweep(CancellationToken.None);
        (await lead.Get(Route("outline"))).Json["state"]!.GetValue<string>().ShouldBe("resting");
    }

    private string Route(string what) => $"/api/editions/{school.WeatherWatch}/{what}";
}
