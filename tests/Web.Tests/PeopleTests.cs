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
        byMail = false,
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

    public static object Invited(bool byMail, params long[] people) => new { people, byMail };

    /// <summary>Somebody who can be erased.</summary>
    public static async Task<object> Somebody(School of)
    {
        var name = $"Passing {Guid.NewGuid():N}";
        var person = await of.Sql(connection => PersonStore.Add(connection, name, $"{Guid.NewGuid():N}@away.example", "", office: false));
        return new { person = person.Value, name };
    }

    /// <summary>Two new accounts of one person.</summary>
    public static async Task<TwoAccounts> TwoThatAreOne(School of)
    {
        Task<Core.Id<Core.Sections.Person>> Added() =>
            of.Sql(connection => PersonStore.Add(connection, "Twice Here", $"{Guid.NewGuid():N}@away.example", "", office: false));
        return new((await Added()).Value, (await Added()).Value);
    }

    public sealed record TwoAccounts(long Kept, long Other);

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
        var second = Path((await Do("invite-people", Invited(false, person))).Json["people"]![0]!["address"]!);
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
                byMail = false,
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
                    byMail = false,
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
        (await Do("add-people", new { byMail = false, people })).Json["field"]!.GetValue<string>().ShouldBe(field);
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
        (await Do("add-people", new { byMail = false, people = twice })).Json["field"]!.GetValue<string>().ShouldBe("people");
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
        (await Do("invite-people", Invited(true, person))).Json["field"]!.GetValue<string>().ShouldBe("people");
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

    [Fact]
    public async Task The_office_reads_who_did_what_by_part_and_by_person_and_finds_no_name_of_a_thing_left_unsaid()
    {
        var person = school.Ids["person:" + DemoPeople.Colleague];
        await Do("deactivate-person", new { person });
        await Do("reactivate-person", new { person });
        await Role("teacher", false);
        using var lead = await school.As(DemoPeople.Lead);
        await lead.Post($"/api/editions/{school.WeatherWatch}/add-group", new { name = "Quay" }, Guid.NewGuid());
        async Task<List<string>> Lines(string query) =>
            [
                .. (await office.Get($"/api/people/record?{query}")).Json["lines"]!
                    .AsArray()
                    .Select(line => $"{line!["who"]} {line["words"]} {line["place"]}".Trim()),
            ];
        (await Lines("of=school"))
            .Take(3)
            .ShouldBe([
                $"{DemoPeople.Office} no longer let {DemoPeople.Lead} make courses",
                $"{DemoPeople.Office} reactivated {DemoPeople.Colleague}’s account",
                $"{DemoPeople.Office} deactivated {DemoPeople.Colleague}’s account",
            ]);
        (await Lines("of=plans"))[0].ShouldBe($"{DemoPeople.Lead} named the group “Quay” Weather Watch, edition 2026");
        (await Lines($"person={person}&of=school")).Count.ShouldBe(2);
        using var anyone = await school.As(null);
        await anyone.Post("/api/sign-in", new { email = "orla.tierney-vance@fenwater.example", password = DemoPeople.Password });
        (await Lines("of=sign-ins")).ShouldBe([$"{DemoPeople.Lead} signed in from 127.0.0.1"]);
        (await Lines("skip=1"))[0].ShouldBe((await Lines(""))[1]);
        (await office.Get("/api/people/record?of=nothing")).Status.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task One_person_s_data_goes_out_whole_and_erased_nothing_of_them_is_found_anywhere_and_nothing_else_breaks()
    {
        var person = school.Ids["person:" + DemoPeople.OnTrack];
        using var lead = await school.As(DemoPeople.Lead);
        await lead.Post(
            $"/api/editions/{school.WeatherWatch}/arrange",
            new
            {
                student = person,
                dueDays = 2,
                quizTime = (int?)null,
                reason = "A private reason",
                version = 0,
            },
            Guid.NewGuid()
        );
        var data = (await office.Get($"/api/people/{person}/data")).Json;
        data["account"]!["name"]!.GetValue<string>().ShouldBe(DemoPeople.OnTrack);
        data["agreed"]![0]!["reason"]!.GetValue<string>().ShouldBe("A private reason");
        data["work"]![0]!["versions"]![0]!["text"]!.GetValue<string>().ShouldNotBeEmpty();
        data["happened"]!.AsArray().Count.ShouldBeGreaterThan(5);

        var ask = new { person, name = "Imke" };
        (await Do("erase-person", ask)).Json["field"]!.GetValue<string>().ShouldBe("name");
        var alone = new { person = school.Ids["person:" + DemoPeople.Lead], name = DemoPeople.Lead };
        (await Do("erase-person", alone)).Json["field"]!.GetValue<string>().ShouldBe("person");
        var whole = new { person, name = DemoPeople.OnTrack };
        const string Remarked =
            "UPDATE feedback f SET remarks = '[{\"at\": {\"from\": 0, \"to\": 4}, \"text\": \"Well seen.\"}]' "
            + "FROM work w WHERE w.id = f.work AND w.person = @person";
        (await school.Sql(connection => connection.ExecuteAsync(Remarked, new { person }))).ShouldBeGreaterThan(0);
        var shown = (await office.Post("/api/school/erase-person?preview=true", whole)).Json;
        shown["stays"]!.AsArray().Count.ShouldBeGreaterThan(0);
        var facts = data["happened"]!.AsArray().Count;
        using var student = await school.As(DemoPeople.OnTrack, 1);
        (await student.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
        (await Do("erase-person", whole)).Status.ShouldBe(HttpStatusCode.OK);
        (await student.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        // Nowhere in the whole database.
        foreach (var trace in new[] { DemoPeople.OnTrack, "imke.osei@", "A private reason" })
            (await school.TablesWith(trace)).ShouldBe([], trace);
        const string Texts =
            "SELECT count(*)::int FROM work w JOIN work_version v ON v.work = w.id LEFT JOIN feedback f ON f.work = w.id "
            + "WHERE w.person = @person AND (v.text <> '' OR f.text <> '' OR f.remarks IS NOT NULL)";
        (await school.Sql(connection => connection.ExecuteScalarAsync<int>(Texts, new { person }))).ShouldBe(0);
        (
            await school.Sql(connection =>
                connection.ExecuteScalarAsync<int>("SELECT count(*)::int FROM fact WHERE person = @person", new { person })
            )
        ).ShouldBeGreaterThanOrEqualTo(facts);
        (await lead.Get($"/api/editions/{school.WeatherWatch}/class-lists")).Text.ShouldNotContain(DemoPeople.OnTrack);
        (await lead.Get($"/api/editions/{school.WeatherWatch}/work")).Status.ShouldBe(HttpStatusCode.OK);
        (await Polycline.Data.Verify.Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }
}
