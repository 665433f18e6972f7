using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using NodaTime;
using Polycline.Data;
using Polycline.Data.Rosters;
using Polycline.Data.Terms;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Rosters;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The school's roster feed: fetched once a night by whichever instance, and nothing of it done without somebody's yes.</summary>
public sealed class RosterFeedTests : IAsyncLifetime
{
    private School school = null!;
    private Caller office = null!;

    /// <summary>A fetched roster that waits.</summary>
    public static async Task<long> Waiting(School of)
    {
        var term = await TermCommandExamples.Autumn(of);
        return await of.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                "INSERT INTO roster_fetch (at, term, state, content) VALUES (now(), @term, 'waiting', 'x') RETURNING id",
                new { term }
            )
        );
    }

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

    private async Task<string> Route(string rest) => $"/api/terms/{await TermCommandExamples.Autumn(school)}/{rest}";

    private async Task<JsonNode> Latest() => (await office.Get(await Route("roster-feed"))).Json["latest"]!;

    [Fact]
    public async Task Of_two_instances_one_fetches_at_night_and_what_came_waits_is_looked_at_row_by_row_and_imported()
    {
        var before = await school.RowCounts("roster_fetch", "audit", "session");
        var fetched = new List<bool>();
        foreach (var instance in school.Instances.Concat(school.Instances))
            fetched.Add(await instance.Services.GetRequiredService<RosterFeed>().Sweep(default));
        fetched.ShouldBe([true, false, false, false]);
        (await school.RowCounts("roster_fetch", "audit", "session")).ShouldBe(before);
        var latest = await Latest();
        latest["state"]!.GetValue<string>().ShouldBe("waiting");
        latest["sentence"]!
            .GetValue<string>()
            .ShouldBe("1 account is added, 1 enrolment is added and 1 enrolment ends; " + "4 rows do not agree or cannot be read");
        latest["words"]!.GetValue<string>().ShouldEndWith(", by night");
        var fetch = latest["fetch"]!.GetValue<long>();
        var file = await (await office.Get(await Route($"roster-feed/{fetch}"))).Message.Content.ReadAsByteArrayAsync(
            TestContext.Current.CancellationToken
        );
        var body = new
        {
            term = await TermCommandExamples.Autumn(school),
            fileName = "roster feed.zip",
            file = Convert.ToBase64String(file),
            columns = (string[]?)null,
            from = "2026-10-08",
            endMissing = false,
            fetch,
        };
        var shown = (await office.Post("/api/school/import-roster?preview=true", body)).Json;
        (await Latest())["state"]!.GetValue<string>().ShouldBe("waiting");
        var outcomes = shown["counts"]!
            .AsArray()
            .ToDictionary(one => one!["outcome"]!.GetValue<string>(), one => one!["lines"]!.GetValue<int>());
        foreach (var outcome in new[] { "new", "ending", "missing", "conflict", "fault" })
            outcomes[outcome].ShouldBeGreaterThan(0, outcome);
        (await office.Post("/api/school/import-roster", body, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await Latest())["state"]!.GetValue<string>().ShouldBe("imported");
        (await office.Get(await Route($"roster-feed/{fetch}"))).Status.ShouldBe(HttpStatusCode.NotFound);
        // Now that the feed’s own keys are known, so is who was renamed there.
        var again = (await office.Post(await Route("fetch-roster"), new { })).Json["latest"]!;
        (again["state"]!.GetValue<string>(), again["sentence"]!.GetValue<string>()).ShouldBe(
            ("waiting", "1 person changes name or address; 4 rows do not agree or cannot be read")
        );
        again["words"]!.GetValue<string>().ShouldEndWith($"asked for by {DemoPeople.Office}");
        (await Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("http://127.0.0.1:1/roster.zip", "The feed could not be reached, or sent more than 15 MB")]
    [InlineData("{school}/nothing/here.zip", "The feed answered with 404")]
    [InlineData("{school}/sign-in", null)]
    public async Task A_feed_that_cannot_be_read_is_said_and_what_waited_before_still_waits(string address, string? said)
    {
        var waiting = await Waiting(school);
        var services = school.Instance.Services;
        var database = services.GetRequiredService<Database>();
        var feed = new RosterFeed(
            database,
            new SchoolRosterFeed(new(address.Replace("{school}", school.Address().GetLeftPart(UriPartial.Authority)))),
            services.GetRequiredService<IClock>(),
            NullLogger<RosterFeed>.Instance
        );
        var term = await TermCommandExamples.Autumn(school);
        var plan = await database.Read(connection => TermStore.Read(connection, new(term)), default);
        (await feed.Fetch(plan!, null, null, default)).ShouldBeTrue();
        var latest = await Latest();
        latest["state"]!.GetValue<string>().ShouldBe("failed");
        if (said is not null)
            latest["sentence"]!.GetValue<string>().ShouldBe(said);
        latest["sentence"]!.GetValue<string>().ShouldNotBeEmpty();
        (await database.Read(connection => RosterFetchStore.Content(connection, new(term), waiting), default)).ShouldNotBeNull();
    }
}
