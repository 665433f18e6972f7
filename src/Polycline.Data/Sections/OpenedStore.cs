using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Ledger;

namespace Polycline.Data.Sections;

/// <summary>Records what has opened, so that it stays open when the plan moves.</summary>
public static class OpenedStore
{
    /// <summary>Adds records, leaving existing ones as they are.</summary>
    /// <param name="now">When it is recorded.</param>
    /// <returns>How many were added.</returns>
    public static Task<int> Add(
        NpgsqlConnection connection,
        IReadOnlyList<(Id<Section> Section, Id<Item> Item, Instant At, Instant? Due)> records,
        Instant now
    ) =>
        connection.ExecuteAsync(
            """
            INSERT INTO opened (section, item, at, due, recorded_at)
            SELECT section, item, at, due, @now FROM unnest(@section, @item, @at, @due) n (section, item, at, due)
            ON CONFLICT DO NOTHING
            """,
            new
            {
                now,
                section = records.Select(record => record.Section).ToArray(),
                item = records.Select(record => record.Item).ToArray(),
                at = records.Select(record => record.At).ToArray(),
                due = records.Select(record => record.Due).ToArray(),
            }
        );

    /// <summary>
    /// Deletes what was recorded since a batch was applied, unless a student has used it, because that batch is undone. What is open
    /// without it is recorded anew.
    /// </summary>
    public static Task Forget(NpgsqlConnection connection, Id<Edition> edition, Id<Batch> batch) =>
        connection.ExecuteAsync(
            """
            DELETE FROM opened o
            USING section c, batch b
            WHERE c.id = o.section AND c.edition = @edition AND b.id = @batch AND o.recorded_at >= b.at
              AND NOT EXISTS (SELECT 1 FROM fact f WHERE f.item = o.item AND f.section = o.section)
              AND NOT EXISTS (SELECT 1 FROM draft d JOIN enrolment n ON n.person = d.person AND n.section = o.section WHERE d.item = o.item)
            """,
            new { edition = edition.Value, batch = batch.Value }
        );

    /// <summary>Raises the edition's counter and tells who listens: what has opened is read with the plan.</summary>
    public static async Task Tell(NpgsqlConnection connection, Id<Edition> edition)
    {
        var version = await connection.ExecuteScalarAsync<long>(
            "UPDATE edition SET version = version + 1 WHERE id = @Value RETURNING version",
            edition
        );
        await LedgerStore.Tell(connection, Scope.Of(edition), version);
    }

    /// <summary>
    /// Editions, in any state, that a section follows in a term that has not long been over, with the counters their plan depends on.
    /// </summary>
    public static async Task<IReadOnlyList<(Id<Edition> Edition, long Version, long TermVersion)>> Taught(
        NpgsqlConnection connection,
        LocalDate today
    ) =>
        [
            .. await connection.QueryAsync<(Id<Edition>, long, long)>(
                """
                SELECT e.id, e.version, t.version FROM edition e JOIN term t ON t.id = e.term
                WHERE t.last >= @today - 14 AND EXISTS (SELECT 1 FROM section c WHERE c.edition = e.id)
                ORDER BY e.id
                """,
                new { today }
            ),
        ];

    /// <summary>Locks an edition, unless another instance is working on it.</summary>
    public static async Task<bool> TryLock(NpgsqlConnection connection, Id<Edition> edition) =>
        await connection.ExecuteScalarAsync<long?>("SELECT id FROM edition WHERE id = @Value FOR UPDATE SKIP LOCKED", edition) is not null;
}
