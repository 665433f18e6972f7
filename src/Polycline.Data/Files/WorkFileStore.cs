using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Files;

/// <summary>A file that a student brought to an item.</summary>
public sealed record WorkFileRow(Id<WorkFileRow> Id, string Name, string Hash, long Size, string Type)
{
    public StoredFile Stored => new(Hash, Size, Type);
}

/// <summary>Students' files. A file belongs to whoever's drafts and hand-ins list it.</summary>
public static class WorkFileStore
{
    /// <summary>Keeps what was sent as files of somebody's work, in their order.</summary>
    public static async Task<IReadOnlyList<Id<WorkFileRow>>> Keep(NpgsqlConnection connection, IReadOnlyList<SentFile> sent, Instant at) =>
        sent.Count == 0
            ? []
            : (
                await connection.QueryAsync<Id<WorkFileRow>>(
                    """
                    WITH kept AS (
                      INSERT INTO work_file (name, file, brought_at)
                      SELECT name, file, @at FROM unnest(@names, @files) WITH ORDINALITY one (name, file, place) ORDER BY place
                      RETURNING id
                    )
                    SELECT id FROM kept ORDER BY id
                    """,
                    new
                    {
                        names = sent.Select(file => file.Name).ToArray(),
                        files = sent.Select(file => Convert.FromHexString(file.Hash)).ToArray(),
                        at,
                    }
                )
            ).AsList();

    /// <summary>The files that a student's draft and hand-ins of an item list: the only ones they can list again.</summary>
    public static async Task<IReadOnlySet<Id<WorkFileRow>>> Listed(NpgsqlConnection connection, Id<Person> person, Id<Item> item) =>
        (
            await connection.QueryAsync<Id<WorkFileRow>>(
                """
                SELECT unnest(v.files) FROM work w JOIN work_version v ON v.work = w.id WHERE w.person = @person AND w.item = @item
                UNION SELECT unnest(files) FROM draft WHERE person = @person AND item = @item
                """,
                new { person = person.Value, item = item.Value }
            )
        ).ToHashSet();

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
