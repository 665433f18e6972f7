using System.Diagnostics;
using System.Net;
using Dapper;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.Logging;
using NodaTime;
using Polycline.Data;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Host;

namespace Polycline.Bench;

/// <summary>What students ask for, against what it takes from the database at the least.</summary>
public static class StudentBench
{
    private const int HandIns = 200;
    private const int AtOnce = 8;

    private sealed record FactRow(long Item, string Event, Instant At, decimal? Score, int Attempt, string? Option, bool Again);

    public static async Task Run(School school, Database database)
    {
        var student = school.Ids["person:" + DemoPeople.OnTrack];
        var section = school.Ids["section:9 Alder"];
        string[] signedIn = [$"Cookie: {SessionCookie.Name}={await school.Session(DemoPeople.OnTrack)}"];
        await using var plain = Facts(database, student);
        await plain.StartAsync();
        var facts = new Uri(new Uri(PolyclineHost.AddressOf(plain)), "/facts");
        var now = new Uri(school.Address(), $"/api/sections/{section}/now");
        foreach (var items in new[] { 110, 400 })
        {
            await Grow(school, items);
            await Analyse(school);
            var denominator = $"fetching that student's facts, {items} items";
            var measured = await Interleaved.Run([
                new(denominator, () => Load.Run(facts)),
                new($"Now and next of {items} items", () => Load.Run(now, signedIn)),
            ]);
            Interleaved.Print($"reads, {items} items", measured, [denominator]);
        }
        await HandIn(school, database, section);
    }

    // That student's facts by index, through Dapper, discarded.
    private static WebApplication Facts(Database database, long person)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        var app = builder.Build();
        app.MapGet("/facts", async () =>
        {
            await using var connection = await database.Source.OpenConnectionAsync();
            var rows = await connection.QueryAsync<FactRow>(
                "SELECT item, event, at, score, attempt, option, again FROM fact WHERE person = @person AND voided_at IS NULL ORDER BY id",
                new { person }
            );
            return $"{rows.Count()}";
        });
        return app;
    }

    // As the database's own housekeeping would, sooner or later.
    internal static Task<int> Analyse(School school)
    {
        const string Statement = "ANALYZE fact, item, work, work_version";
        return school.Sql(connection => connection.ExecuteAsync(Statement));
    }

    /// <summary>Gives Weather Watch more items, up to so many.</summary>
    internal static Task<int> Grow(School school, int items) =>
        school.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO item (edition, unit, lesson, lineage, rank, kind, purpose, title, published, opens)
                SELECT i.edition, i.unit, i.lesson, gen_random_uuid(), 'z' || n, 'page', 'to-read', 'More ' || n, true, i.opens
                FROM (SELECT * FROM item WHERE edition = @edition ORDER BY id LIMIT 1) i,
                  generate_series(1, @items - (SELECT count(*)::int FROM item WHERE edition = @edition)) n;
                UPDATE edition SET version = version + 1 WHERE id = @edition
                """,
                new { edition = school.WeatherWatch, items }
            )
        );

    // So that no round is measured on what the rounds before it handed in.
    private static async Task Clear(School school, long item)
    {
        await school.Sql(connection =>
            connection.ExecuteAsync(
                """
                DELETE FROM feedback WHERE work IN (SELECT id FROM work WHERE item = @item);
                DELETE FROM work_version WHERE work IN (SELECT id FROM work WHERE item = @item);
                DELETE FROM fact WHERE item = @item;
                DELETE FROM work WHERE item = @item;
                DELETE FROM request
                """,
                new { item }
            )
        );
        await Analyse(school);
    }

    private static async Task HandIn(School school, Database database, long section)
    {
        var item = await school.Item("Cloud diary");
        var people = (
            await school.Sql(connection =>
                connection.QueryAsync<(long Id, string Name)>(
                    "SELECT p.id, p.name FROM enrolment n JOIN person p ON p.id = n.person WHERE "
                        + "n.section = @section AND upper_inf(n.period) ORDER BY p.id LIMIT @AtOnce",
                    new { section, AtOnce }
                )
            )
        ).ToList();
        var callers = new List<Caller>();
        foreach (var (_, name) in people)
            callers.Add(await school.As(name));
        const string Bare = "its two bare statements";
        var measured = await Interleaved.Run([new(Bare, () => Many(async n =>
                    {
                        await using var connection = await database.Source.OpenConnectionAsync();
                        await using var transaction = await connection.BeginTransactionAsync();
                        var (person, request, at) = (people[n].Id, Guid.NewGuid(), school.Clock.GetCurrentInstant());
                        var work = await connection.ExecuteScalarAsync<long>(
                            Sql.Of("Work", "TakePiece"),
                            new
                            {
                                person,
                                item,
                                section,
                            }
                        );
                        await connection.ExecuteScalarAsync<int>(
                            Sql.Of("Work", "HandIn"),
                            new
                            {
                                work,
                                person,
                                item,
                                section,
                                text = "A piece",
                                at,
                                claimed = (Instant?)null,
                                request,
                            }
                        );
                        await transaction.CommitAsync();
                    })), new("hand-in", () => Many(async n =>
                    {
                        var reply = await callers[n]
                            .Post(
                                $"/api/sections/{section}/hand-in",
                                new
                                {
                                    item,
                                    text = "A piece",
                                    pressedAt = (string?)null,
                                },
                                Guid.NewGuid()
                            );
                        if (reply.Status != HttpStatusCode.OK)
                            throw new InvalidOperationException(reply.Text);
                    }))], () => Clear(school, item));
        Interleaved.Print("hand-ins", measured, [Bare]);
    }

    // So many, by some people at once: each after their own one before.
    private static async Task<double> Many(Func<int, Task> one)
    {
        var watch = Stopwatch.StartNew();
        await Task.WhenAll(
            Enumerable
                .Range(0, AtOnce)
                .Select(async person =>
                {
                    for (var n = 0; n < HandIns / AtOnce; n++)
                        await one(person);
                })
        );
        return HandIns / watch.Elapsed.TotalSeconds;
    }
}
