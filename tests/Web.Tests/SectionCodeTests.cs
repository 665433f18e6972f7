using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Codes by which people join a section themselves: at once or once let in, so many, until a day; nobody guesses one.</summary>
public sealed class SectionCodeTests : IAsyncLifetime
{
    private School school = null!;
    private Caller lead = null!;

    private string Section => $"/api/sections/{school.Ids["section:9 Birch"]}";

    public async ValueTask InitializeAsync()
    {
        school = await School.Open();
        lead = await school.As(DemoPeople.Lead);
    }

    public ValueTask DisposeAsync()
    {
        lead.Dispose();
        return school.DisposeAsync();
    }

    public static object Good(int most = 10, bool approve = false, string until = "2026-12-01") =>
        new
        {
            until,
            most,
            approve,
        };

    /// <summary>The number of somebody who waits at 9 Birch.</summary>
    public static Task<long> Waiting(School of) =>
        of.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                """
                WITH code AS (
                  INSERT INTO section_code (section, code, made_by, made_at, until, most, approve)
                  SELECT @section, translate(upper(left(md5(random()::text), 8)), '01', 'XY'), @lead, now(), '2026-12-01', 5, true
                  RETURNING id
                )
                INSERT INTO code_use (code, person, at, state) SELECT id, @person, now(), 'waiting' FROM code RETURNING id
                """,
                new
                {
                    section = of.Ids["section:9 Birch"],
                    lead = of.Ids["person:" + DemoPeople.Lead],
                    person = of.Ids["person:" + DemoPeople.OnTrack],
                }
            )
        );

    /// <summary>The number of a code of 9 Birch.</summary>
    public static async Task<long> Code(School of)
    {
        var use = await Waiting(of);
        return await of.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT code FROM code_use WHERE id = @use", new { use }));
    }

    private async Task<string> Make(object body) =>
        (await lead.Post($"{Section}/make-section-code", body, Guid.NewGuid())).Json["sectionCode"]!.GetValue<string>();

    private static Task<Reply> Join(Caller caller, string code, string? name = null, string? email = null) =>
        caller.Post(
            "/api/join",
            new
            {
                code,
                name,
                email,
            }
        );

    private async Task<bool> IsListed(string name) =>
        (await lead.Get($"/api/editions/{school.WeatherWatch}/class-lists")).Text.Contains(name);

    private static async Task<string> Field(Task<Reply> reply) => (await reply).Json["field"]!.GetValue<string>();

    [Fact]
    public async Task Whoever_has_an_account_joins_at_once_and_sees_the_section_and_nobody_joins_twice()
    {
        var code = await Make(Good(1));
        using var colleague = await school.As(DemoPeople.Colleague);
        var seen = (await colleague.Post("/api/join/look", new { code = code.ToLowerInvariant().Replace("-", " ") })).Json;
        (seen["section"]!.GetValue<string>(), seen["course"]!.GetValue<string>(), seen["oneself"]!.GetValue<string>()).ShouldBe(
            ("9 Birch", "Weather Watch", DemoPeople.Colleague)
        );
        (await Join(colleague, code)).Json["section"]!.GetValue<long>().ShouldBe(school.Ids["section:9 Birch"]);
        (await colleague.Get(Section)).Status.ShouldBe(HttpStatusCode.OK);
        (await Join(colleague, code)).Json["state"]!.GetValue<string>().ShouldBe("in");
        using var another = await school.As(DemoPeople.OnTrack);
        (await Field(Join(another, code))).ShouldBe("code");
        (await Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Somebody_new_asks_waits_sets_a_password_by_mail_and_is_let_in()
    {
        var code = await Make(Good(2, true));
        using var anyone = await school.As(null);
        (await Field(Join(anyone, code, "", "ada@home.example"))).ShouldBe("name");
        (await Field(Join(anyone, code, "Ada Newcombe", "home"))).ShouldBe("email");
        (await Join(anyone, code, "Ada Newcombe", "ada@home.example")).Json["state"]!.GetValue<string>().ShouldBe("mailed");
        (await IsListed("Ada Newcombe")).ShouldBeFalse();
        var waiting = (await lead.Get($"{Section}/codes")).Json["waiting"]!.AsArray().Single()!;
        waiting["name"]!.GetValue<string>().ShouldBe("Ada Newcombe");
        var done = await lead.Post(
            $"{Section}/answer-joins",
            new { waiting = new[] { waiting["id"]!.GetValue<long>() }, letIn = true },
            Guid.NewGuid()
        );
        done.Json["sentence"]!.GetValue<string>().ShouldBe("1 person is in 9 Birch from today");
        (await IsListed("Ada Newcombe")).ShouldBeTrue();
        // The same address again: a letter says so to its owner, and whoever asks learns nothing new.
        (await Join(anyone, code, "Somebody", "ada@home.example")).Json["state"]!.GetValue<string>().ShouldBe("mailed");
        (await lead.Get($"{Section}/codes")).Json["waiting"]!.AsArray().ShouldBeEmpty();
        await School.Until(
            async () => (await anyone.Get("/api/demo/mail")).Json["letters"]!.AsArray().Count == 2,
            "the letters never came"
        );
        JsonArray letters = (await anyone.Get("/api/demo/mail")).Json["letters"]!.AsArray();
        letters
            .Select(letter => letter!["subject"]!.GetValue<string>())
            .ShouldBe(["You have an account already", "Your account at Fenwater College"], ignoreOrder: true);
    }

    [Fact]
    public async Task Without_mail_the_link_is_shown_at_once_and_an_address_that_has_an_account_is_asked_to_sign_in()
    {
        await using var plain = await School.Open(1, new SchoolProfile());
        using var teacher = await plain.As(DemoPeople.Lead);
        var made = await teacher.Post($"/api/sections/{plain.Ids["section:9 Birch"]}/make-section-code", Good(), Guid.NewGuid());
        var code = made.Json["sectionCode"]!.GetValue<string>();
        using var anyone = await plain.As(null);
        var joined = (await Join(anyone, code, "Ada Newcombe", "ada@home.example")).Json;
        var link = new Uri(joined["address"]!.GetValue<string>()).AbsolutePath;
        (await anyone.Post($"/api{link}", new { password = "a heron on one leg" })).Status.ShouldBe(HttpStatusCode.OK);
        (await Field(Join(anyone, code, "Ada Newcombe", "ada@home.example"))).ShouldBe("email");
    }

    [Fact]
    public async Task A_code_that_is_withdrawn_over_or_wrong_lets_nobody_in_and_guessing_ends_soon()
    {
        var code = await Make(Good());
        var id = (await lead.Get($"{Section}/codes")).Json["codes"]!.AsArray().Single()!["id"]!.GetValue<long>();
        (await lead.Post($"{Section}/withdraw-section-code", new { code = id }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        using var anyone = await school.As(null);
        (await Field(anyone.Post("/api/join/look", new { code }))).ShouldBe("code");
        var past = await Make(Good());
        await school.Sql(connection => connection.ExecuteAsync("UPDATE section_code SET until = '2026-10-01'"));
        (await Field(anyone.Post("/api/join/look", new { code = past }))).ShouldBe("code");
        (await Field(lead.Post($"{Section}/make-section-code", Good(until: "2026-10-07"), Guid.NewGuid()))).ShouldBe("until");
        (await Field(lead.Post($"{Section}/make-section-code", Good(0), Guid.NewGuid()))).ShouldBe("most");
        var guesses = new List<HttpStatusCode>();
        for (var n = 0; n < 45; n++)
            guesses.Add(
                (await anyone.Post("/api/join/look", new { code = $"AAAA-{2222 + n}".Replace('0', '9').Replace('1', '9') })).Status
            );
        guesses.First().ShouldBe(HttpStatusCode.UnprocessableEntity);
        guesses.Last().ShouldBe(HttpStatusCode.TooManyRequests);
        // The student of another section neither makes a code nor sees one.
        using var student = await school.As(DemoPeople.OnTrack);
        (await student.Get($"{Section}/codes")).Status.ShouldBe(HttpStatusCode.NotFound);
    }
}
