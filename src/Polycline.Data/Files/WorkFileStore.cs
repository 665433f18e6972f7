using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Files;

/// <summary>A file that a student brought to an item.</summary>
public sealed record WorkFileRow
{
    public required Id<WorkFileRow> Id { get; init; }

    public required string Name { get; init; }

    /// <summary>What it is kept under, in hexadecimal digits.</summary>
    public required string Hash { get; init; }

    /// <summary>In bytes.</summary>
    public required long Size { get; init; }

    /// <summary>The media type of its bytes.</summary>
    public required string Type { get; init; }

    /// <summary>The file of which it began as a copy; null: the student brought it.</summary>
    public Id<ItemFileRow>? CopyOf { get; init; }

    /// <summary>What was written in it since, and is no file of its own yet; null: nothing.</summary>
    public string? Written { get; init; }

    /// <summary>It is a copy, and nobody has worked in it.</summary>
    public bool AsGiven { get; init; }

    public StoredFile Stored => new(Hash, Size, Type);
}

/// <summary>Students' files. A file belongs to whoever's drafts and hand-ins list it.</summary>
public static class WorkFileStore
{
    /// <summary>Keeps what was sent as files of somebody's work, in their order.</summary>
    /// <param name="copies">For each, the file of which what it replaces was a copy; null: it replaces no copy.</param>
    public static async Task<IReadOnlyList<Id<WorkFileRow>>> Keep(
        NpgsqlConnection connection,
        IReadOnlyList<SentFile> sent,
        IReadOnlyList<Id<ItemFileRow>?> copies,
        Instant at
    ) =>
        sent.Count == 0
            ? []
            : (
                await connection.QueryAsync<Id<WorkFileRow>>(
                    """
                    WITH kept AS (
                      INSERT INTO work_file (name, file, brought_at, copy_of)
                      SELECT name, file, @at, copy_of
                      FROM unnest(@names, @files, @copies) WITH ORDINALITY one (name, file, copy_of, place)
                      ORDER BY place
                      RETURNING id
                    )
                    SELECT id FROM kept ORDER BY id
                    """,
                    new
                    {
                        names = sent.Select(file => file.Name).ToArray(),
                        files = sent.Select(file => Convert.FromHexString(file.Hash)).ToArray(),
                        copies = copies.Select(copy => copy?.Value).ToArray(),
                        at,
                    }
                )
            ).AsList();

    /// <summary>The files that a student's draft and hand-ins of an item list: the only ones they can list again.</summary>
    public static async Task<IReadOnlyDictionary<Id<WorkFileRow>, WorkFileRow>> Listed(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item
    ) =>
        (
            await connection.QueryAsync<WorkFileRow>(
                """
                SELECT f.id, f.name, encode(f.file, 'hex') AS hash, s.size, s.type, f.copy_of, t.text AS written
                FROM work_file f
                JOIN stored_file s ON s.hash = f.file
                LEFT JOIN copy_text t ON t.file = f.id
                WHERE f.id = ANY(ARRAY(
                  SELECT unnest(v.files) FROM work w JOIN work_version v ON v.work = w.id WHERE w.person = @person AND w.item = @item
                  UNION SELECT unnest(files) FROM draft WHERE person = @person AND item = @item))
                """,
                new { person = person.Value, item = item.Value }
            )
        ).ToDictionary(file => file.Id);

    /// <summary>
    /// A file that a student of the section has handed in and not taken back, or sent too late; null if there is none with this id.
    /// </summary>
    public static Task<WorkFileRow?> OfSection(NpgsqlConnection connection, Id<Section> section, Id<WorkFileRow> file) =>
        connection.QuerySingleOrDefaultAsync<WorkFileRow?>(
            """
            SELECT f.id, f.name, encode(f.file, 'hex') AS hash, s.size, s.type
            FROM work_file f
            JOIN stored_file s ON s.hash = f.file
            WHERE f.id = @file AND (
              EXISTS (SELECT 1 FROM work w JOIN work_version v ON v.work = w.id WHERE w.section = @section
                      AND v.taken_back_at IS NULL AND f.id = ANY(v.files))
              OR EXISTS (SELECT 1 FROM enrolment n JOIN section c ON c.id = n.section JOIN draft d ON d.person = n.person
                         JOIN item i ON i.id = d.item AND i.edition = c.edition
                         WHERE n.section = @section AND d.missed_at IS NOT NULL AND f.id = ANY(d.files)))
            """,
            new { section = section.Value, file }
        );
}
