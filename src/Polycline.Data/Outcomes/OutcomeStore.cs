using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.Outcomes;

/// <summary>Something that students of the school should be able to do.</summary>
/// <param name="Subject">Empty: none was given.</param>
/// <param name="Removed">It is no longer in the school's list.</param>
public sealed record OutcomeRow(string Code, string Words, string Subject, bool Removed);

/// <summary>An import of outcomes that can still be undone.</summary>
public sealed record OutcomeImportRow(long Id, string By, Instant At);

/// <summary>The school's outcomes.</summary>
public static class OutcomeStore
{
    /// <summary>All of them in their order, those that were removed last.</summary>
    public static async Task<IReadOnlyList<OutcomeRow>> All(NpgsqlConnection connection) =>
        (
            await connection.QueryAsync<OutcomeRow>(
                "SELECT code, words, subject, removed_at IS NOT NULL AS removed FROM outcome ORDER BY removed, rank, code"
            )
        ).AsList();

    /// <summary>Some of them in their order, those that were removed too.</summary>
    public static async Task<IReadOnlyList<OutcomeRow>> Of(NpgsqlConnection connection, string[] codes) =>
        (
            await connection.QueryAsync<OutcomeRow>(
                "SELECT code, words, subject, removed_at IS NOT NULL AS removed FROM outcome WHERE code = ANY(@codes) ORDER BY rank, code",
                new { codes }
            )
        ).AsList();

    /// <summary>The last import that is not undone; null: none.</summary>
    public static Task<OutcomeImportRow?> Latest(NpgsqlConnection connection) =>
        connection.QueryFirstOrDefaultAsync<OutcomeImportRow?>(
            """
            SELECT i.id, p.name AS by, i.at FROM outcome_import i JOIN person p ON p.id = i.by
            WHERE i.undone_at IS NULL ORDER BY i.id DESC LIMIT 1
            """
        );

    /// <summary>How many items are tied to an outcome, in all courses that are not at rest, by code.</summary>
    public static async Task<IReadOnlyDictionary<string, int>> Uses(NpgsqlConnection connection) =>
        (
            await connection.QueryAsync<(string Code, int Items)>(
                """
                SELECT o.code, count(*)::int FROM item i JOIN edition e ON e.id = i.edition AND e.state <> 'resting'
                CROSS JOIN unnest(i.outcomes) o (code) WHERE i.removed_at IS NULL GROUP BY o.code
                """
            )
        ).ToDictionary(use => use.Code, use => use.Items, StringComparer.Ordinal);

    /// <summary>One import after the other, in the caller's transaction.</summary>
    public static Task Lock(NpgsqlConnection connection) => connection.ExecuteAsync("SELECT pg_advisory_xact_lock(hashtext('outcomes'))");

    /// <summary>Puts another list in the place of the present one.</summary>
    public static Task Replace(
        NpgsqlConnection connection,
        IReadOnlyList<(string Code, string Words, string Subject)> lines,
        Id<Person> by,
        Instant at
    ) =>
        connection.ExecuteAsync(
            """
            INSERT INTO outcome_import (by, at, before)
            SELECT @by, @at, coalesce(jsonb_agg(to_jsonb(o)), '[]') FROM outcome o;
            INSERT INTO outcome (code, words, subject, rank)
            SELECT * FROM unnest(@codes, @words, @subjects) WITH ORDINALITY
            ON CONFLICT (code) DO UPDATE SET words = excluded.words, subject = excluded.subject, rank = excluded.rank, removed_at = NULL;
            UPDATE outcome SET removed_at = @at WHERE removed_at IS NULL AND code <> ALL(@codes)
            """,
            new
            {
                by = by.Value,
                at,
                codes = lines.Select(line => line.Code).ToArray(),
                words = lines.Select(line => line.Words).ToArray(),
                subjects = lines.Select(line => line.Subject).ToArray(),
            }
        );

    /// <summary>Puts the list back as it was before an import.</summary>
    public static Task Undo(NpgsqlConnection connection, OutcomeImportRow import, Instant at) =>
        connection.ExecuteAsync(
            """
            UPDATE outcome o SET words = b.words, subject = b.subject, rank = b.rank, removed_at = b.removed_at
            FROM outcome_import i CROSS JOIN jsonb_populate_recordset(NULL::outcome, i.before) b
            WHERE i.id = @id AND b.code = o.code;
            UPDATE outcome o SET removed_at = @at FROM outcome_import i
            WHERE i.id = @id AND o.removed_at IS NULL
              AND NOT EXISTS (SELECT 1 FROM jsonb_populate_recordset(NULL::outcome, i.before) b WHERE b.code = o.code);
            UPDATE outcome_import SET undone_at = @at WHERE id = @id
            """,
            new { id = import.Id, at }
        );
}
