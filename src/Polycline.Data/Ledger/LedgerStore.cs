using System.Text.Json.Nodes;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Ledger;

/// <summary>A batch in the history of a scope.</summary>
public sealed record HistoryRow
{
    public required Id<Batch> Id { get; init; }

    public required long Version { get; init; }

    public required string Command { get; init; }

    public required string Words { get; init; }

    public required Id<Person> Author { get; init; }

    public required string AuthorName { get; init; }

    public required Instant At { get; init; }

    public required Id<Batch>? Undoes { get; init; }

    /// <summary>How many undos deep it is: 1 for an undo, 2 for undoing that undo.</summary>
    public required int Depth { get; init; }

    /// <summary>The batch that undid it; null: it stands.</summary>
    public required Id<Batch>? UndoneBy { get; init; }

    /// <summary>The items it touched.</summary>
    public required Id<Item>[] Items { get; init; }

    /// <summary>It is an undo. An undo that was itself undone counts as a change again.</summary>
    public bool IsUndo => Depth % 2 == 1;

    /// <summary>It brought back what an undo had taken away.</summary>
    public bool IsRedo => Depth > 0 && !IsUndo;
}

/// <summary>A row that a logged change touched, as it is now.</summary>
/// <param name="Present">The row as it is now; null: there is none.</param>
/// <param name="Later">The latest later batch that touched the same fields; null: none did.</param>
public sealed record StandingRow(Change Change, JsonObject? Present, LaterBatch? Later);

/// <param name="Words">Goes on a sentence that starts with the author's name.</param>
public sealed record LaterBatch(string Author, string Words);

/// <summary>
/// Applies changes of planning, logs them, raises the scope's counter and tells who listens, all in the caller's
/// transaction. Undo, history, conflicts and live updates all follow from its log.
/// </summary>
public static class LedgerStore
{
    /// <summary>Applies <paramref name="changes"/> as one batch.</summary>
    /// <exception cref="StaleChangeException">A row is no more as its change found it; the transaction must be given up.</exception>
    public static Task<AppliedBatch> Apply(NpgsqlConnection connection, BatchHead head, IReadOnlyList<Change> changes) =>
        LedgerWriter.Write(connection, head, changes);

    /// <summary>
    /// The sections and the people whose rows some changes touch: read off their keys, their fields, and the rows themselves.
    /// </summary>
    public static async Task<(IReadOnlySet<Id<Section>> Sections, IReadOnlySet<Id<Person>> People)> Touched(
        NpgsqlConnection connection,
        IReadOnlyList<Change> changes
    )
    {
        var (sections, people) = (new HashSet<Id<Section>>(), new HashSet<Id<Person>>());
        foreach (var change in changes)
        {
            foreach (var row in new[] { change.Key, change.Before, change.After })
            {
                if (row?["section"] is JsonValue section)
                    sections.Add(new(section.GetValue<long>()));
                if (row?["person"] is JsonValue person)
                    people.Add(new(person.GetValue<long>()));
            }
            if (change.Table == Tables.Sections.Table && change.Key["id"] is JsonValue itself)
                sections.Add(new(itself.GetValue<long>()));
        }
        // A row that is of one section only says so itself.
        foreach (
            var table in changes
                .Where(change => change.Key["id"] is not null && change.Table.Fields.Contains("section"))
                .GroupBy(change => change.Table.Name)
        )
            sections.UnionWith(
                await connection.QueryAsync<Id<Section>>(
                    $"SELECT DISTINCT section FROM {table.Key} WHERE id = ANY(@ids) AND section IS NOT NULL",
                    new { ids = table.Select(change => change.Key["id"]!.GetValue<long>()).ToArray() }
                )
            );
        foreach (
            var table in changes
                .Where(change => change.Key["id"] is not null && change.Table.Fields.Contains("person"))
                .GroupBy(change => change.Table.Name)
        )
            people.UnionWith(
                await connection.QueryAsync<Id<Person>>(
                    $"SELECT DISTINCT person FROM {table.Key} WHERE id = ANY(@ids)",
                    new { ids = table.Select(change => change.Key["id"]!.GetValue<long>()).ToArray() }
                )
            );
        return (sections, people);
    }

    /// <summary>Whether some changes touch what is the course's own: its units, lessons and items, groups and settings.</summary>
    public static async Task<bool> TouchesCourse(NpgsqlConnection connection, IReadOnlyList<Change> changes)
    {
        LedgerTable[] tree = [Tables.Units.Table, Tables.Lessons.Table, Tables.Items.Table, Tables.ItemFiles.Table];
        foreach (var change in changes)
        {
            if (change.Table == Tables.Groups.Table || change.Table == Tables.Editions.Table || IsPretendSection(change))
                return true;
            if (!tree.Contains(change.Table))
                continue;
            if (change.Before is null ? change.After!["section"] is null : !await IsOfSection(change))
                return true;
        }
        return false;

        // The only sections that are made or unmade by a change of a course.
        static bool IsPretendSection(Change change) =>
            change.Table == Tables.Sections.Table && (change.Before is null || change.After is null);

        Task<bool> IsOfSection(Change change) =>
            connection.ExecuteScalarAsync<bool>(
                $"SELECT section IS NOT NULL FROM {change.Table.Name} WHERE id = @id",
                new { id = change.Key["id"]!.GetValue<long>() }
            );
    }

    /// <summary>Tells who listens where a counter stands, once the transaction is through.</summary>
    public static Task Tell(NpgsqlConnection connection, Scope scope, long version) =>
        new Live.ScopeChanged(scope.ToString(), version).Tell(connection);

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
        return (head, [.. rows.Select(row => new Change(Tables.Of(row.Tbl), Parse(row.Key)!, Parse(row.Before), Parse(row.After), null))]);
    }

    /// <summary>The row a change is about as it is now, locked until the transaction ends; null where there is none.</summary>
    public static async Task<JsonObject?> Present(NpgsqlConnection connection, Change change)
    {
        await using var batch = new NpgsqlBatch(connection) { BatchCommands = { PresentCommand(change) } };
        await using var results = await batch.ExecuteReaderAsync();
        return await RowOf(results);
    }

    /// <summary>
    /// How every row of some changes stands now, locked until the transaction ends, and which later batch touched the same
    /// fields of it last; in one round trip.
    /// </summary>
    /// <param name="batch">The batch that the changes are of.</param>
    public static async Task<IReadOnlyList<StandingRow>> Standing(
        NpgsqlConnection connection,
        IReadOnlyList<Change> changes,
        Id<Batch> batch
    )
    {
        await using var asked = new NpgsqlBatch(connection);
        foreach (var change in changes)
        {
            asked.BatchCommands.Add(PresentCommand(change));
            asked.BatchCommands.Add(
                new(Sql.Of("Ledger", "ReadLaterBatch"))
                {
                    Parameters =
                    {
                        LedgerWriter.Value(change.Table.Name),
                        LedgerWriter.Json(change.Key),
                        LedgerWriter.Value(batch.Value),
                        LedgerWriter.Value((change.After ?? change.Before ?? []).Select(field => field.Key).ToArray()),
                    },
                }
            );
        }
        var rows = new List<StandingRow>();
        await using var results = await asked.ExecuteReaderAsync();
        foreach (var change in changes)
        {
            var present = await RowOf(results);
            await results.NextResultAsync();
            var later = await results.ReadAsync() ? new LaterBatch(results.GetString(0), results.GetString(1)) : null;
            await results.NextResultAsync();
            rows.Add(new(change, present, later));
        }
        return rows;
    }

    private static NpgsqlBatchCommand PresentCommand(Change change) =>
        new(
            $"SELECT to_jsonb(t)::text FROM {change.Table.Name} t, {LedgerWriter.Record(change.Table, "$1")} k "
                + $"WHERE {LedgerWriter.SameKey(change.Table, "t", "k")} FOR UPDATE OF t"
        )
        {
            Parameters = { LedgerWriter.Json(change.Key) },
        };

    private static async Task<JsonObject?> RowOf(NpgsqlDataReader results) =>
        await results.ReadAsync() ? Parse(results.GetString(0)) : null;

    /// <summary>The latest batch that touched the same fields of the same row; null where none did.</summary>
    public static Task<HistoryRow?> LastChange(NpgsqlConnection connection, Change change) =>
        connection.QueryFirstOrDefaultAsync<HistoryRow?>(
            Sql.Of("Ledger", "ReadLastChange"),
            new
            {
                tbl = change.Table.Name,
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
        if (change.Before is null && change.Table.RemovedAt is { } removed)
        {
            var turn = removed.Turns(null, at);
            return new(
                change.Table,
                Copy(change.Key)!,
                new() { [removed.Name] = turn.Before.Value },
                new() { [removed.Name] = turn.After.Value },
                version
            );
        }
        return new(change.Table, Copy(change.Key)!, Copy(change.After), Copy(change.Before), version);
    }

    private static JsonObject? Parse(string? json) => json is null ? null : JsonNode.Parse(json)!.AsObject();

    private static JsonObject? Copy(JsonObject? json) => json?.DeepClone().AsObject();
}
