using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Who is in which section comes from a file: looked at first, done once, and taken back.</summary>
public sealed class RosterTests : IAsyncLifetime
{
    private School school = null!;
    private Caller office = null!;

    /// <summary>A request for an import of somebody new into a section that is new.</summary>
    public static async Task<object?> Newcomer(School of) =>
        Request(
            await TermCommandExamples.Autumn(of),
            $"name,email,section\nBo Castellan,bo.{Guid.NewGuid():N}@fenwater.example,9 Elder {Guid.NewGuid():N}"
        );

    /// <summary>An import that was made.</summary>
    public static async Task<object?> Made(School of)
    {
        using var office = await of.As(DemoPeople.Office);
        var made = (await office.Post("/api/school/import-roster", await Newcomer(of), Guid.NewGuid())).Json;
        return new { term = await TermCommandExamples.Autumn(of), import = made["import"]!.GetValue<long>() };
    }

    /// <summary>A table whose columns are asked for.</summary>
    public static object Table => new { file = Base64("name,email,section\n") };

    private static string Base64(string text) => Convert.ToBase64String(Encoding.UTF8.GetBytes(text));

    private static object Request(
        long term,
        string text,
        bool endMissing = false,
        string from = "2026-10-08",
        IReadOnlyList<string>? columns = null
    ) =>
        new
        {
            term,
            fileName = "roster.csv",
            file = Base64(text),
            columns,
            from,
            endMissing,
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

    private async Task<Reply> Import(string text, bool endMissing = false, bool preview = false, string from = "2026-10-08")
    {
        var body = Request(await TermCommandExamples.Autumn(school), text, endMissing, from);
        return preview
            ? await office.Post("/api/school/import-roster?preview=true", body)
            : await office.Post("/api/school/import-roster", body, Guid.NewGuid());
    }

    private static IEnumerable<string> Of(JsonNode answer, string outcome) =>
        answer["lines"]!
            .AsArray()
            .Where(line => line!["outcome"]!.GetValue<string>() == outcome)
            .Select(line => $"{line!["words"]} ({line["reason"]})");

    // 9 Birch as it stands, as a table, with one row for each student.
    private async Task<string> Birch(string? leaveOut = null)
    {
        var rows = await school.Sql(connection =>
            connection.QueryAsync<(string Name, string Email, string From)>(
                """
                SELECT p.name, p.email::text, lower(n.period)::text FROM enrolment n JOIN person p ON p.id = n.person
                JOIN section c ON c.id = n.section
                WHERE c.name = '9 Birch' AND (upper_inf(n.period) OR upper(n.period) > '2026-10-08') ORDER BY p.id
                """
            )
        );
        return "name,email,section,from\n"
            + string.Join('\n', rows.Where(row => row.Name != leaveOut).Select(row => $"{row.Name},{row.Email},9 Birch,{row.From}"));
    }

    private async Task<int> Students(string section) =>
        (await office.Get($"/api/terms/{await TermCommandExamples.Autumn(school)}/calendar")).Json["sections"]!
            .AsArray()
            .Single(one => one!["name"]!.GetValue<string>() == section)!["students"]!.GetValue<int>();

    [Fact]
    public async Task Somebody_new_is_in_their_section_and_sees_it_and_nobody_elses()
    {
        const string Text =
            "name,email,section,role\nBo Castellan,bo@fenwater.example,9 Birch,\nMarit Oyelaran,marit@fenwater.example,9 Elder,teacher";
        var before = await school.RowCounts("audit", "request");
        var shown = (await Import(Text, preview: true)).Json;
        (await school.RowCounts("audit", "request")).ShouldBe(before);
        var done = (await Import(Text)).Json;
        done["sentence"]!
            .GetValue<string>()
            .ShouldBe("2 accounts are added, 1 section is added, 1 enrolment is added and 1 section gets a teacher");
        JsonNode.DeepEquals(shown["lines"], done["lines"]).ShouldBeTrue();
        var invited = (
            await office.Post("/api/school/invite-people", PeopleTests.Invited(false, await Person("bo@fenwater.example")), Guid.NewGuid())
        ).Json["people"]![0]!["address"]!.GetValue<string>();
        using var bo = new Caller(school.Address());
        var welcomed = await bo.Post($"/api{new Uri(invited).AbsolutePath}", new { password = "a heron on one leg" });
        bo.Session = welcomed.Message.Headers.GetValues("Set-Cookie").First().Split('=', ';')[1];
        var places = (await bo.Get("/api/places")).Json["sections"]!.AsArray();
        places.ShouldHaveSingleItem()!["name"]!.GetValue<string>().ShouldBe("9 Birch");
        (await bo.Get($"/api/sections/{school.Ids["section:9 Alder"]}/now")).Status.ShouldBe(HttpStatusCode.NotFound);
        // Those who teach see the new student too.
        using var lead = await school.As(DemoPeople.Lead);
        (await lead.Get($"/api/editions/{school.WeatherWatch}/students")).Text.ShouldContain("Bo Castellan");
    }

    private Task<long> Person(string email) =>
        school.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT id FROM person WHERE email = @email::citext", new { email }));

    [Fact]
    public async Task Imported_again_nothing_changes()
    {
        const string Text =
            "name,email,section,number\nBo Castellan,bo@fenwater.example,9 Birch,7\nLena Quist,lena@fenwater.example,9 Elder,8";
        (await Import(Text)).Json["import"].ShouldNotBeNull();
        var before = await school.RowCounts("audit", "request");
        var again = (await Import(Text)).Json;
        (again["sentence"]!.GetValue<string>(), again["import"]).ShouldBe(("Nothing changes", null));
        (await school.RowCounts("audit", "request")).ShouldBe(before);
        // Found by number, they are called and reached as the file says by now.
        var renamed = (await Import(Text.Replace("Quist,lena@", "Quist-Marlowe,lena.marlowe@", StringComparison.Ordinal))).Json;
        Of(renamed, "changed")
            .ShouldBe(["Lena Quist is now Lena Quist-Marlowe (lena.marlowe@fenwater.example instead of lena@fenwater.example)"]);
    }

    [Fact]
    public async Task Whoever_the_file_lacks_ends_only_when_asked_and_comes_back_with_it()
    {
        var text = await Birch(DemoPeople.HeldUp);
        var here = await Students("9 Birch");
        var left = (await Import(text)).Json;
        Of(left, "missing").ShouldBe([$"{DemoPeople.HeldUp} in 9 Birch (Not in the file: left as it is.)"]);
        left["sentence"]!.GetValue<string>().ShouldBe("Nothing changes");
        using var davit = await school.As(DemoPeople.HeldUp);
        var section = school.Ids["section:9 Birch"];
        (await davit.Get($"/api/sections/{section}/now")).Status.ShouldBe(HttpStatusCode.OK);

        var ended = (await Import(text, endMissing: true)).Json;
        ended["sentence"]!.GetValue<string>().ShouldBe("1 enrolment ends");
        (await davit.Get($"/api/sections/{section}/now")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Students("9 Birch")).ShouldBe(here - 1);

        var back = await office.Post(
            "/api/school/take-back-roster",
            new { term = await TermCommandExamples.Autumn(school), import = ended["import"] },
            Guid.NewGuid()
        );
        back.Json["sentence"]!.GetValue<string>().ShouldStartWith("0 enrolments are taken back and 1 goes on that had ended");
        (await davit.Get($"/api/sections/{section}/now")).Status.ShouldBe(HttpStatusCode.OK);
        (await Students("9 Birch")).ShouldBe(here);
    }

    [Fact]
    public async Task What_does_not_agree_is_said_and_left()
    {
        var lead = await school.Sql(connection =>
            connection.ExecuteScalarAsync<string>("SELECT email::text FROM person WHERE name = @name", new { name = DemoPeople.Lead })
        );
        var rows = (await Birch()).Split('\n');
        await office.Post("/api/school/deactivate-person", new { person = school.Ids["person:" + DemoPeople.JoinedLate] }, Guid.NewGuid());
        var late = await school.Sql(connection =>
            connection.ExecuteScalarAsync<string>("SELECT email::text FROM person WHERE name = @name", new { name = DemoPeople.JoinedLate })
        );
        var first = rows[1].Split(',');
        var text = string.Join(
            '\n',
            [
                rows[0],
                $"{first[0]},{first[1]},9 Birch,2026-09-15",
                $"{DemoPeople.JoinedLate},{late},9 Birch,",
                $"Somebody Else,{lead},9 Birch,",
                "Bo,bo@fenwater.example,9 Birch,then",
            ]
        );
        var answer = (await Import(text, preview: true)).Json;
        var conflicts = Of(answer, "conflict").ToList();
        conflicts.Count.ShouldBe(2);
        conflicts[0].ShouldContain("is deactivated");
        conflicts[1]
            .ShouldStartWith($"{first[0]} in 9 Birch (The first day is 15 Sep in the file and 31 Aug here; it stays as it is here.)");
        Of(answer, "fault").ShouldHaveSingleItem().ShouldStartWith("from: “then” is not a date.");
        // Somebody known by their address keeps their name.
        Of(answer, "same").ShouldContain($"{DemoPeople.Lead} (the file says Somebody Else)");
    }

    [Fact]
    public async Task Taken_back_what_it_added_is_gone_but_for_accounts_and_for_where_somebody_has_worked()
    {
        var text = "name,email,section\nBo Castellan,bo@fenwater.example,9 Birch\nLena Quist,lena@fenwater.example,9 Elder";
        var before = await school.RowCounts("audit", "request", "person", "roster_key", "roster_import", "edition");
        var made = (await Import(text)).Json["import"]!.GetValue<long>();
        var asked = new { term = await TermCommandExamples.Autumn(school), import = made };
        (await office.Post("/api/school/take-back-roster", asked, Guid.NewGuid())).Json["sentence"]!
            .GetValue<string>()
            .ShouldBe("2 enrolments are taken back. Accounts stay: deactivate them in People.");
        (await school.RowCounts("audit", "request", "person", "roster_key", "roster_import", "edition")).ShouldBe(before);
        (await office.Post("/api/school/take-back-roster", asked, Guid.NewGuid())).Code.ShouldBe("cannot-undo");

        // Once more; by then one of them has opened something.
        made = (await Import(text)).Json["import"]!.GetValue<long>();
        var item = await school.Item("Cloud diary");
        await school.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO fact (person, item, section, event, at, recorded_at, by, request)
                SELECT id, @item, @section, 'opened', '2026-10-08T10:00Z', '2026-10-08T10:00Z', id, gen_random_uuid()
                FROM person WHERE email = 'bo@fenwater.example'
                """,
                new { item, section = school.Ids["section:9 Birch"] }
            )
        );
        (
            await office.Post(
                "/api/school/take-back-roster",
                new { term = await TermCommandExamples.Autumn(school), import = made },
                Guid.NewGuid()
            )
        ).Json["sentence"]!
            .GetValue<string>()
            .ShouldStartWith("1 enrolment is taken back and 1 stays, since the student has worked there");
    }

    [Fact]
    public async Task Nobody_is_ended_while_a_row_cannot_be_read_that_may_be_theirs()
    {
        var text = (await Birch(DemoPeople.HeldUp)) + "\nDavit L.,davit at fenwater,9 Birch,";
        var answer = (await Import(text, endMissing: true)).Json;
        answer["sentence"]!.GetValue<string>().ShouldBe("Nothing changes");
        Of(answer, "missing")
            .ShouldBe([$"{DemoPeople.HeldUp} in 9 Birch (Nobody’s enrolment is ended while rows of the file cannot be read.)"]);
    }

    [Fact]
    public async Task What_cannot_be_taken_back_since_somebody_came_back_meanwhile_is_said()
    {
        var text = await Birch(DemoPeople.HeldUp);
        var ended = (await Import(text, endMissing: true)).Json["import"];
        (await Import(await Birch(), from: "2026-10-12")).Status.ShouldBe(HttpStatusCode.OK);
        var email = await school.Sql(connection =>
            connection.ExecuteScalarAsync<string>("SELECT email::text FROM person WHERE name = @name", new { name = DemoPeople.HeldUp })
        );
        (await Import($"name,email,section\n{DemoPeople.HeldUp},{email},9 Birch", from: "2026-10-12")).Status.ShouldBe(HttpStatusCode.OK);
        var before = await school.RowCounts("audit", "request");
        var term = await TermCommandExamples.Autumn(school);
        var back = await office.Post("/api/school/take-back-roster", new { term, import = ended }, Guid.NewGuid());
        (back.Status, back.Code).ShouldBe((HttpStatusCode.Conflict, "in-use"));
        (await school.RowCounts("audit", "request")).ShouldBe(before);
        // Of another term there is no such import.
        var other = await TermCommandExamples.Term(school, "Spring term 2027");
        (await office.Post("/api/school/take-back-roster", new { term = other, import = ended }, Guid.NewGuid())).Code.ShouldBe(
            "cannot-undo"
        );
    }

    [Fact]
    public async Task Columns_that_somebody_named_are_remembered()
    {
        var term = await TermCommandExamples.Autumn(school);
        const string Text = "Wer,Post,Wo\nBo Castellan,bo@fenwater.example,9 Birch";
        var asked = await office.Post("/api/school/roster-columns", new { file = Base64(Text) });
        asked.Json["columns"]!.AsArray().Select(column => column!.GetValue<string>()).ShouldBe(["ignored", "ignored", "ignored"]);
        (await office.Post("/api/school/import-roster?preview=true", Request(term, Text))).Json["field"]!
            .GetValue<string>()
            .ShouldBe("file");
        (
            await office.Post("/api/school/import-roster", Request(term, Text, columns: ["name", "email", "section"]), Guid.NewGuid())
        ).Status.ShouldBe(HttpStatusCode.OK);
        var again = (await office.Post("/api/school/roster-columns", new { file = Base64(Text) })).Json;
        again["columns"]!.AsArray().Select(column => column!.GetValue<string>()).ShouldBe(["name", "email", "section"]);
        again["remembered"]!.GetValue<bool>().ShouldBeTrue();
    }

    [Theory]
    [InlineData("file", "not base64!", "2026-10-08")]
    [InlineData("file", "", "2026-10-08")]
    [InlineData("file", "UEsDBAECAw==", "2026-10-08")]
    [InlineData("from", "bmFtZSxlbWFpbCxzZWN0aW9uCg==", "2026-01-08")]
    [InlineData("from", "bmFtZSxlbWFpbCxzZWN0aW9uCg==", "today")]
    public async Task What_is_no_roster_is_refused(string field, string file, string from)
    {
        var reply = await office.Post(
            "/api/school/import-roster",
            new
            {
                term = await TermCommandExamples.Autumn(school),
                fileName = "roster.csv",
                file,
                columns = (object?)null,
                from,
                endMissing = false,
            },
            Guid.NewGuid()
        );
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, field));
    }
}
