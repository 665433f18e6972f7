using System.Net;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Two accounts that are one person's.</summary>
public sealed class JoinPeopleTests : IAsyncLifetime
{
    // What people have, but for counters of rows.
    private static readonly string[] Theirs =
    [
        "fact",
        "work",
        "work_version",
        "feedback",
        "draft",
        "quiz_attempt",
        "enrolment",
        "in_group",
        "exception",
        "arrangement",
        "home",
        "section_teacher",
        "master_member",
        "roster_key",
        "code_use",
        "change",
    ];

    private School school = null!;
    private Caller office = null!;
    private Caller lead = null!;
    private long kept;
    private long other;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open(2);
        office = await school.As(DemoPeople.Office);
        lead = await school.As(DemoPeople.Lead);
        (kept, other) = (school.Ids["person:" + DemoPeople.OnTrack], school.Ids["person:" + DemoPeople.HeldUp]);
    }

    public async ValueTask DisposeAsync()
    {
        office.Dispose();
        lead.Dispose();
        await school.DisposeAsync();
    }

    [Fact]
    public async Task Joined_they_are_one_with_all_they_did_and_separated_everything_is_where_it_was()
    {
        await Arrange(kept, 2);
        await Arrange(other, 5);
        await Sql("INSERT INTO home (edition, person, section) SELECT edition, @other, id FROM section WHERE name = '9 Birch'");
        // The same section twice, meeting in the middle; and a draft of the same thing under both.
        await Sql(
            """
            INSERT INTO enrolment (section, person, period) SELECT id, @other, '[2026-09-14,)' FROM section WHERE name = '9 Alder';
            INSERT INTO draft (person, item, text, saved_at)
            SELECT p, (SELECT max(i.id) FROM item i JOIN section c ON c.edition = i.edition WHERE c.name = '9 Birch'), t, now()
            FROM (VALUES (@kept, 'one'), (@other, 'two')) d (p, t)
            ON CONFLICT (person, item) DO UPDATE SET text = excluded.text
            """
        );
        await Sql(
            """
            UPDATE work_version v
            SET links = ARRAY['https://films.example/fog'], entries = '[{"on":"2026-10-05","text":"Fog"}]', together = v.request
            FROM work w WHERE w.id = v.work AND w.person IN (@kept, @other)
            """
        );
        // Marked on paper under one account, for what was handed in under both.
        await Sql(
            """
            INSERT INTO feedback (work, by, text, again, mark, returned_at)
            SELECT min(w.id), @kept, '', false, '{"as":"points"}', now() FROM work w JOIN work k ON k.person = @kept AND k.item = w.item
            WHERE w.person = @other
            """
        );
        (await Count("feedback WHERE n IS NULL")).ShouldBe(1);
        var before = await All();
        var facts = await Count("fact WHERE person IN (@kept, @other)");
        var versions = await Count("work_version v JOIN work w ON w.id = v.work WHERE w.person IN (@kept, @other)");
        var both = await Count("work k JOIN work o ON o.item = k.item AND o.person = @other WHERE k.person = @kept");
        both.ShouldBeGreaterThan(0, "something that both have handed in for");

        var shown = await office.Post("/api/school/join-people?preview=true", new { kept, other });
        var comes = string.Join("\n", shown.Json["comes"]!.AsArray().Select(line => line!.GetValue<string>()));
        comes.ShouldContain($"{both} pieces of work they handed in under both accounts");
        comes.ShouldContain("1 thing agreed differently under each account");
        (await All()).ShouldBe(before);
        using var student = await school.As(DemoPeople.HeldUp, 1);
        (await student.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
        (await Do("join-people", new { kept, other })).Status.ShouldBe(HttpStatusCode.OK);

        // What was open under the other account is closed, and it opens nothing any more.
        (await student.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await Do("reactivate-person", new { person = other })).Json["field"]!.GetValue<string>().ShouldBe("person");
        // Nothing is lost: all records and versions are the one's.
        (await Count("fact WHERE person = @kept")).ShouldBe(facts);
        (
            await Count(
                "work_version v JOIN work w ON w.id = v.work WHERE w.person = @kept AND cardinality(v.links) = 1 AND v.entries IS NOT NULL "
                    + "AND v.together = v.request"
            )
        ).ShouldBe(versions);
        (await Count("work WHERE person = @other")).ShouldBe(0);
        (await Count("feedback f JOIN work w ON w.id = f.work WHERE w.person = @kept AND f.n IS NULL")).ShouldBe(1);
        (await Count("work_version a JOIN work_version b ON b.work = a.work AND b.n > a.n AND b.handed_in_at < a.handed_in_at")).ShouldBe(
            0
        );
        (
            await Count("enrolment n JOIN section c ON c.id = n.section WHERE n.person = @kept AND c.name IN ('9 Alder', '9 Birch')")
        ).ShouldBe(2);
        (
            await school.Sql(c =>
                c.ExecuteScalarAsync<string>("SELECT text FROM draft WHERE person = @kept AND text LIKE 'one%'", new { kept })
            )
        ).ShouldBe("one\n\ntwo");
        (await Count("arrangement WHERE person = @kept AND due_days = 2")).ShouldBe(1);
        // Class lists, work and the log all tell of one person.
        var lists = (await lead.Get(Route("class-lists"))).Text;
        lists.ShouldNotContain(DemoPeople.HeldUp);
        (await lead.Get(Route("work"))).Status.ShouldBe(HttpStatusCode.OK);
        (await lead.Get(Route($"students/{kept}"))).Status.ShouldBe(HttpStatusCode.OK);
        (await Polycline.Data.Verify.Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
        (await office.Get("/api/people")).Text.ShouldContain($"{DemoPeople.OnTrack}, {DemoPeople.Email(DemoPeople.OnTrack)}");

        (await Do("separate-people", new { person = other })).Status.ShouldBe(HttpStatusCode.OK);
        (await All()).ShouldBe(before);
        (await Polycline.Data.Verify.Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
        using var again = await school.As(DemoPeople.HeldUp);
        (await again.Get("/api/places")).Text.ShouldContain("9 Birch");
    }

    [Fact]
    public async Task What_has_been_touched_since_is_not_torn_apart_and_erased_nothing_of_either_is_left()
    {
        // What was put back before they were joined, and is undone after, is the one person's.
        async Task<long> Given(string change) =>
            (
                await lead.Post(
                    Route("for-students"),
                    new
                    {
                        students = new[] { other },
                        items = new[] { (await CommandExamples.FirstItem(school, school.WeatherWatch)).Item },
                        change,
                        days = (int?)null,
                        until = (string?)null,
                    },
                    Guid.NewGuid()
                )
            ).Json["batch"]!.GetValue<long>();
        await Given("excuse");
        var putBack = await Given("put-back");
        (await Do("join-people", new { kept, other })).Status.ShouldBe(HttpStatusCode.OK);
        (await lead.Post(Route("undo"), new { batch = putBack }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await Count("exception WHERE person = @kept AND field = 'excused'")).ShouldBe(1);
        (await Count("exception WHERE person = @other")).ShouldBe(0);
        (await Polycline.Data.Verify.Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
        await Sql("UPDATE enrolment SET version = version + 1 WHERE person = @kept");
        var refused = await Do("separate-people", new { person = other });
        (refused.Status, refused.Code).ShouldBe((HttpStatusCode.Conflict, "cannot-undo"), refused.Text);
        (await Do("erase-person", new { person = kept, name = DemoPeople.OnTrack })).Status.ShouldBe(HttpStatusCode.OK);
        foreach (var trace in new[] { DemoPeople.OnTrack, DemoPeople.HeldUp, "davit.lindqvist@" })
            (await school.TablesWith(trace)).ShouldBe([], trace);
    }

    [Fact]
    public async Task Teachers_are_joined_with_what_they_teach_and_nobody_gives_themselves_up()
    {
        var (orla, tomas) = (school.Ids["person:" + DemoPeople.Lead], school.Ids["person:" + DemoPeople.CoTeacher]);
        var before = await All();
        (await Do("join-people", new { kept = tomas, other = orla })).Status.ShouldBe(HttpStatusCode.OK);
        (await Count("section_teacher t JOIN section c ON c.id = t.section WHERE c.name LIKE '9 %' AND t.person = " + tomas)).ShouldBe(6);
        (await Count($"master_member WHERE role = 'lead' AND person = {tomas}")).ShouldBeGreaterThan(0);
        (await Do("separate-people", new { person = orla })).Status.ShouldBe(HttpStatusCode.OK);
        (await All()).ShouldBe(before);
        var fintan = school.Ids["person:" + DemoPeople.Office];
        (await Do("join-people", new { kept, other = fintan })).Status.ShouldBe(HttpStatusCode.Forbidden);
        (await Do("join-people", new { kept, other = kept })).Json["field"]!.GetValue<string>().ShouldBe("other");
        (await Do("separate-people", new { person = other })).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    private async Task Arrange(long student, int days) =>
        (
            await lead.Post(
                Route("arrange"),
                new
                {
                    student,
                    dueDays = days,
                    quizTime = (int?)null,
                    reason = "",
                    version = 0,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);

    private Task<Reply> Do(string command, object body) => office.Post($"/api/school/{command}", body, Guid.NewGuid());

    private string Route(string what) => $"/api/editions/{school.WeatherWatch}/{what}";

    private Task<int> Sql(string statement) => school.Sql(connection => connection.ExecuteAsync(statement, new { kept, other }));

    private Task<int> Count(string of) =>
        school.Sql(connection => connection.ExecuteScalarAsync<int>($"SELECT count(*)::int FROM {of}", new { kept, other }));

    private Task<string> All() =>
        school.Sql(async connection =>
        {
            var all = new List<string>();
            foreach (var table in Theirs)
                all.AddRange(
                    await connection.QueryAsync<string>(
                        $"SELECT '{table} ' || (to_jsonb(t) - 'version')::text FROM {table} t ORDER BY (to_jsonb(t) - 'version')::text"
                    )
                );
            return string.Join("\n", all);
        });
}
