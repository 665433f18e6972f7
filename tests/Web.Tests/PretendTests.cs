using System.Net;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A course tried in a section that is made up, with students who are.</summary>
public sealed class PretendTests(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    private School school = null!;
    private Caller lead = null!;

    public async ValueTask InitializeAsync()
    {
        school = await shared.Open();
        lead = await school.As(DemoPeople.Lead);
    }

    public ValueTask DisposeAsync()
    {
        lead.Dispose();
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task It_has_dates_and_eyes_of_its_own_and_counts_nowhere()
    {
        using var office = await school.As(DemoPeople.Office);
        var term = await TermCommandExamples.Autumn(school);
        var publish = await CommandExamples.All["publish-item"](school);
        async Task<string> Counts() =>
            string.Join(
                "\n",
                await Told("publish-item", publish),
                Unversioned((await lead.Get(Route("today"))).Json["sections"]!.ToJsonString()),
                (await lead.Get("/api/places")).Text,
                (await office.Get("/api/places")).Text,
                Unversioned((await office.Get($"/api/terms/{term}/calendar")).Text),
                Unversioned((await lead.Get(Route("team"))).Text),
                (await lead.Get(Route("work"))).Json["sections"]!.ToJsonString()
            );
        var before = await Counts();
        var (section, version) = await CommandExamples.PretendSection(school);
        (await Counts()).ShouldBe(before);

        // The computation places the course in it as in any other.
        var dates = (await lead.Get(Route("dates"))).Json;
        var column = dates["sections"]!.AsArray().Select(one => one!["name"]!.GetValue<string>()).ToList().IndexOf("Pretend");
        column.ShouldBeGreaterThanOrEqualTo(0);
        dates["units"]!
            .AsArray()
            .SelectMany(unit => unit!["items"]!.AsArray())
            .Count(item => item!["cells"]![column]!["due"] is not null)
            .ShouldBeGreaterThan(5);
        (await lead.Get(Route("pace"))).Json["sections"]!.AsArray().Count(one => one!["pretend"]!.GetValue<bool>()).ShouldBe(1);

        // Somebody made up sees what they may, and what they are made out to have done opens what waits for it.
        async Task<JsonNode> Seen(string facts) => (await lead.Get($"/api/sections/{section}/now?as=pretend:{section}{facts}")).Json;
        var plain = await Seen("");
        plain["now"]!.AsArray().Count.ShouldBeGreaterThan(0);
        plain["done"]!.AsArray().ShouldBeEmpty();
        var first = (await CommandExamples.FirstItem(school, school.WeatherWatch)).Item;
        (await Seen($"~{first}.ticked"))["done"]!.AsArray().Count.ShouldBe(1);

        var made = await lead.Post(
            Route("make-up-students"),
            new
            {
                section,
                students = new[] { new { name = "Quick", facts = "" }, new { name = "quick ", facts = "" } },
                version,
            },
            Guid.NewGuid()
        );
        made.Json["title"]!.GetValue<string>().ShouldBe("Somebody is made up by that name already. Choose another name.");
        made = await lead.Post(
            Route("make-up-students"),
            new
            {
                section,
                students = new[] { new { name = "Quick", facts = "" } },
                version,
            },
            Guid.NewGuid()
        );
        made.Json["words"]!.GetValue<string>().ShouldBe("made up Quick in Pretend");
        (await lead.Get(Route("students"))).Json["sections"]!.AsArray().Single(one => one!["madeUp"] is not null)!["madeUp"]![0]!["name"]!
            .GetValue<string>()
            .ShouldBe("Quick");

        // Nobody joins it, follows a code to it, or moves into it.
        var joined = await lead.Post(
            Route("join-students"),
            new
            {
                section,
                addresses = new[] { DemoPeople.Email(DemoPeople.HeldUp) },
                from = "2026-10-12",
            },
            Guid.NewGuid()
        );
        (joined.Status, joined.Code).ShouldBe((HttpStatusCode.NotFound, "unknown"), joined.Text);
        (
            await lead.Post(
                $"/api/sections/{section}/make-section-code",
                new
                {
                    until = "2026-10-30",
                    most = 5,
                    approve = false,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Counts()).ShouldBe(before);

        // It goes with what was tried in it, and comes back.
        var removed = await lead.Post(Route("remove-pretend-section"), new { section, version = version + 1 }, Guid.NewGuid());
        (await lead.Get(Route("dates"))).Text.ShouldNotContain("\"name\":\"Pretend\"");
        await lead.Post(Route("undo"), new { batch = removed.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
        (await lead.Get(Route("dates"))).Text.ShouldContain("\"name\":\"Pretend\"");
    }

    [Fact]
    public async Task Whoever_teaches_some_sections_only_makes_none_and_changes_none()
    {
        using var co = await school.As(DemoPeople.CoTeacher);
        var example = await CommandExamples.All["make-pretend-section"](school);
        async Task<HttpStatusCode> Made() => (await co.Post($"{Route("make-pretend-section")}?preview=true", example)).Status;
        (await Made()).ShouldBe(HttpStatusCode.OK);
        var set = await lead.Post(
            Route("set-team-member"),
            new
            {
                address = (string?)null,
                person = school.Ids["person:" + DemoPeople.CoTeacher],
                role = "sections",
                teaches = new[] { school.Ids["section:9 Dogwood"] },
            },
            Guid.NewGuid()
        );
        set.Status.ShouldBe(HttpStatusCode.OK, set.Text);
        (await Made()).ShouldBe(HttpStatusCode.Forbidden);
        var (section, version) = await CommandExamples.PretendSection(school);
        (await co.Post(Route("remove-pretend-section"), new { section, version }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.Forbidden
        );
    }

    [Fact]
    public async Task Making_one_is_undone_as_long_as_nothing_was_tried_in_it()
    {
        var made = await lead.Post(
            Route("make-pretend-section"),
            new { name = "Undone", slots = new object[] { new { day = "thu", periods = new[] { "P1" } } } },
            Guid.NewGuid()
        );
        var batch = made.Json["batch"]!.GetValue<long>();
        var section = (await lead.Get(Route("sections"))).Json["sections"]!
            .AsArray()
            .Single(one => one!["name"]!.GetValue<string>() == "Undone")!["id"]!;
        var tried = await lead.Post(
            Route("add-unit"),
            new
            {
                title = "Only tried",
                after = (long?)null,
                section,
            },
            Guid.NewGuid()
        );
        tried.Status.ShouldBe(HttpStatusCode.OK, tried.Text);
        var refused = await lead.Post(Route("undo"), new { batch }, Guid.NewGuid());
        (refused.Status, refused.Code).ShouldBe((HttpStatusCode.Conflict, "in-use"), refused.Text);
        // It can still be removed.
        (await lead.Post(Route("remove-pretend-section"), new { section, version = 1 }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await lead.Get(Route("sections"))).Text.ShouldNotContain("Undone");
        // A real section is never deleted, whatever the application asks of its database.
        await using var application = Npgsql.NpgsqlDataSource.Create(school.Database.App);
        await using var delete = application.CreateCommand("DELETE FROM section WHERE name = '9 Alder'");
        (await Should.ThrowAsync<Npgsql.PostgresException>(() => delete.ExecuteNonQueryAsync())).SqlState.ShouldBe("42501");
    }

    private async Task<string> Told(string command, object? body) =>
        (await lead.Post($"{Route(command)}?preview=true", body)).Json["reach"]!["sentence"]!.GetValue<string>();

    private string Route(string what) => $"/api/editions/{school.WeatherWatch}/{what}";

    private static string Unversioned(string json) =>
        System.Text.RegularExpressions.Regex.Replace(json, "\"(version|ownVersion)\":[0-9]+", "");
}
