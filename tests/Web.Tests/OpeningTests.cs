using Dapper;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Polycline.Demo;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What has opened is recorded, once, whoever comes first, and stays open when the plan moves.</summary>
public sealed class OpeningTests : IAsyncLifetime
{
    // Five days after the demo begins: more has opened meanwhile.
    private static readonly Instant Later = DemoSchool.Start + Duration.FromDays(5);
    private School school = null!;
    private Caller lead = null!;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open(instances: 2, clock: new Stopped(Later));
        lead = await school.As(DemoPeople.Lead);
    }

    public async ValueTask DisposeAsync()
    {
        lead.Dispose();
        await school.DisposeAsync();
    }

    [Fact]
    public async Task Two_instances_sweep_at_once_and_every_opening_is_recorded_once_at_its_moment()
    {
        var before = await Records();
        var sweeps = school
            .Instances.SelectMany(instance => Enumerable.Repeat(instance.Services.GetRequiredService<OpeningSweep>(), 3))
            .ToList();
        var recorded = (await Task.WhenAll(sweeps.Select(sweep => Task.Run(() => sweep.Sweep(CancellationToken.None))))).Sum();
        // One that another instance was at is left to it; whoever comes next finds nothing left.
        foreach (var sweep in sweeps)
            recorded += await sweep.Sweep(CancellationToken.None);
        var after = await Records();
        recorded.ShouldBeGreaterThan(5);
        (after.Count - before.Count).ShouldBe(recorded);
        after.Except(before).ShouldEachBe(record => record.At > DemoSchool.Start && record.At <= Later);
        // What the plan says has opened by then is recorded, and nothing else is.
        var dates = (await lead.Get(Route("dates"))).Json;
        var open = dates["units"]!
            .AsArray()
            .SelectMany(unit => unit!["items"]!.AsArray())
            .Where(item => item!["published"]!.GetValue<bool>())
            .SelectMany(item => item!["cells"]!.AsArray())
            .Count(cell =>
                !cell!["held"]!.GetValue<bool>()
                && !cell["skipped"]!.GetValue<bool>()
                && cell["opens"] is { } opens
                && Instant.FromDateTimeOffset(DateTimeOffset.Parse(opens["instant"]!.GetValue<string>(), null)) <= Later
            );
        after.Count(record => record.Edition == school.WeatherWatch).ShouldBe(open);
    }

    [Fact]
    public async Task What_opened_since_the_last_sweep_stays_open_whatever_the_next_command_does()
    {
        var alder = school.Ids["section:9 Alder"];
        var known = (await Records())
            .Where(record => record.Section == alder && record.At < DemoSchool.Start)
            .Select(record => record.Item)
            .ToHashSet();
        var item = (await lead.Get(Route("dates"))).Json["units"]!
            .AsArray()
            .SelectMany(unit => unit!["items"]!.AsArray())
            .First(row =>
                row!["published"]!.GetValue<bool>()
                && string.CompareOrdinal(row["cells"]![0]!["opens"]!["instant"]!.GetValue<string>(), $"{Later}") < 0
                && !known.Contains(row["item"]!.GetValue<long>())
            )!["item"]!.GetValue<long>();
        // As if no sweep had come by since it opened.
        await school.Sql(connection =>
            connection.ExecuteAsync("DELETE FROM opened WHERE section = @alder AND item = @item", new { alder, item })
        );
        var opened = await Opens(item);
        await Post(
            "differ",
            new
            {
                changes = new[]
                {
                    new
                    {
                        section = alder,
                        of = "item",
                        target = item,
                        field = "opens",
                        putBack = false,
                        value = new
                        {
                            at = "fixed",
                            date = "2026-12-01",
                            time = "08:00",
                        },
                        version = 0,
                    },
                },
            }
        );
        (await Opens(item)).ShouldBe(opened);
    }

    [Fact]
    public async Task What_opened_by_a_slip_that_is_undone_before_anyone_looked_shuts_again_and_stays_where_someone_did()
    {
        var (item, version) = await CommandExamples.At(school, "item", "Fronts: what we know");
        var before = await Opens(item);
        foreach (var looked in new[] { false, true })
        {
            var slip = await Post(
                "time-item",
                new
                {
                    item,
                    field = "opens",
                    anchor = new { at = "term-start" },
                    version,
                }
            );
            // Whatever comes next records it.
            await Post("confirm-taught", await CommandExamples.All["confirm-taught"](school));
            (await Records()).Count(record => record.Item == item).ShouldBe(4);
            if (looked)
                await school.Sql(connection =>
                    connection.ExecuteAsync(
                        """
                        INSERT INTO fact (person, item, section, event, at, recorded_at, by, request)
                        SELECT n.person, @item, n.section, 'opened', @Later, @Later, n.person, gen_random_uuid()
                          FROM enrolment n WHERE n.section = @alder LIMIT 1
                        """,
                        new
                        {
                            item,
                            Later,
                            alder = school.Ids["section:9 Alder"],
                        }
                    )
                );
            await Post("undo", new { batch = slip });
            (await Records()).Count(record => record.Item == item).ShouldBe(looked ? 1 : 0);
            (await Opens(item) == before).ShouldBe(!looked);
            version += 2;
            await school.Sql(connection =>
                connection.ExecuteAsync(
                    "DELETE FROM taught WHERE lesson = (SELECT lineage FROM lesson "
                        + "WHERE edition = @WeatherWatch AND title = 'Choosing a form')",
                    school
                )
            );
        }
    }

    [Fact]
    public async Task A_clock_that_is_set_back_shuts_nothing_that_has_opened()
    {
        await school.Instance.Services.GetRequiredService<OpeningSweep>().Sweep(CancellationToken.None);
        using var student = await school.As(DemoPeople.OnTrack);
        var section = $"/api/sections/{school.Ids["section:9 Alder"]}";
        // The last that opened: five days after the demo's beginning it is open, and at its beginning it was not.
        var item = (await Records()).Where(record => record.Section == school.Ids["section:9 Alder"]).MaxBy(record => record.At).Item;
        var before = (await student.Get($"{section}/items/{item}")).Json["state"]!.ToJsonString();
        async Task<IEnumerable<string>> Now(Caller who) =>
            (await who.Get($"{section}/now")).Json["now"]!.AsArray().Select(row => $"{row!["code"]} {row["state"]}");
        var list = await Now(student);
        await school.Start(new DemoProfile(), new Stopped(DemoSchool.Start));
        using var again = await school.As(DemoPeople.OnTrack, school.Instances.Count - 1);
        var seen = await again.Get($"{section}/items/{item}");
        (seen.Status, seen.Json["state"]!.ToJsonString()).ShouldBe((System.Net.HttpStatusCode.OK, before));
        (await Now(again)).ShouldBe(list);
        // Nor does a sweep at the earlier time take back what is recorded.
        var records = await Records();
        await school.Instances[^1].Services.GetRequiredService<OpeningSweep>().Sweep(CancellationToken.None);
        (await Records()).ShouldBe(records, ignoreOrder: true);
    }

    [Fact]
    public async Task A_course_that_cannot_be_read_keeps_no_other_from_being_swept_and_ends_no_server()
    {
        await school.Sql(connection =>
            connection.ExecuteAsync(
                """
                DELETE FROM opened o USING item i WHERE i.id = o.item AND i.edition = @WeatherWatch AND o.at > @Start;
                UPDATE edition SET version = version + 1 WHERE id IN (@tides, @WeatherWatch);
                UPDATE section SET edition = @tides, slots = '[{"day":"never","periods":["P1"]}]' WHERE id = @evening
                """,
                new
                {
                    school.WeatherWatch,
                    DemoSchool.Start,
                    tides = school.Ids["edition:Tides and Channels 2026"],
                    evening = school.Ids["section:Evening watch"],
                }
            )
        );
        await school.Sql(connection =>
            connection.ExecuteAsync(
                "UPDATE unit SET gate = '{\"nothing\":1}' WHERE edition = @tides",
                new { tides = school.Ids["edition:Tides and Channels 2026"] }
            )
        );
        foreach (var instance in school.Instances)
            await instance.Services.GetRequiredService<OpeningSweep>().Sweep(CancellationToken.None);
        (await Records()).ShouldContain(record => record.Edition == school.WeatherWatch && record.At > DemoSchool.Start);
        (await lead.Get(Route("outline"))).Status.ShouldBe(System.Net.HttpStatusCode.OK);
    }

    private async Task<long> Post(string command, object? body)
    {
        var reply = await lead.Post(Route(command), body, Guid.NewGuid());
        reply.Status.ShouldBe(System.Net.HttpStatusCode.OK, reply.Text);
        return reply.Json["batch"]!.GetValue<long>();
    }

    // When it opens in 9 Alder.
    private async Task<string> Opens(long item) =>
        (await lead.Get(Route("dates"))).Json["units"]!
            .AsArray()
            .SelectMany(unit => unit!["items"]!.AsArray())
            .Single(row => row!["item"]!.GetValue<long>() == item)!["cells"]![0]!["opens"]!["local"]!.GetValue<string>();

    private Task<List<(long Edition, long Section, long Item, Instant At)>> Records() =>
        school.Sql(async connection =>
            (
                await connection.QueryAsync<(long, long, long, Instant)>(
                    "SELECT i.edition, o.section, o.item, o.at FROM opened o JOIN item i ON i.id = o.item"
                )
            ).AsList()
        );

    private string Route(string rest) => $"/api/editions/{school.WeatherWatch}/{rest}";

    private sealed class Stopped(Instant at) : IClock
    {
        public Instant GetCurrentInstant() => at;
    }
}
