using System.Net;
using System.Text.Json.Nodes;
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

    /// <summary>A good request for a section that meets on Mondays.</summary>
    public static async Task<object?> Sections(School of) => Sections(await Term(of, "Autumn term 2026"), Elder(of));

    /// <summary>A section that nobody has made yet.</summary>
    private static object Elder(School of, string name = "9 Elder", string period = "P1", params long[] teachers) =>
        new
        {
            name,
            subject = "Geography",
            year = "9",
            teachers = teachers.Length > 0 ? teachers : [of.Ids["person:" + DemoPeople.Lead]],
            slots = new[] { new { day = "mon", periods = new[] { period } } },
        };

    private static object Sections(long term, params object[] sections) => new { term, sections };

    /// <summary>A section of the school in which nothing stands.</summary>
    public static Task<long> EmptySection(School of) =>
        of.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                "INSERT INTO section (name, letter, term) SELECT 'Empty ' || gen_random_uuid(), 'Z', id FROM term "
                    + "WHERE name = 'Autumn term 2026' RETURNING id"
            )
        );

    /// <summary>A good request for a course.</summary>
    public static async Task<object?> Course(School of) =>
        new
        {
            title = "Harbour birds",
            subject = "Biology",
            term = await Term(of, "Autumn term 2026"),
            basis = "meetings",
            scheme = "",
            answers = Array.Empty<object>(),
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
        place["subject"]!.GetValue<string>().ShouldBe("Biology");
        (await lead.Get($"/api/editions/{edition}/outline")).Json["units"]!.AsArray().ShouldBeEmpty();

        var made = (await office.Post("/api/school/make-sections", await Sections(school), Guid.NewGuid())).Json["sections"]![0]!;
        var joinable = (await lead.Get($"/api/editions/{edition}/joinable")).Json["sections"]!
            .AsArray()
            .Single(one => one!["name"]!.GetValue<string>() == "9 Elder")!;
        var joined = await lead.Post(
            $"/api/editions/{edition}/join-section",
            new
            {
                section = joinable["section"]!.GetValue<long>(),
                version = joinable["version"]!.GetValue<long>(),
                from = (string?)null,
                homes = Array.Empty<object>(),
            },
            Guid.NewGuid()
        );
        joined.Status.ShouldBe(HttpStatusCode.OK, joined.Text);
        // A to D, and the evening's letter, are taken.
        made["letter"]!.GetValue<string>().ShouldNotBeOneOf("A", "B", "C", "D");
    }

    [Fact]
    public async Task A_course_is_made_from_a_scheme_of_work_as_it_was_shown_before()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var term = await Term(school, "Autumn term 2026");
        object Asked(string scheme, params object[] answers) =>
            new
            {
                title = "Tides and Channels",
                term,
                basis = "minutes",
                scheme,
                answers,
            };
        const string Scheme = """
            The moon's pull   (3)
              High water, low water   2 classes
                read  Twice a day
                task  Mark the quay  due 2nd class after
              Springs and neaps   40 min
                film https://films.fenwater.example/night?a=1&b=2
              ?? Visit to the pilots
            Revision   optional
            """;
        var body = Asked(Scheme, new { line = 7, level = "item" });
        var shown = (await lead.Post("/api/me/make-course?preview=true", body)).Json;
        shown["sentence"]!.GetValue<string>().ShouldBe("2 units, 3 lessons for 190 minutes and 4 items");
        shown["lines"]!
            .AsArray()
            .Select(line => $"{line!["code"]} {line["title"]}: {line["words"]}")
            .ShouldBe([
                " The moon's pull: 140 minutes",
                " High water, low water: 100 minutes",
                "1.01 Twice a day: page, to read",
                "1.02 Mark the quay: task, due at the start of the 2nd class after the lesson",
                " Springs and neaps: 40 minutes",
                "1.03 films.fenwater.example/night?a=1&b=2: link",
                "1.04 Visit to the pilots: page, to read",
                " Revision: 50 minutes, optional",
            ]);
        var edition = (await lead.Post("/api/me/make-course", body, Guid.NewGuid())).Json["edition"]!.GetValue<long>();
        var units = (await lead.Get($"/api/editions/{edition}/outline")).Json["units"]!.AsArray();
        units.Select(unit => unit!["title"]!.GetValue<string>()).ShouldBe(["The moon's pull", "Revision"]);
        units.ShouldEachBe(unit => !unit!["published"]!.GetValue<bool>());
        var file = (await lead.Get($"/api/editions/{edition}/plan.json")).Text;
        file.ShouldContain("Mark the quay");
        async Task<string> Field(object asked) =>
            (await lead.Post("/api/me/make-course", asked, Guid.NewGuid())).Json["field"]!.GetValue<string>();
        (await Field(Asked(new string('x', 200_001)))).ShouldBe("scheme");
        (await Field(Asked(new string('\n', 4_000)))).ShouldBe("scheme");
        (await Field(Asked(Scheme, new { line = 7, level = "item" }, new { line = 7, level = "unit" }))).ShouldBe("answers");
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
                    scheme = "",
                    answers = Array.Empty<object>(),
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
                    scheme = "",
                    answers = Array.Empty<object>(),
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
                    scheme = "",
                    answers = Array.Empty<object>(),
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
                    scheme = "",
                    answers = Array.Empty<object>(),
                }
            )
        ).ShouldBe("term");
    }

    [Fact]
    public async Task Sections_have_names_of_their_own_in_their_term_teachers_who_are_there_and_times_that_it_has()
    {
        var term = await Term(school, "Autumn term 2026");
        var lead = school.Ids["person:" + DemoPeople.Lead];
        async Task<string> Field(params object[] sections) =>
            (await office.Post("/api/school/make-sections", Sections(term, sections), Guid.NewGuid())).Json["field"]!.GetValue<string>();
        var before = await school.RowCounts("audit", "request");
        (await Field()).ShouldBe("sections");
        (await Field(Elder(school), Elder(school, "9 alder"))).ShouldBe("sections[1].name");
        (await Field(Elder(school), Elder(school))).ShouldBe("sections[1].name");
        (await Field(Elder(school, teachers: [lead, lead]))).ShouldBe("sections[0].teachers");
        (await Field(Elder(school, teachers: 1_000_000))).ShouldBe("sections[0].teachers");
        (await Field(Elder(school, period: "P9"))).ShouldBe("sections[0].slots[0].periods");
        // Of several, none is made where one cannot be.
        (await school.RowCounts("audit", "request")).ShouldBe(before);
        var replies = await Task.WhenAll(
            Enumerable.Range(0, 2).Select(async _ => await office.Post("/api/school/make-sections", await Sections(school), Guid.NewGuid()))
        );
        replies.Count(reply => reply.Status == HttpStatusCode.OK).ShouldBe(1);
        replies.ShouldEachBe(reply => (int)reply.Status < 500);
    }

    [Fact]
    public async Task A_section_is_renamed_and_given_times_before_it_follows_anything_and_that_is_undone()
    {
        var term = await Term(school, "Autumn term 2026");
        await office.Post("/api/school/make-sections", await Sections(school), Guid.NewGuid());
        async Task<JsonNode> Card(string name) =>
            (await office.Get($"/api/terms/{term}/calendar")).Json["sections"]!
                .AsArray()
                .Single(section => section!["name"]!.GetValue<string>() == name)!;
        var card = await Card("9 Elder");
        card["classes"]!.GetValue<int>().ShouldBeGreaterThan(10);
        async Task<Reply> Change(string name, long version) =>
            await office.Post(
                $"/api/terms/{term}/change-section",
                new
                {
                    section = card["id"],
                    name,
                    subject = "Geography",
                    year = "9",
                    slots = Array.Empty<object>(),
                    version,
                },
                Guid.NewGuid()
            );
        var version = card["version"]!.GetValue<long>();
        (await Change("9 Alder", version)).Json["field"]!.GetValue<string>().ShouldBe("name");
        var done = await Change("9 Rowan", version);
        done.Json["words"]!.GetValue<string>().ShouldBe("renamed 9 Elder to 9 Rowan and changed when 9 Rowan meets");
        (await Change("9 Hazel", version)).Code.ShouldBe("changed-meanwhile");
        (await Card("9 Rowan"))["classes"]!.GetValue<int>().ShouldBe(0);
        (
            await office.Post($"/api/terms/{term}/undo", new { batch = done.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())
        ).Status.ShouldBe(HttpStatusCode.OK);
        JsonNode.DeepEquals((await Card("9 Elder"))["slots"], card["slots"]).ShouldBeTrue();
        // Renamed again, and its old name given to another: then that cannot be undone.
        var renamed = (await Change("9 Rowan", (await Card("9 Elder"))["version"]!.GetValue<long>())).Json["batch"]!.GetValue<long>();
        (await office.Post("/api/school/make-sections", await Sections(school), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await office.Post($"/api/terms/{term}/undo", new { batch = renamed }, Guid.NewGuid())).Code.ShouldBe("in-use");
    }

    [Fact]
    public async Task A_section_of_a_course_that_is_renamed_is_called_so_on_the_teams_screens()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var term = await Term(school, "Autumn term 2026");
        var card = (await office.Get($"/api/terms/{term}/calendar")).Json["sections"]!
            .AsArray()
            .First(section => section!["name"]!.GetValue<string>() == "9 Birch")!;
        var reply = await office.Post(
            $"/api/terms/{term}/change-section",
            new
            {
                section = card["id"],
                name = "9 Beech",
                subject = "",
                year = "",
                slots = card["slots"],
                version = card["version"],
            },
            Guid.NewGuid()
        );
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        var sections = (await lead.Get($"/api/editions/{school.WeatherWatch}/sections")).Text;
        sections.ShouldContain("9 Beech");
        sections.ShouldNotContain("9 Birch");
    }

    [Fact]
    public async Task A_section_goes_only_while_nothing_stands_in_it()
    {
        Task<Reply> Remove(long section) => office.Post("/api/school/remove-section", new { section }, Guid.NewGuid());
        var before = await school.RowCounts("audit", "request");
        (await Remove(await EmptySection(school))).Status.ShouldBe(HttpStatusCode.OK);
        (await Remove(school.Ids["section:9 Alder"])).Code.ShouldBe("cannot-undo");
        (await Remove(1_000_000)).Json["field"]!.GetValue<string>().ShouldBe("section");
        (await school.RowCounts("audit", "request")).ShouldBe(before);
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
