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
using Polycline.Web.Host;

namespace Polycline.Bench;

/// <summary>The scores of a whole course against fetching what they are made of, through Dapper, and throwing it away.</summary>
public static class ScoresBench
{
    private const int Students = 400;
    private const int Items = 60;

    private sealed record FactRow(long Person, long Item, string Event, Instant At, decimal? Score, int Attempt);

    private sealed record MarkRow(long Person, long Item, Instant At, bool Again, string? Mark);

    public static async Task Run(School school, Database database)
    {
        await Grow(school);
        using var lead = await school.As(DemoPeople.Lead);
        await using var plain = Plain(database, school.WeatherWatch);
        await plain.StartAsync();
        using var bare = new Caller(new Uri(PolyclineHost.AddressOf(plain)));
        const string Denominator = "fetching their facts and marks";
        var measured = await Interleaved.Run([
            new(Denominator, () => OneByOne(bare, "/rows")),
            new($"scores of {Students} students × {Items} items", () => OneByOne(lead, $"/api/editions/{school.WeatherWatch}/scores")),
        ]);
        Interleaved.Print("scores", measured, [Denominator]);
    }

    // Nobody asks for a table of this size often: one after another.
    private static async Task<double> OneByOne(Caller caller, string address)
    {
        const int Times = 5;
        var watch = Stopwatch.StartNew();
        for (var n = 0; n < Times; n++)
            if (await caller.Get(address) is { Status: not HttpStatusCode.OK } reply)
                throw new InvalidOperationException(reply.Text);
        return Times / watch.Elapsed.TotalSeconds;
    }

    private static WebApplication Plain(Database database, long edition)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        var app = builder.Build();
        app.MapGet("/rows", async () =>
        {
            await using var connection = await database.Source.OpenConnectionAsync();
            await using var results = await connection.QueryMultipleAsync(
                """
                SELECT f.person, f.item, f.event, f.at, f.score, f.attempt
                FROM fact f JOIN item i ON i.id = f.item WHERE i.edition = @edition AND f.voided_at IS NULL ORDER BY f.id;
                SELECT w.person, w.item, f.returned_at AS at, f.again, f.mark::text
                FROM feedback f JOIN work w ON w.id = f.work JOIN item i ON i.id = w.item WHERE i.edition = @edition ORDER BY f.id
                """,
                new { edition }
            );
            return $"{(await results.ReadAsync<FactRow>()).Count() + (await results.ReadAsync<MarkRow>()).Count()}";
        });
        return app;
    }

    // More students in the same sections, and a score of each of them in each of so many items.
    private static async Task Grow(School school)
    {
        await school.Sql(connection =>
            connection.ExecuteAsync(
                """
                WITH listed AS (
                  SELECT count(DISTINCT n.person)::int AS n FROM enrolment n JOIN section c ON c.id = n.section WHERE c.edition = @edition
                ), made AS (
                  INSERT INTO person (name, email, password_hash)
                  SELECT 'Student ' || k, 'student-' || k || '@fenwater.example', '' FROM listed, generate_series(1, @Students - listed.n) k
                  RETURNING id
                )
                INSERT INTO enrolment (section, person, period)
                SELECT c.id, m.id, daterange(NULL, NULL)
                FROM made m
                JOIN (SELECT id, row_number() OVER (ORDER BY id) AS k, count(*) OVER () AS all FROM section WHERE edition = @edition) c
                  ON c.k = 1 + m.id % c.all;
                UPDATE item SET kind = 'task', marked = '{"as":"points","outOf":20}', purpose = 'for-marks', quiz = NULL, rubric = NULL
                WHERE id IN (
                  SELECT id FROM item
                  WHERE edition = @edition AND section IS NULL AND removed_at IS NULL AND kind IN ('task', 'handout', 'page')
                  ORDER BY id LIMIT @Items);
                INSERT INTO work (person, item, section)
                SELECT n.person, i.id, min(n.section) FROM enrolment n JOIN section c ON c.id = n.section AND c.edition = @edition
                CROSS JOIN (SELECT id FROM item WHERE edition = @edition AND marked = '{"as":"points","outOf":20}') i
                GROUP BY n.person, i.id ON CONFLICT DO NOTHING;
                INSERT INTO feedback (work, n, by, text, again, returned_at, mark)
                SELECT w.id, NULL, @by, '', false, @at, jsonb_build_object('as', 'points', 'outOf', 20, 'value', w.id % 21)
                FROM work w JOIN item i ON i.id = w.item AND i.edition = @edition AND i.marked = '{"as":"points","outOf":20}';
                INSERT INTO fact (person, item, section, event, at, recorded_at, by, score, request)
                SELECT w.person, w.item, w.section, 'scored', @at, @at, @by, (w.id % 21) * 5, gen_random_uuid()
                FROM work w JOIN item i ON i.id = w.item AND i.edition = @edition AND i.marked = '{"as":"points","outOf":20}';
                UPDATE edition SET version = version + 1 WHERE id = @edition
                """,
                new
                {
                    edition = school.WeatherWatch,
                    Students,
                    Items,
                    by = school.Ids["person:" + DemoPeople.Lead],
                    at = school.Clock.GetCurrentInstant(),
                }
            )
        );
        await school.Sql(connection => connection.ExecuteAsync("ANALYZE fact, item, work, feedback, enrolment, person"));
    }
}
