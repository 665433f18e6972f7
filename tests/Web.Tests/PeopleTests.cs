using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.People;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Accounts, as the office keeps them: added, invited, deactivated and put back, and who is signed in.</summary>
public sealed class PeopleTests : IAsyncLifetime
{
    /// <summary>Two who are new.</summary>
    public static readonly object Newcomers = new
    {
        people = new[]
        {
            new
            {
                name = "Marit Oyelaran",
                email = "marit.oyelaran@fenwater.example",
                office = false,
                teacher = true,
            },
            new
            {
                name = "Bo Castellan",
                email = "bo.castellan@fenwater.example",
                office = true,
                teacher = false,
            },
        },
    };

    private School school = null!;
    private Caller office = null!;

    public static Task<object?> Lead(School of) => Task.FromResult<object?>(new { person = of.Ids["person:" + DemoPeople.Lead] });

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

    private Task<Reply> Do(string command, object body) => office.Post($"/api/school/{command}", body, Guid.NewGuid());

    private Task<Reply> Role(string role, bool has) =>
        Do(
            "set-role",
            new
            {
                person = school.Ids["person:" + DemoPeople.Lead],
                role,
                has,
            }
        );

    private async Task<JsonNode> Row(string email) =>
        (await office.Get("/api/people")).Json["people"]!.AsArray().Single(person => person!["email"]!.GetValue<string>() == email)!;

    private static string Path(JsonNode address) => $"/api{new Uri(address.GetValue<string>()).AbsolutePath}";

    [Fact]
    public async Task Somebody_added_sets_a_password_by_their_link_once_and_is_signed_in()
    {
        var shown = await office.Post("/api/school/add-people?preview=true", Newcomers);
        shown.Json["people"]!.AsArray().ShouldEachBe(person => person!["address"] == null);
        var added = (await Do("add-people", Newcomers)).Json;
        added["sentence"]!.GetValue<string>().ShouldBe("2 people are invited");
        (await Row("marit.oyelaran@fenwater.example"))["state"]!.GetValue<string>().ShouldBe("invited");
        var link = Path(added["people"]![0]!["address"]!);

        using var marit = await school.As(null, 1);
        // Until then nobody signs in there, not even with an empty password.
        (await marit.Post("/api/sign-in", new { email = "marit.oyelaran@fenwater.example", password = "guess" })).Status.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        (await marit.Get(link)).Json["name"]!.GetValue<string>().ShouldBe("Marit Oyelaran");
        (await marit.Post(link, new { password = "short" })).Json["field"]!.GetValue<string>().ShouldBe("password");
        var both = await Task.WhenAll(
            marit.Post(link, new { password = "a heron on one leg" }),
            marit.Post(link, new { password = "a heron on two legs" })
        );
        both.Count(reply => reply.Status == HttpStatusCode.OK).ShouldBe(1);
        both.Single(reply => reply.Status == HttpStatusCode.OK).Message.Headers.Contains("Set-Cookie").ShouldBeTrue();
        (await marit.Get(link)).Code.ShouldBe("gone");
        (await Row("marit.oyelaran@fenwater.example"))["state"]!.GetValue<string>().ShouldBe("active");
    }

    [Fact]
    public async Task A_new_link_takes_the_place_of_the_old_and_both_end_after_a_day()
    {
        var first = Path((await Do("add-people", Newcomers)).Json["people"]![0]!["address"]!);
        var person = (await Row("marit.oyelaran@fenwater.example"))["person"]!.GetValue<long>();
        var second = Path((await Do("invite-again", new { person })).Json["address"]!);
        (await office.Get(first)).Code.ShouldBe("gone");
        (await office.Get(second)).Status.ShouldBe(HttpStatusCode.OK);
        await school.Sql(connection =>
            connection.ExecuteAsync(
                "UPDATE one_time_link SET made_at = made_at - interval '25 hours', expires_at = expires_at - interval '25 hours'"
            )
        );
        (await office.Get(second)).Code.ShouldBe("gone");
    }

    [Fact]
    public async Task Of_two_who_add_the_same_address_at_once_one_adds_it_and_the_other_is_told_that_it_is_there()
    {
        await using var held = await school.Owner.Source.OpenConnectionAsync();
        await using var holding = await held.BeginTransactionAsync();
        await PersonStore.Add(held, "Ines Marlowe", "ines.marlowe@fenwater.example", "", office: false);
        var late = Do(
            "add-people",
            new
            {
                people = new[]
                {
                    new
                    {
                        name = "I. Marlowe",
                        email = "ines.marlowe@fenwater.example",
                        office = false,
                        teacher = true,
                    },
                },
            }
        );
        await school.UntilWaiting();
        await holding.CommitAsync();
        (await late).Json["people"]![0]!["state"]!.GetValue<string>().ShouldBe("known");
        (await Row("ines.marlowe@fenwater.example"))["name"]!.GetValue<string>().ShouldBe("Ines Marlowe");
    }

    [Fact]
    public async Task An_address_that_has_an_account_is_left_as_it_is_and_said()
    {
        var lead = (await Row("orla.tierney-vance@fenwater.example"))["name"]!.GetValue<string>();
        var answer = (
            await Do(
                "add-people",
                new
                {
                    people = new[]
                    {
                        new
                        {
                            name = "Somebody Else",
                            email = "Orla.Tierney-Vance@fenwater.example",
                            office = true,
                            teacher = false,
                        },
                    },
                }
            )
        ).Json;
        answer["sentence"]!.GetValue<string>().ShouldBe("1 has an account already");
        (answer["people"]![0]!["state"]!.GetValue<string>(), answer["people"]![0]!["knownAs"]!.GetValue<string>()).ShouldBe(
            ("known", lead)
        );
        (await Row("orla.tierney-vance@fenwater.example"))["office"]!.GetValue<bool>().ShouldBeFalse();
    }

    [Theory]
    [InlineData("Nobody", "no address", "people[0].email")]
    [InlineData("", "a@b.example", "people[0].name")]
    public async Task What_is_wrong_is_said_at_its_line(string name, string email, string field)
    {
        var people = new[]
        {
            new
            {
                name,
                email,
                office = false,
                teacher = false,
            },
        };
        (await Do("add-people", new { people })).Json["field"]!.GetValue<string>().ShouldBe(field);
        var twice = Enumerable.Repeat(
            new
            {
                name = "Bo",
                email = "bo@b.example",
                office = false,
                teacher = false,
            },
            2
        );
        (await Do("add-people", new { people = twice })).Json["field"]!.GetValue<string>().ShouldBe("people");
    }

    [Fact]
    public async Task A_deactivated_persons_next_request_is_refused_on_both_instances_and_they_come_back()
    {
        using var one = await school.As(DemoPeople.Colleague);
        using var other = await school.As(DemoPeople.Colleague, 1);
        (await one.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
        var person = school.Ids["person:" + DemoPeople.Colleague];
        (await Do("deactivate-person", new { person })).Status.ShouldBe(HttpStatusCode.OK);
        (await one.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await other.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await Do("invite-again", new { person })).Json["field"]!.GetValue<string>().ShouldBe("person");
        (await Do("reactivate-person", new { person })).Status.ShouldBe(HttpStatusCode.OK);
        using var again = await school.As(DemoPeople.Colleague, 1);
        (await again.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Whoever_is_taken_out_of_the_office_sees_no_people_any_more_and_nobody_does_that_to_themselves()
    {
        await Role("office", true);
        using var lead = await school.As(DemoPeople.Lead, 1);
        (await lead.Get("/api/people")).Status.ShouldBe(HttpStatusCode.OK);
        await Role("office", false);
        (await lead.Get("/api/people")).Status.ShouldBe(HttpStatusCode.NotFound);
        var oneself = new { person = school.Ids["person:" + DemoPeople.Office] };
        (await Do("deactivate-person", oneself)).Code.ShouldBe("forbidden");
        (
            await Do(
                "set-role",
                new
                {
                    oneself.person,
                    role = "office",
                    has = false,
                }
            )
        ).Code.ShouldBe("forbidden");
    }

    [Fact]
    public async Task Sessions_are_counted_and_ended()
    {
        var person = school.Ids["person:" + DemoPeople.Lead];
        using var lead = await school.As(DemoPeople.Lead, 1);
        (await Row("orla.tierney-vance@fenwater.example"))["sessions"]!.GetValue<int>().ShouldBe(1);
        await Do("end-sessions", new { person });
        (await lead.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await Row("orla.tierney-vance@fenwater.example"))["sessions"]!.GetValue<int>().ShouldBe(0);
    }
}
