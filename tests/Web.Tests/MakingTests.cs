using System.Net;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Courses and sections are made in the application, by whoever may.</summary>
public sealed class MakingTests : IAsyncLifetime
{
    private School school = null!;
    private Caller office = null!;

    private static Task<long> Term(School of, string name) =>
        of.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT id FROM term WHERE name = @name", new { name }));

    /// <summary>A good request for a section.</summary>
    public static async Task<object?> Section(School of) =>
        new
        {
            term = await Term(of, "Autumn term 2026"),
            name = "9 Elder",
            teachers = new[] { of.Ids["person:" + DemoPeople.Lead] },
        };

    /// <summary>A good request for a course.</summary>
    public static async Task<object?> Course(School of) =>
        new
        {
            title = "Harbour birds",
            term = await Term(of, "Autumn term 2026"),
            basis = "meetings",
        };

    public async ValueTask InitializeAsync()
    {
        school = await School.Open();
        office = await school.As(DemoPeople.Office);
    }

    public ValueTask DisposeAsync()
    {
        office.Dispose();
        return school.DisposeAsync();
    }

    [Fact]
    public async Task A_teacher_makes_a_course_leads_it_and_lets_a_section_of_theirs_follow()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var edition = (await lead.Post("/api/me/make-course", await Course(school), Guid.NewGuid())).Json["edition"]!.GetValue<long>();
        var place = (await lead.Get("/api/places")).Json["courses"]!.AsArray().Single(one => one!["edition"]!.GetValue<long>() == edition)!;
        (place["course"]!.GetValue<string>(), place["role"]!.GetValue<string>()).ShouldBe(("Harbour birds", "lead"));
        (await lead.Get($"/api/editions/{edition}/outline")).Json["units"]!.AsArray().ShouldBeEmpty();

        var made = (await office.Post("/api/school/make-section", await Section(school), Guid.NewGuid())).Json;
        var joinable = (await lead.Get($"/api/editions/{edition}/joinable")).Json["sections"]!
            .AsArray()
            .Single(one => one!["name"]!.GetValue<string>() == "9 Elder")!;
        var joined = await lead.Post(
            $"/api/editions/{edition}/join-section",
            new { section = joinable["section"]!.GetValue<long>(), version = joinable["version"]!.GetValue<long>() },
            Guid.NewGuid()
        );
        joined.Status.ShouldBe(HttpStatusCode.OK, joined.Text);
        // A to D, and the evening's letter, are taken.
        made["letter"]!.GetValue<string>().ShouldNotBeOneOf("A", "B", "C", "D");
    }

    [Fact]
    public async Task A_student_makes_no_course_and_a_course_needs_a_title_and_a_term_that_is_not_over()
    {
        using var student = await school.As(DemoPeople.OnTrack);
        (await student.Post("/api/me/make-course", await Course(school), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.NotFound);
        using var lead = await school.As(DemoPeople.Lead);
        async Task<string> Field(object body) =>
            (await lead.Post("/api/me/make-course", body, Guid.NewGuid())).Json["field"]!.GetValue<string>();
        var term = await Term(school, "Autumn term 2026");
        var past = await school.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT id FROM term ORDER BY last LIMIT 1"));
        const string Title = "Harbour birds";
        (
            await Field(
                new
                {
                    title = " ",
                    term,
                    basis = "meetings",
                }
            )
        ).ShouldBe("title");
        (
            await Field(
                new
                {
                    title = Title,
                    term,
                    basis = "weeks",
                }
            )
        ).ShouldBe("basis");
        (
            await Field(
                new
                {
                    title = Title,
                    term = past,
                    basis = "minutes",
                }
            )
        ).ShouldBe("term");
        (
            await Field(
                new
                {
                    title = Title,
                    term = 1_000_000,
                    basis = "minutes",
                }
            )
        ).ShouldBe("term");
    }

    [Fact]
    public async Task A_section_has_a_name_of_its_own_in_its_term_and_teachers_who_are_there()
    {
        var term = await Term(school, "Autumn term 2026");
        var lead = school.Ids["person:" + DemoPeople.Lead];
        async Task<string> Field(string name, params long[] teachers) =>
            (
                await office.Post(
                    "/api/school/make-section",
                    new
                    {
                        term,
                        name,
                        teachers,
                    },
                    Guid.NewGuid()
                )
            ).Json["field"]!.GetValue<string>();
        (await Field("9 Alder", lead)).ShouldBe("name");
        (await Field("9 Elder", lead, lead)).ShouldBe("teachers");
        (await Field("9 Elder", 1_000_000)).ShouldBe("teachers");
        var before = await school.RowCounts("audit", "request");
        var replies = await Task.WhenAll(
            Enumerable.Range(0, 2).Select(async _ => await office.Post("/api/school/make-section", await Section(school), Guid.NewGuid()))
        );
        replies.Count(reply => reply.Status == HttpStatusCode.OK).ShouldBe(1);
        replies.ShouldEachBe(reply => (int)reply.Status < 500);
        (await school.RowCounts("audit", "request")).ShouldNotBe(before);
    }

    [Fact]
    public async Task Whoever_no_longer_teaches_makes_no_new_course_and_keeps_what_they_have()
    {
        var person = school.Ids["person:" + DemoPeople.Lead];
        await office.Post(
            "/api/school/set-role",
            new
            {
                person,
                role = "teacher",
                has = false,
            },
            Guid.NewGuid()
        );
        using var lead = await school.As(DemoPeople.Lead);
        (await lead.Post("/api/me/make-course", await Course(school), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.NotFound);
        (await lead.Get($"/api/editions/{school.WeatherWatch}/outline")).Status.ShouldBe(HttpStatusCode.OK);
    }
}
