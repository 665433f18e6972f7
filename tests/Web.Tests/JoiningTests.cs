using System.Net;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Nothing is copied into a section: what joining and a change of the course write does not grow with either.</summary>
public sealed class JoiningTests : LeadOfASchool
{
    [Fact]
    public async Task Joining_writes_as_many_rows_for_a_course_of_10_items_as_of_400()
    {
        var few = await Joined(10);
        // The same in a school of its own.
        await DisposeAsync();
        await InitializeAsync();
        (await Joined(400)).ShouldBe(few);
        // The answer that is kept for its key, the batch, its change, and the two counters.
        few.ShouldBe(5);
        var dates = (await Lead.Get(Route("dates"))).Json;
        dates["sections"]!.AsArray().Select(section => section!["name"]!.GetValue<string>()).ShouldContain("Evening watch");
    }

    [Fact]
    public async Task A_change_of_the_course_writes_as_many_rows_for_1_section_as_for_200()
    {
        await School.Sql(connection => connection.ExecuteAsync("UPDATE section SET edition = NULL WHERE name <> '9 Alder'"));
        var one = await Written(() => Rename("For one"));
        await School.Sql(connection =>
            connection.ExecuteAsync(
                "INSERT INTO section (name, letter, term, edition, slots) SELECT 'Section ' || n, 'S', c.term, c.edition, c.slots "
                    + "FROM section c, generate_series(1, 199) n WHERE c.name = '9 Alder'; UPDATE edition SET version = version + 1"
            )
        );
        // What has opened in them is recorded once, by the sweep: it is no part of a change.
        (await School.Instance.Services.GetRequiredService<OpeningSweep>().Sweep(CancellationToken.None)).ShouldBeGreaterThan(199);
        (await Written(() => Rename("For two hundred"))).ShouldBe(one);
    }

    private async Task<long> Joined(int items)
    {
        await School.Sql(connection =>
            connection.ExecuteAsync(
                """
                UPDATE section SET edition = NULL WHERE name = 'Evening watch';
                UPDATE item SET removed_at = now() WHERE edition = @edition
                  AND id NOT IN (SELECT id FROM item WHERE edition = @edition ORDER BY id LIMIT @items);
                INSERT INTO item (edition, unit, lesson, lineage, rank, kind, purpose, title)
                SELECT i.edition, i.unit, i.lesson, gen_random_uuid(), 'z' || n, 'page', 'to-read', 'More ' || n
                FROM (SELECT * FROM item WHERE edition = @edition ORDER BY id LIMIT 1) i, generate_series(1, @items - 110) n
                """,
                new { edition = School.WeatherWatch, items }
            )
        );
        (await Lead.Get(Route("outline"))).Json["counts"]!["items"]!.GetValue<int>().ShouldBe(items);
        return await Written(async () =>
        {
            var reply = await Lead.Post(Route("join-section"), await CommandExamples.Join(School), Guid.NewGuid());
            (reply.Status, reply.Json["applied"]!.GetValue<bool>()).ShouldBe((HttpStatusCode.OK, true));
        });
    }

    private async Task Rename(string title)
    {
        var (item, version) = await CommandExamples.FirstItem(School, School.WeatherWatch);
        (
            await Lead.Post(
                $"/api/editions/{School.WeatherWatch}/rename-item",
                new
                {
                    item,
                    title,
                    version,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
    }

    // Rows that came, changed or went: those that now carry a transaction's mark which they did not before.
    private async Task<long> Written(Func<Task> act)
    {
        var before = await School.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT txid_current()"));
        await act();
        var tables = await School.Sql(connection =>
            connection.QueryAsync<string>("SELECT tablename FROM pg_tables WHERE schemaname = 'public'")
        );
        var written = 0L;
        foreach (var table in tables)
            written += await School.Sql(connection =>
                connection.ExecuteScalarAsync<long>($"SELECT count(*) FROM {table} WHERE xmin::text::bigint > @before", new { before })
            );
        return written;
    }
}
