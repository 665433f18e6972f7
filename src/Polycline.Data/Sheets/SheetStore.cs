using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Sheets;

/// <summary>A sheet that a section writes in together.</summary>
public sealed record SheetRow(Id<SheetRow> Id, Instant BegunAt);

/// <summary>A block of a sheet as it stands.</summary>
/// <param name="N">Its latest version, from 1.</param>
/// <param name="Author">Who wrote that version; null: it stood in the file.</param>
/// <param name="Text">Empty: it was taken out.</param>
/// <param name="Changes">How many versions somebody wrote.</param>
public sealed record SheetBlockRow(
    Id<SheetBlockRow> Id,
    string Rank,
    int N,
    Id<Person>? Author,
    string? By,
    string Text,
    Instant At,
    int Changes
);

/// <summary>What a block said once.</summary>
/// <param name="By">Null: it stood in the file.</param>
public sealed record SheetVersionRow(int N, string? By, string Text, Instant At);

/// <summary>How much is in a section's sheet.</summary>
/// <param name="Writers">How many people have written in it.</param>
public sealed record SheetCount(Id<Section> Section, int Blocks, int Writers, Instant LastAt);

/// <summary>Sheets that sections write in together. Whatever was written stays.</summary>
public static class SheetStore
{
    public static Task<SheetRow?> Of(NpgsqlConnection connection, Id<Item> item, Id<Section> section, bool locked = false) =>
        connection.QuerySingleOrDefaultAsync<SheetRow?>(
            "SELECT id, begun_at FROM sheet WHERE item = @item AND section = @section" + (locked ? " FOR UPDATE" : ""),
            new { item = item.Value, section = section.Value }
        );

    /// <summary>The blocks as they stood at a moment, in order; of those that were taken out nothing is left to read.</summary>
    public static async Task<IReadOnlyList<SheetBlockRow>> Blocks(
        NpgsqlConnection connection,
        Id<Item> item,
        Id<Section> section,
        Instant at
    ) =>
        (
            await connection.QueryAsync<SheetBlockRow>(
                Sql.Of("Sheets", "ReadSheet"),
                new
                {
                    item = item.Value,
                    section = section.Value,
                    at,
                }
            )
        ).AsList();

    /// <summary>
    /// What a block of a sheet said, up to a moment, the latest first. What two wrote at once is told by what came of it.
    /// </summary>
    public static async Task<IReadOnlyList<SheetVersionRow>> Versions(
        NpgsqlConnection connection,
        Id<Item> item,
        Id<Section> section,
        Id<SheetBlockRow> block,
        Instant at
    ) =>
        (
            await connection.QueryAsync<SheetVersionRow>(
                """
                SELECT v.n, p.name AS by, v.text, v.at
                FROM sheet s
                JOIN sheet_block b ON b.sheet = s.id
                JOIN sheet_block_version v ON v.block = b.id
                LEFT JOIN person p ON p.id = v.author
                WHERE s.item = @item AND s.section = @section AND b.id = @block AND v.at <= @at
                  AND NOT EXISTS (SELECT 1 FROM sheet_block_version m
                                  WHERE m.block = v.block AND m.n = v.n + 1 AND m.base = v.n AND m.at = v.at AND m.author = v.author)
                ORDER BY v.n DESC
                """,
                new
                {
                    item = item.Value,
                    section = section.Value,
                    block,
                    at,
                }
            )
        ).AsList();

    /// <summary>How much is in the sheets of an item.</summary>
    public static async Task<IReadOnlyList<SheetCount>> Counts(NpgsqlConnection connection, Id<Item> item) =>
        (await connection.QueryAsync<SheetCount>(Statement, new { item = item.Value })).AsList();

    /// <summary>Whether a section of the student has begun a sheet of the item.</summary>
    internal const string OwnStatement = """
        SELECT EXISTS (SELECT 1 FROM sheet s JOIN enrolment n ON n.section = s.section
                       WHERE s.item = @item AND n.person = @person AND s.begun_at <= @at)
        """;

    internal const string Statement = """
        SELECT s.section, count(*) FILTER (WHERE v.text <> '')::int AS blocks,
               (SELECT count(DISTINCT o.author)::int
                FROM sheet_block c JOIN sheet_block_version o ON o.block = c.id
                WHERE c.sheet = s.id) AS writers,
               max(v.at) AS last_at
        FROM sheet s
        JOIN sheet_block b ON b.sheet = s.id
        JOIN LATERAL (SELECT * FROM sheet_block_version v WHERE v.block = b.id ORDER BY v.n DESC LIMIT 1) v ON true
        WHERE s.item = @item
        GROUP BY s.id, s.section
        """;

    /// <summary>Begins a section's sheet with what stands in the file; if somebody has begun it, nothing changes.</summary>
    public static Task Begin(NpgsqlConnection connection, Id<Item> item, Id<Section> section, IReadOnlyList<string> blocks, Instant at) =>
        connection.ExecuteAsync(
            """
            WITH made AS (
              INSERT INTO sheet (item, section, begun_at) VALUES (@item, @section, @at) ON CONFLICT (item, section) DO NOTHING RETURNING id
            ), given AS (
              INSERT INTO sheet_block (sheet, rank)
              SELECT made.id, rank FROM made, unnest(@ranks) rank
              RETURNING id, rank
            )
            INSERT INTO sheet_block_version (block, n, base, text, at)
            SELECT given.id, 1, 0, one.text, @at FROM given JOIN unnest(@ranks, @blocks) one (rank, text) ON one.rank = given.rank
            """,
            new
            {
                item = item.Value,
                section = section.Value,
                ranks = blocks.Select((_, n) => Rank.Nth(n)).ToArray(),
                blocks = blocks.ToArray(),
                at,
            }
        );

    public static Task<Id<SheetBlockRow>> Add(NpgsqlConnection connection, Id<SheetRow> sheet, string rank) =>
        connection.ExecuteScalarAsync<Id<SheetBlockRow>>(
            "INSERT INTO sheet_block (sheet, rank) VALUES (@sheet, @rank) RETURNING id",
            new { sheet, rank }
        );

    /// <summary>What a block said in one of its versions; null: there is none.</summary>
    public static Task<string?> Text(NpgsqlConnection connection, Id<SheetBlockRow> block, int n) =>
        connection.ExecuteScalarAsync<string?>("SELECT text FROM sheet_block_version WHERE block = @block AND n = @n", new { block, n });

    /// <summary>Adds a version, in the caller's transaction, with the sheet locked.</summary>
    public static Task Write(
        NpgsqlConnection connection,
        Id<SheetBlockRow> block,
        int n,
        int basedOn,
        Id<Person> author,
        string text,
        Instant at
    ) =>
        connection.ExecuteAsync(
            "INSERT INTO sheet_block_version (block, n, base, author, text, at) VALUES (@block, @n, @basedOn, @author, @text, @at)",
            new
            {
                block,
                n,
                basedOn,
                author,
                text,
                at,
            }
        );
}
