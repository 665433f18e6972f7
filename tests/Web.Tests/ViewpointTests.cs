using System.Net;
using Dapper;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using NodaTime.Text;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.AccessControl;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Who may look through whose eyes, and at which moment.</summary>
public sealed class ViewpointTests(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    private School school = null!;

    public async ValueTask InitializeAsync() => school = await shared.Open();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Theory]
    [InlineData("at=2026-10-15T09:00:00Z")]
    [InlineData("as=team")]
    [InlineData("as=student:1")]
    public async Task A_student_can_set_neither_moment_nor_eyes(string view)
    {
        using var student = await school.As(DemoPeople.OnTrack);
        (await student.Get($"/api/sections/{school.Ids["section:9 Alder"]}?{view}")).Status.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task Through_a_students_eyes_at_a_moment_every_answer_is_that_students_own_then_to_the_byte()
    {
        // From where the demo's clock starts, and next Thursday at 10:00, to the end of the term; time does not go back.
        var moments = Enumerable
            .Range(0, 19)
            .Select(n => DemoSchool.Start + Duration.FromHours(91 * n))
            .Append(Instant.FromUtc(2026, 10, 15, 9, 0))
            .Order()
            .ToList();
        var clock = new Stopped(moments[0]);
        await using var now = await School.Open();
        await using var then = await School.Open(database: now.Database.Shared(), clock: clock);
        using var lead = await now.As(DemoPeople.Lead);
        (string Name, string Section)[] students =
        [
            (DemoPeople.OnTrack, "9 Alder"),
            (DemoPeople.HeldUp, "9 Birch"),
            (DemoPeople.JoinedLate, "9 Cedar"),
        ];
        for (var n = 0; n < moments.Count; n++)
        {
            clock.Moment = moments[n];
            // At the first and the last everything is read as each of them; in between in turn, every item in some of them.
            var isWhole = n == 0 || n == moments.Count - 1;
            foreach (var (name, section) in isWhole ? students : [students[n % students.Length]])
            {
                using var student = await then.As(name);
                var view = $"as=student:{now.Ids["person:" + name]}&at={InstantPattern.General.Format(clock.Moment)}";
                var addresses = await StudentAddresses(now, student, now.Ids["section:" + section], isWhole ? 1 : 7, n);
                foreach (var address in addresses)
                {
                    var own = await student.Get(address);
                    var seen = await lead.Get($"{address}?{view}");
                    (seen.Status, seen.Text).ShouldBe((own.Status, own.Text), $"{address} {view}");
                }
            }
        }
        moments.Count.ShouldBe(20);
    }

    // Whatever a student can read: every such endpoint there is, and of the course's items one in so many.
    private static async Task<IReadOnlyList<string>> StudentAddresses(School school, Caller student, long section, int oneIn, int from)
    {
        var routes = school
            .Instance.Services.GetServices<EndpointDataSource>()
            .SelectMany(source => source.Endpoints)
            .OfType<RouteEndpoint>()
            .Where(endpoint =>
                endpoint.Metadata.GetMetadata<AccessRule>()?.May.HasFlag(May.SectionStudent) == true
                && endpoint.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods.Contains("GET")
            )
            .Select(endpoint => endpoint.RoutePattern.RawText!.Replace("{section:long}", $"{section}", StringComparison.Ordinal))
            .ToList();
        routes.Count.ShouldBeGreaterThanOrEqualTo(3);
        var items = await school.Sql(connection =>
            connection.QueryAsync<long>("SELECT id FROM item WHERE edition = @WeatherWatch ORDER BY id", new { school.WeatherWatch })
        );
        var units = await school.Sql(connection =>
            connection.QueryAsync<long>("SELECT id FROM unit WHERE edition = @WeatherWatch", new { school.WeatherWatch })
        );
        (await student.Get($"/api/sections/{section}/now")).Status.ShouldBe(HttpStatusCode.OK);
        return
        [
            .. routes.SelectMany(route =>
                route.Contains("{item:long}", StringComparison.Ordinal)
                    ? items
                        .Where((_, n) => n % oneIn == from % oneIn)
                        .Select(item => route.Replace("{item:long}", $"{item}", StringComparison.Ordinal))
                : route.Contains("{unit:long}", StringComparison.Ordinal)
                    ? units.Select(unit => route.Replace("{unit:long}", $"{unit}", StringComparison.Ordinal))
                : [route]
            ),
        ];
    }

    private sealed class Stopped(Instant moment) : IClock
    {
        public Instant Moment { get; set; } = moment;

        public Instant GetCurrentInstant() => Moment;
    }

    [Fact]
    public async Task Through_a_lens_nothing_is_recorded()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var before = await school.RowCounts("audit");
        var item = await school.Item("Cloud diary");
        var view = $"as=student:{school.Ids["person:" + DemoPeople.OnTrack]}";
        var section = $"/api/sections/{school.Ids["section:9 Alder"]}";
        (await lead.Get($"{section}/items/{item}?{view}")).Status.ShouldBe(HttpStatusCode.OK);
        foreach (var (what, body) in AsStudents(item))
            (await lead.Post($"{section}/{what}?{view}", body, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.NotFound, what);
        (await school.RowCounts("audit")).ShouldBe(before);
    }

    [Fact]
    public async Task A_lens_leaves_a_trace_that_cannot_be_taken_back_and_the_teams_screens_stay_the_teams()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var student = school.Ids["person:" + DemoPeople.HeldUp];
        (await lead.Get($"/api/editions/{school.WeatherWatch}/outline?as=student:{student}")).Status.ShouldBe(HttpStatusCode.Forbidden);
        var traces = await school.Sql(connection =>
            connection.QueryAsync<string>("SELECT about->>'student' FROM audit WHERE what = 'lens-used' ORDER BY id DESC LIMIT 1")
        );
        traces.ShouldBe([$"{student}"]);
    }

    [Fact]
    public async Task Nobody_looks_through_the_eyes_of_a_student_who_is_not_theirs()
    {
        using var co = await school.As(DemoPeople.CoTeacher);
        using var other = await school.As(DemoPeople.Colleague);
        var ribbon = $"/api/editions/{school.WeatherWatch}/ribbon";
        (await co.Get($"{ribbon}?as=student:{school.Ids["person:" + DemoPeople.InTwoSections]}")).Status.ShouldBe(HttpStatusCode.OK);
        (await co.Get($"{ribbon}?as=student:{school.Ids["person:" + DemoPeople.OnTrack]}")).Status.ShouldBe(HttpStatusCode.NotFound);
        (
            await other.Get(
                $"/api/editions/{school.Ids["edition:Tides and Channels 2026"]}/ribbon"
                    + $"?as=student:{school.Ids["person:" + DemoPeople.OnTrack]}"
            )
        ).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_pretend_student_sees_what_a_student_would_of_whom_that_is_known_and_is_counted_nowhere()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var section = school.Ids["section:9 Alder"];
        var quiz = await school.Item("Clouds by name");
        async Task<string> Seen(string facts, string title) =>
            (await lead.Get($"/api/sections/{section}/now?as=pretend:{section}{facts}&at=2026-12-10T09:00:00Z")).Json is var now
            && new[] { "now", "next", "locked", "done" }.FirstOrDefault(list =>
                now[list]!.AsArray().Any(row => row!["title"]!.GetValue<string>() == title)
            )
                is { } found
                ? found
                : "nothing";
        var before = await school.RowCounts();
        // The branch at 70 per cent: exactly 70 goes on, below it another sheet.
        var got = new List<string>();
        foreach (var facts in new[] { "", $"~{quiz}.score.69.5", $"~{quiz}.score.70" })
            got.Add($"{await Seen(facts, "Reading an ascent")}, {await Seen(facts, "Clouds again")}");
        got.ShouldBe(["locked, nothing", "locked, now", "now, nothing"]);
        (await lead.Get($"/api/sections/{section}/items/{quiz}?as=pretend:{section}")).Status.ShouldBe(HttpStatusCode.OK);
        (await lead.Get($"/api/editions/{school.WeatherWatch}/ribbon?as=section:{section}")).Json["eyes"]!
            .GetValue<string>()
            .ShouldBe("anyone in 9 Alder");
        foreach (var (what, body) in AsStudents(quiz))
            (await lead.Post($"/api/sections/{section}/{what}?as=pretend:{section}", body, Guid.NewGuid())).Status.ShouldBe(
                HttpStatusCode.NotFound,
                what
            );
        (await school.RowCounts()).ShouldBe(before);
        using var co = await school.As(DemoPeople.CoTeacher);
        (await co.Get($"/api/editions/{school.WeatherWatch}/ribbon?as=pretend:{section}")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await lead.Get($"/api/sections/{section}/now?as=pretend:{section}~{quiz}.picked.nothing")).Status.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await lead.Get($"/api/sections/{section}/now?as=pretend:{school.Ids["section:9 Birch"]}")).Status.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    [Theory]
    [InlineData("at=yesterday", "at")]
    [InlineData("at=2026-10-15", "at")]
    [InlineData("as=nobody", "as")]
    [InlineData("as=student:x", "as")]
    [InlineData("as=pretend:x", "as")]
    [InlineData("as=pretend:1~2.danced", "as")]
    [InlineData("as=pretend:1~2.score.101", "as")]
    [InlineData("as=pretend:1~2.score", "as")]
    public async Task A_view_of_another_form_names_what_is_wrong(string view, string field)
    {
        using var lead = await school.As(DemoPeople.Lead);
        var reply = await lead.Get($"/api/editions/{school.WeatherWatch}/ribbon?{view}");
        (reply.Code, reply.Json["field"]!.GetValue<string>()).ShouldBe(("malformed", field));
    }

    // What only a student does, in a form that would do.
    private static (string What, object Body)[] AsStudents(long item) =>
        [
            ("record-opened", new { item }),
            (
                "hand-in",
                new
                {
                    item,
                    text = "x",
                    pressedAt = (string?)null,
                }
            ),
            (
                "save-draft",
                new
                {
                    item,
                    text = "x",
                    version = 0,
                }
            ),
        ];
}
