using System.Diagnostics;
using System.Net;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Polycline.Demo;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The database gone and back, and an instance that is told to stop while it is at work.</summary>
public sealed class OutageTests
{
    private static readonly TimeSpan Away = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan Soon = TimeSpan.FromSeconds(15);

    [Fact]
    public async Task With_the_database_gone_for_30_seconds_it_says_so_loses_nothing_and_comes_back_by_itself()
    {
        await using var cluster = await OwnCluster.Start();
        await using var school = await School.Open(database: cluster.Database);
        using var lead = await school.As(DemoPeople.Lead);
        var route = $"/api/editions/{school.WeatherWatch}/rename-item";
        var body = await CommandExamples.Rename(school);
        var key = Guid.NewGuid();
        await using var watching = await Watcher.Connect(school, DemoPeople.CoTeacher);

        await cluster.Stop();
        var gone = Stopwatch.StartNew();
        var asked = 0;
        using var pace = new PeriodicTimer(TimeSpan.FromMilliseconds(400));
        while (gone.Elapsed < Away)
        {
            (await lead.Get("/health/live")).Status.ShouldBe(HttpStatusCode.OK);
            (await lead.Get("/health/ready")).Status.ShouldBe(HttpStatusCode.ServiceUnavailable);
            var reply = await lead.Post(route, body, key);
            (reply.Status, reply.Code).ShouldBe((HttpStatusCode.ServiceUnavailable, "database-away"));
            asked++;
            await pace.WaitForNextTickAsync();
        }
        asked.ShouldBeGreaterThan(10);
        await cluster.StartAgain();

        await Until(async () => (await lead.Get("/health/ready")).Status == HttpStatusCode.OK);
        (await watching.Next(Soon)).Scope.ShouldBe("*", "whoever watches is told to read again");
        (await lead.Post(route, body, key)).Status.ShouldBe(HttpStatusCode.OK);
        (await lead.Post(route, body, key)).Status.ShouldBe(HttpStatusCode.OK);
        school.Owner.Source.Clear();
        (await school.Sql(connection => connection.ExecuteScalarAsync<int>("SELECT count(*)::int FROM batch"))).ShouldBe(1);
    }

    [Fact]
    public async Task Told_to_stop_an_instance_takes_no_more_but_ends_what_it_has_begun()
    {
        await using var school = await School.Open();
        using var lead = await school.As(DemoPeople.Lead);
        await using var holder = new NpgsqlConnection(school.Database.Owner);
        await holder.OpenAsync();
        await using var held = await holder.BeginTransactionAsync();
        await holder.ExecuteAsync("SELECT 1 FROM edition WHERE id = @WeatherWatch FOR UPDATE", new { school.WeatherWatch });
        var underWay = lead.Post($"/api/editions/{school.WeatherWatch}/rename-item", await CommandExamples.Rename(school), Guid.NewGuid());
        await school.UntilWaiting();

        var stopping = school.Instance.StopAsync();
        await Until(async () =>
        {
            try
            {
                using var late = new Caller(school.Address());
                return (await late.Get("/health/ready")).Status != HttpStatusCode.OK;
            }
            catch (HttpRequestException)
            {
                return true;
            }
        });
        underWay.IsCompleted.ShouldBeFalse();
        await held.RollbackAsync();
        (await underWay).Status.ShouldBe(HttpStatusCode.OK);
        await stopping;
    }

    [Fact]
    public async Task Two_that_start_at_the_same_time_serve_the_same_school_at_the_same_time_of_day()
    {
        await using var school = await School.Open();
        await Task.WhenAll(school.Start(new DemoProfile()), school.Start(new DemoProfile()));
        var moments = new List<string>();
        for (var instance = 0; instance < 3; instance++)
        {
            using var caller = await school.As(DemoPeople.Lead, instance);
            moments.Add((await caller.Get($"/api/editions/{school.WeatherWatch}/ribbon")).Json["moment"]!["words"]!.GetValue<string>());
        }
        moments.ShouldEachBe(words => words.StartsWith("Thu 8 Oct, 1", StringComparison.Ordinal));
    }

    [Fact]
    public async Task With_no_room_on_the_disk_nothing_is_written_all_is_read_and_sweeps_go_on_once_there_is_room()
    {
        await using var school = await School.Open();
        using var lead = await school.As(DemoPeople.Lead);
        var (route, body, key) = ($"/api/editions/{school.WeatherWatch}/rename-item", await CommandExamples.Rename(school), Guid.NewGuid());
        await school.Sql(connection =>
            connection.ExecuteAsync(
                """
                DELETE FROM opened o USING item i WHERE i.id = o.item AND i.edition = @WeatherWatch;
                UPDATE edition SET version = version + 1 WHERE id = @WeatherWatch;
                CREATE FUNCTION full_disk() RETURNS trigger LANGUAGE plpgsql AS $$
                  BEGIN RAISE EXCEPTION 'could not extend file: No space left on device' USING ERRCODE = '53100'; END $$;
                CREATE TRIGGER full_disk BEFORE INSERT ON opened FOR EACH ROW EXECUTE FUNCTION full_disk();
                CREATE TRIGGER full_disk BEFORE INSERT ON batch FOR EACH ROW EXECUTE FUNCTION full_disk();
                """,
                new { school.WeatherWatch }
            )
        );
        var sweep = school.Instance.Services.GetRequiredService<OpeningSweep>();
        (await sweep.Sweep(CancellationToken.None)).ShouldBe(0);
        var refused = await lead.Post(route, body, key);
        (refused.Status, refused.Code).ShouldBe((HttpStatusCode.ServiceUnavailable, "database-full"));
        (await lead.Get($"/api/editions/{school.WeatherWatch}/outline")).Status.ShouldBe(HttpStatusCode.OK);
        await school.Sql(connection => connection.ExecuteAsync("DROP FUNCTION full_disk() CASCADE"));
        (await sweep.Sweep(CancellationToken.None)).ShouldBeGreaterThan(50);
        (await lead.Post(route, body, key)).Status.ShouldBe(HttpStatusCode.OK);
    }

    private static async Task Until(Func<Task<bool>> met)
    {
        for (var waited = Stopwatch.StartNew(); waited.Elapsed < Soon; await Task.Yield())
            if (await met())
                return;
        throw new TimeoutException("It did not come about.");
    }
}
