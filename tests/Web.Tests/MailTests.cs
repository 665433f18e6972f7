using System.Net;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Letters: written with what they are about, sent once, tried again, and forgotten.</summary>
public sealed partial class MailTests : IAsyncLifetime
{
    private School school = null!;
    private Caller office = null!;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open(2);
        office = await school.As(DemoPeople.Office);
    }

    public ValueTask DisposeAsync()
    {
        office.Dispose();
        return school.DisposeAsync();
    }

    private Task<Reply> Invite(params long[] people) =>
        office.Post("/api/school/invite-people", PeopleTests.Invited(true, people), Guid.NewGuid());

    private async Task<List<JsonNode>> Caught()
    {
        var letters = new List<JsonNode>();
        for (var instance = 0; instance < 2; instance++)
        {
            using var anyone = await school.As(null, instance);
            letters.AddRange((await anyone.Get("/api/demo/mail")).Json["letters"]!.AsArray()!);
        }
        return letters;
    }

    [Fact]
    public async Task Every_student_of_a_section_gets_one_letter_whose_link_lets_them_in_and_whose_text_is_kept_nowhere()
    {
        var students = (
            await school.Sql(connection =>
                connection.QueryAsync<long>(
                    "SELECT person FROM enrolment WHERE section = @section",
                    new { section = school.Ids["section:9 Alder"] }
                )
            )
        )
            .Distinct()
            .ToArray();
        (await office.Post("/api/school/invite-people?preview=true", PeopleTests.Invited(true, students))).Status.ShouldBe(
            HttpStatusCode.OK
        );
        var done = (await Invite(students)).Json;
        done["sentence"]!.GetValue<string>().ShouldBe($"{students.Length} links are on their way by mail");
        done["people"]!.AsArray().ShouldEachBe(person => person!["address"] == null);
        await School.Until(async () => (await Caught()).Count >= students.Length, "the letters never came");
        // A letter has arrived a moment before the school has it down as sent.
        await School.Until(
            async () =>
                await school.Sql(connection =>
                    connection.ExecuteScalarAsync<long>("SELECT count(*) FROM mail WHERE sent_at IS NULL OR body <> ''")
                ) == 0,
            "the text of a letter is still kept"
        );
        var letters = await Caught();
        letters.Count.ShouldBe(students.Length);
        letters.Select(letter => letter["to"]!.GetValue<string>()).Distinct().Count().ShouldBe(students.Length);
        var text = letters[0]["text"]!.GetValue<string>();
        text.ShouldContain("You have an account at Fenwater College");
        var link = Link().Match(text).Value;
        using var student = await school.As(null);
        (await student.Get($"/api{link}")).Json["email"]!.GetValue<string>().ShouldBe(letters[0]["to"]!.GetValue<string>());
    }

    [Fact]
    public async Task What_the_mail_server_does_not_take_waits_and_is_given_up_and_forgotten_in_the_end()
    {
        await using var plain = await School.Open(1, new SchoolProfile());
        var toNobody = new MailSweep(
            plain.Instance.Services.GetRequiredService<Data.Database>(),
            new MailRoute(MailServer.Of("smtp://127.0.0.1:1", "office@fenwater.example")),
            NullLogger<MailSweep>.Instance
        );
        Task<(string Body, int Tries, bool Later, bool GivenUp)> Letter() =>
            plain.Sql(connection =>
                connection.QuerySingleAsync<(string, int, bool, bool)>(
                    "SELECT body, tries, next_try > now(), given_up_at IS NOT NULL FROM mail"
                )
            );
        await plain.Sql(connection =>
            connection.ExecuteAsync(
                "INSERT INTO mail (person, subject, body) VALUES (@person, 'Hello', 'a secret')",
                new { person = plain.Ids["person:" + DemoPeople.Lead] }
            )
        );
        (await toNobody.Sweep(default)).ShouldBe(0);
        (await Letter()).ShouldBe(("a secret", 1, true, false));
        await plain.Sql(connection => connection.ExecuteAsync("UPDATE mail SET tries = 19, next_try = now()"));
        (await toNobody.Sweep(default)).ShouldBe(0);
        (await Letter()).ShouldBe(("", 20, false, true));
    }

    [Fact]
    public async Task A_school_without_a_mail_server_shows_the_links_and_says_so_when_asked_for_mail()
    {
        await using var plain = await School.Open(1, new SchoolProfile());
        using var caller = await plain.As(DemoPeople.Office);
        (await caller.Get("/api/people")).Json["hasMail"]!.GetValue<bool>().ShouldBeFalse();
        var refused = await caller.Post(
            "/api/school/invite-people",
            PeopleTests.Invited(true, plain.Ids["person:" + DemoPeople.Lead]),
            Guid.NewGuid()
        );
        refused.Json["field"]!.GetValue<string>().ShouldBe("byMail");
    }

    [Theory]
    [InlineData("mail.school.example", "office@school.example")]
    [InlineData("https://mail.school.example", "office@school.example")]
    [InlineData("smtp://mail.school.example", "")]
    [InlineData("", "office@school.example")]
    public void A_mail_server_that_cannot_be_read_is_refused_at_start(string address, string from) =>
        Should.Throw<InvalidOperationException>(() => MailServer.Of(address, from)).Message.ShouldStartWith("POLYCLINE_MAIL_");

    [GeneratedRegex("/welcome/[A-Za-z0-9_-]{43}")]
    private static partial Regex Link();
}
