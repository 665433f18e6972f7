using System.Text.Json.Nodes;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;

namespace Polycline.Data.Ledger;

/// <summary>A batch in the history of a scope.</summary>
/// <param name="Depth">How many times over it is a taking back.</param>
/// <param name="UndoneBy">The batch that undid it; null: it stands.</param>
/// <param name="Items">The items it touched.</param>
public sealed record HistoryRow(
    long Id,
    long Version,
    string Command,
    string Words,
    long Author,
    string AuthorName,
    Instant At,
    long? Undoes,
    int Depth,
    long? UndoneBy,
    long[] Items
)
{
    /// <summary>It took something back; a taking back that was taken back itself is a change again.</summary>
    public bool IsUndo => Depth % 2 == 1;

    /// <summary>It brought back what had been taken back.</summary>
    public bool IsRedo => Depth > 0 && !IsUndo;
}

/// <summary>
/// Applies changes of planning, logs them, raises the scope's counter and tells who listens, all in the caller's
/// transaction. Undo, history, conflicts and live updates all follow from its log.
/// </summary>
public static class LedgerStore
{
    /// <summary>The channel on which a raised counter is told; the message is a <see cref="Live.ScopeChanged"/>.</summary>
    public const string Channel = "polycline";

    /// <summary>Applies <paramref name="changes"/> as one batch.</summary>
    /// <exception cref="StaleChangeException">A row is no more as its change found it; the transaction must be given up.</exception>
    public static async Task<AppliedBatch> Apply(NpgsqlConnection connection, BatchHead head, IReadOnlyList<Change> changes)
    {
        // The four kinds of scope are tables; the name comes from Scope's makers, never from a request.
        var version = await connection.ExecuteScalarAsync<long>(
            $"UPDATE {head.Scope.Kind} SET version = version + 1 WHERE id = @Key RETURNING version",
            head.Scope
        );
        var batch = await connection.ExecuteScalarAsync<long>(
            Sql.Of("Ledger", "InsertBatch"),
            new
            {
                ScopeKind = head.Scope.Kind,
                Scope = head.Scope.Key,
                version,
                head.Command,
                head.Words,
                head.Author,
                head.At,
                Undoes = head.Undoes?.Value,
            }
        );
        for (var n = 0; n < changes.Count; n++)
        {
            var change = await ApplyOne(connection, changes[n]);
            await connection.ExecuteAsync(
                Sql.Of("Ledger", "InsertChange"),
                new
                {
                    batch,
                    n,
                    tbl = change.Table,
                    key = change.Key.ToJsonString(),
                    before = change.Before?.ToJsonString(),
                    after = change.After?.ToJsonString(),
                }
            );
        }
        await Tell(connection, head.Scope, version);
        return new(new(batch), version);
    }

    /// <summary>
    /// The sections and the people whose rows some changes touch: read off their keys, their fields, and the rows themselves.
    /// </summary>
    public static async Task<(IReadOnlySet<long> Sections, IReadOnlySet<long> People)> Touched(
        NpgsqlConnection connection,
        IReadOnlyList<Change> changes
    )
    {
        var (sections, people) = (new HashSet<long>(), new HashSet<long>());
        foreach (var change in changes)
        {
            foreach (var row in new[] { change.Key, change.Before, change.After })
            {
                if (row?["section"] is JsonValue section)
                    sections.Add(section.GetValue<long>());
                if (row?["person"] is JsonValue person)
                    people.Add(person.GetValue<long>());
            }
            if (change is { Table: "section" } && change.Key["id"] is JsonValue itself)
                sections.Add(itself.GetValue<long>());
        }
        // A row that is of one section only says so itself.
        foreach (
            var table in changes
                .Where(change => change.Key["id"] is not null && LedgerTable.Of(change) is { } table && table.Fields.Contains("section"))
                .GroupBy(change => change.Table)
        )
            sections.UnionWith(
                await connection.QueryAsync<long>(
                    $"SELECT DISTINCT section FROM {table.Key} WHERE id = ANY(@ids) AND section IS NOT NULL",
                    new { ids = table.Select(change => change.Key["id"]!.GetValue<long>()).ToArray() }
                )
            );
        return (sections, people);
    }

    /// <summary>Tells who listens where a counter stands, once the transaction is through.</summary>
    public static Task Tell(NpgsqlConnection connection, Scope scope, long version) =>
        connection.ExecuteAsync(
            "SELECT pg_notify(@Channel, @message)",
            new { Channel, message = new Live.ScopeChanged(scope.ToString(), version).ToJson() }
        );

    /// <summary>The latest batches of a scope, newest first.</summary>
    public static async Task<IReadOnlyList<HistoryRow>> History(NpgsqlConnection connection, Scope scope, int most) =>
        [
            .. await connection.QueryAsync<HistoryRow>(
                HistoryStatement,
                new
                {
                    scope.Kind,
                    scope.Key,
                    most,
                }
            ),
        ];

    internal static string HistoryStatement => Sql.Of("Ledger", "ReadHistory");

    /// <summary>One batch of a scope with its changes; null where the scope has none of that id.</summary>
    public static async Task<(HistoryRow Head, IReadOnlyList<Change> Changes)?> Find(
        NpgsqlConnection connection,
        Scope scope,
        Id<Batch> batch
    )
    {
        var head = await connection.QuerySingleOrDefaultAsync<HistoryRow>(
            Sql.Of("Ledger", "ReadBatch"),
            new
            {
                scope.Kind,
                scope.Key,
                batch = batch.Value,
            }
        );
        if (head is null)
            return null;
        var rows = await connection.QueryAsync<(string Tbl, string Key, string? Before, string? After)>(
            Sql.Of("Ledger", "ReadChanges"),
            new { batch = batch.Value }
        );
        return (head, [.. rows.Select(row => new Change(row.Tbl, Parse(row.Key)!, Parse(row.Before), Parse(row.After), null))]);
    }

    /// <summary>The row a change is about as it is now, locked until the transaction ends; null where there is none.</summary>
    public static async Task<JsonObject?> Present(NpgsqlConnection connection, Change change)
    {
        var table = LedgerTable.Of(change);
        return Parse(
            await connection.ExecuteScalarAsync<string?>(
                $"SELECT to_jsonb(t)::text FROM {table.Name} t, {Record(table, "@key::jsonb")} k WHERE {SameKey(table)} FOR UPDATE OF t",
                new { key = change.Key.ToJsonString() }
            )
        );
    }

    /// <summary>
    /// The latest batch after <paramref name="batch"/> that touched the same fields of the same row; null where none did.
    /// </summary>
    /// <param name="batch">Null: the latest of all.</param>
    public static Task<HistoryRow?> LaterChange(NpgsqlConnection connection, Change change, Id<Batch>? batch) =>
        connection.QueryFirstOrDefaultAsync<HistoryRow?>(
            Sql.Of("Ledger", "ReadLaterChange"),
            new
            {
                batch = batch?.Value ?? 0,
                tbl = change.Table,
                key = change.Key.ToJsonString(),
                fields = (change.After ?? change.Before ?? []).Select(field => field.Key).ToArray(),
            }
        );

    /// <summary>
    /// What takes <paramref name="change"/> back. A new row of a tombstoned table is marked removed; a row that was
    /// deleted comes back as it was.
    /// </summary>
    public static Change Inverse(Change change, long version, Instant at)
    {
        if (change.Before is null && LedgerTable.Of(change).Tombstoned)
            return new(change.Table, Copy(change.Key)!, new() { ["removed_at"] = null }, new() { ["removed_at"] = at.ToString() }, version);
        return new(change.Table, Copy(change.Key)!, Copy(change.After), Copy(change.Before), version);
    }

    // Answers the change as it stood and now stands in the row, so that the log and the row compare equal for ever after.
    private static async Task<Change> ApplyOne(NpgsqlConnection connection, Change change)
    {
        var table = LedgerTable.Of(change);
        var key = change.Key.ToJsonString();
        if (change.After is null)
        {
            var gone = Parse(
                await connection.ExecuteScalarAsync<string?>(
                    $"DELETE FROM {table.Name} t USING {Record(table, "@key::jsonb")} k WHERE "
                        + $"{SameKey(table)} AND t.{table.Version} = @version RETURNING to_jsonb(t)::text",
                    new { key, change.Version }
                )
            );
            return gone is null
                ? throw new StaleChangeException(change, await Present(connection, change))
                : change with
                {
                    Before = Only(gone, change.Before!.Select(field => field.Key)),
                };
        }
        var after = change.After.ToJsonString();
        var fields = change.After.Select(field => field.Key).ToArray();
        if (change.Before is null)
        {
            var columns = string.Join(", ", change.Key.Select(field => field.Key).Concat(fields));
            var inserted = Parse(
                await connection.ExecuteScalarAsync<string>(
                    $"INSERT INTO {table.Name} AS t ({columns}) SELECT {columns} FROM "
                        + $"{Record(table, "@key::jsonb || @after::jsonb")} n RETURNING to_jsonb(t)::text",
                    new { key, after }
                )
            )!;
            return change with { Key = Only(inserted, table.Key), After = Only(inserted, fields) };
        }
        var before = await Present(connection, change);
        var updated = Parse(
            await connection.ExecuteScalarAsync<string?>(
                $"UPDATE {table.Name} t SET {string.Join(", ", fields.Select(field => $"{field} = n.{field}"))}, "
                    + $"{table.Version} = t.{table.Version} + 1 FROM "
                    + $"{Record(table, "@after::jsonb")} n, {Record(table, "@key::jsonb")} k WHERE "
                    + $"{SameKey(table)} AND t.{table.Version} = @version RETURNING to_jsonb(t)::text",
                new
                {
                    key,
                    after,
                    change.Version,
                }
            )
        );
        return updated is null
            ? throw new StaleChangeException(change, before)
            : change with
            {
                Before = Only(before!, change.Before.Select(field => field.Key)),
                After = Only(updated, fields),
            };
    }

    // Composed of names in LedgerTable only; every value is a parameter.
    private static string Record(LedgerTable table, string json) => $"jsonb_populate_record(NULL::{table.Name}, {json})";

    private static string SameKey(LedgerTable table) => string.Join(" AND ", table.Key.Select(column => $"t.{column} = k.{column}"));

    private static JsonObject? Parse(string? json) => json is null ? null : JsonNode.Parse(json)!.AsObject();

    private static JsonObject Only(JsonObject row, IEnumerable<string> columns) =>
        new(columns.Select(column => KeyValuePair.Create(column, row[column]?.DeepClone())));

    private static JsonObject? Copy(JsonObject? json) => json?.DeepClone().AsObject();
}
