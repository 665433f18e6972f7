using System.Text.Json.Nodes;
using NodaTime;
using Npgsql;
using NpgsqlTypes;

namespace Polycline.Data.Ledger;

/// <summary>
/// Writes a batch in one round trip, whatever its size: the counter is raised, the batch begun, every row changed and
/// logged as it stood and now stands, so that the log and the row compare equal for ever after.
/// </summary>
internal static class LedgerWriter
{
    // The batch's id, which the server alone knows until all is sent.
    private const string ThisBatch = "current_setting('polycline.batch')::bigint";

    /// <exception cref="StaleChangeException">A row is no more as its change found it; the transaction must be given up.</exception>
    public static async Task<AppliedBatch> Write(NpgsqlConnection connection, BatchHead head, IReadOnlyList<Change> changes)
    {
        await using var batch = new NpgsqlBatch(connection);
        batch.BatchCommands.Add(Begin(head));
        for (var n = 0; n < changes.Count; n++)
            batch.BatchCommands.Add(Command(changes[n], n));
        Change? stale = null;
        AppliedBatch? applied = null;
        try
        {
            await using var results = await batch.ExecuteReaderAsync();
            await results.ReadAsync();
            applied = new(new(results.GetInt64(0)), results.GetInt64(1));
            for (var n = 0; n < changes.Count && stale is null; n++)
                stale = await results.NextResultAsync() && await results.ReadAsync() ? null : changes[n];
        }
        // A later change may fail only because an earlier one came too late, so the earlier one is reported.
        catch (PostgresException) when (stale is not null)
        {
            throw new StaleChangeException(stale, null);
        }
        return stale is null ? applied : throw new StaleChangeException(stale, await LedgerStore.Present(connection, stale));
    }

    private static NpgsqlBatchCommand Begin(BatchHead head) =>
        // The four kinds of scope are tables; the name comes from Scope's makers, never from a request.
        new(
            $"""
            WITH raised AS (UPDATE {head.Scope.Kind} SET version = version + 1 WHERE id = $1 RETURNING version),
            made AS (
              INSERT INTO batch (scope_kind, scope, version, command, words, author, at, undoes)
              SELECT $2, $1, version, $3, $4, $5, $6, $7 FROM raised
              RETURNING id, version
            )
            SELECT id, version, set_config('polycline.batch', id::text, true),
                   pg_notify($8, jsonb_build_object('scope', $9::text, 'version', version)::text)
            FROM made
            """
        )
        {
            Parameters =
            {
                Value(head.Scope.Key),
                Value(head.Scope.Kind),
                Value(head.Command),
                Value(head.Words),
                Value(head.Author.Value),
                new NpgsqlParameter<Instant> { TypedValue = head.At },
                new() { Value = (object?)head.Undoes?.Value ?? DBNull.Value, NpgsqlDbType = NpgsqlDbType.Bigint },
                Value(Live.ScopeChanged.Channel),
                Value($"{head.Scope}"),
            },
        };

    private static NpgsqlBatchCommand Command(Change change, int n) =>
        change switch
        {
            { Before: null } => Insert(change, n),
            { After: null } => Delete(change, n),
            _ => Update(change, n),
        };

    private static NpgsqlBatchCommand Insert(Change change, int n)
    {
        var table = change.Table;
        var columns = string.Join(", ", change.Key.Select(field => field.Key).Concat(change.After!.Select(field => field.Key)));
        return new(
            $"""
            WITH made AS (
              INSERT INTO {table.Name} AS t ({columns}) SELECT {columns} FROM {Record(table, "$2 || $3")} n RETURNING to_jsonb(t) AS row
            )
            INSERT INTO change (batch, n, tbl, key, before, after)
            SELECT {ThisBatch}, $1, '{table.Name}', {Only("row", "$4")}, NULL, {Only("row", "$5")} FROM made
            RETURNING n
            """
        )
        {
            Parameters = { Value(n), Json(change.Key), Json(change.After!), Value(table.Key.ToArray()), Names(change.After!) },
        };
    }

    private static NpgsqlBatchCommand Update(Change change, int n)
    {
        var table = change.Table;
        var found = SameKey(table, "t", "k");
        var set = string.Concat(change.After!.Select(field => $"{field.Key} = n.{field.Key}, "));
        return new(
            $"""
            WITH old AS MATERIALIZED (
              SELECT t.* FROM {table.Name} t, {Record(table, "$2")} k
              WHERE {found} AND t.{table.Version} = $5 FOR UPDATE OF t
            ),
            made AS (
              UPDATE {table.Name} t SET {set}{table.Version} = t.{table.Version} + 1
              FROM {Record(table, "$3")} n, old WHERE {SameKey(table, "t", "old")}
              RETURNING to_jsonb(t) AS row
            )
            INSERT INTO change (batch, n, tbl, key, before, after)
            SELECT {ThisBatch}, $1, '{table.Name}', $2, {Only("to_jsonb(old)", "$4")}, {Only("made.row", "$6")} FROM made, old
            RETURNING n
            """
        )
        {
            Parameters =
            {
                Value(n),
                Json(change.Key),
                Json(change.After!),
                Names(change.Before!),
                Value(change.Version ?? 0),
                Names(change.After!),
            },
        };
    }

    private static NpgsqlBatchCommand Delete(Change change, int n)
    {
        var table = change.Table;
        return new(
            $"""
            WITH gone AS (
              DELETE FROM {table.Name} t USING {Record(table, "$2")} k
              WHERE {SameKey(table, "t", "k")} AND t.{table.Version} = $3 RETURNING to_jsonb(t) AS row
            )
            INSERT INTO change (batch, n, tbl, key, before, after)
            SELECT {ThisBatch}, $1, '{table.Name}', $2, {Only("row", "$4")}, NULL FROM gone
            RETURNING n
            """
        )
        {
            Parameters = { Value(n), Json(change.Key), Value(change.Version ?? 0), Names(change.Before!) },
        };
    }

    // Made of names from Tables only; every value is a parameter.
    internal static string Record(LedgerTable table, string json) => $"jsonb_populate_record(NULL::{table.Name}, {json})";

    internal static string SameKey(LedgerTable table, string one, string other) =>
        string.Join(" AND ", table.Key.Select(column => $"{one}.{column} = {other}.{column}"));

    internal static NpgsqlParameter Json(JsonObject json) => new() { Value = json.ToJsonString(), NpgsqlDbType = NpgsqlDbType.Jsonb };

    private static string Only(string row, string columns) =>
        $"(SELECT coalesce(jsonb_object_agg(f, {row} -> f), '{{}}') FROM unnest({columns}) f)";

    private static NpgsqlParameter Names(JsonObject row) => Value(row.Select(field => field.Key).ToArray());

    internal static NpgsqlParameter Value<T>(T value) => new NpgsqlParameter<T> { TypedValue = value };
}
