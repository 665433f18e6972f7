using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Files;

/// <summary>A copy that a student has of a file.</summary>
/// <param name="AsGiven">Nobody has worked in it, and it is not handed in.</param>
public sealed record CopyRow(Id<ItemFileRow> Of, Id<Person> Person, bool AsGiven);

/// <summary>A copy to be made.</summary>
/// <param name="Hash">Of the bytes it begins with.</param>
public sealed record NewCopy(Id<ItemFileRow> Of, string Name, string Hash);

/// <summary>Students' own copies of files. Each begins with the bytes of its file, which are stored once.</summary>
public static class CopyStore
{
    internal static string Statement => Sql.Of("Files", "ReadCopies");

    /// <summary>The copies that students have of an item's files.</summary>
    public static async Task<IReadOnlyList<CopyRow>> Of(NpgsqlConnection connection, Id<Item> item) =>
        (await connection.QueryAsync<CopyRow>(Statement, new { item = item.Value })).AsList();

    /// <summary>Makes whoever opens the item at the same time wait until the transaction ends: each copy is made once.</summary>
    public static Task Queue(NpgsqlConnection connection, Id<Person> person, Id<Item> item) =>
        connection.ExecuteAsync(
            "SELECT pg_advisory_xact_lock(hashtextextended('copies of ' || @item || ' for ' || @person, 0))",
            new { person = person.Value, item = item.Value }
        );

    /// <summary>The files of which a student has a copy, worked in or not, handed in or not.</summary>
    public static async Task<IReadOnlySet<Id<ItemFileRow>>> OfStudent(NpgsqlConnection connection, Id<Person> person, Id<Item> item) =>
        (
            await connection.QueryAsync<Id<ItemFileRow>>(
                """
                SELECT f.copy_of FROM work_file f
                WHERE f.copy_of IS NOT NULL AND f.id = ANY(ARRAY(
                  SELECT unnest(v.files) FROM work w JOIN work_version v ON v.work = w.id WHERE w.person = @person AND w.item = @item
                  UNION SELECT unnest(files) FROM draft WHERE person = @person AND item = @item))
                """,
                new { person = person.Value, item = item.Value }
            )
        ).ToHashSet();

    /// <summary>
    /// Puts copies with what a student is writing. A draft that began this way has version 0: nothing has been written yet.
    /// </summary>
    public static Task Make(NpgsqlConnection connection, Id<Person> person, Id<Item> item, IReadOnlyList<NewCopy> copies, Instant at) =>
        connection.ExecuteAsync(
            """
            WITH made AS (
              INSERT INTO work_file (name, file, brought_at, copy_of)
              SELECT name, file, @at, "of" FROM unnest(@names, @files, @of) WITH ORDINALITY one (name, file, "of", place) ORDER BY place
              RETURNING id
            )
            INSERT INTO draft (person, item, text, files, saved_at, version)
            SELECT @person, @item, '', array_agg(id ORDER BY id), @at, 0 FROM made
            ON CONFLICT (person, item) DO UPDATE SET files = coalesce(draft.files, '{}') || excluded.files
            """,
            new
            {
                person = person.Value,
                item = item.Value,
                names = copies.Select(copy => copy.Name).ToArray(),
                files = copies.Select(copy => Convert.FromHexString(copy.Hash)).ToArray(),
                of = copies.Select(copy => copy.Of.Value).ToArray(),
                at,
            }
        );

    /// <summary>Gives the bytes of a file to those of its copies that nobody has worked in.</summary>
    /// <param name="line">All the forms of the file, earlier and later.</param>
    /// <returns>How many copies changed.</returns>
    public static Task<int> Follow(NpgsqlConnection connection, Id<Item> item, ItemFileRow file, IEnumerable<Id<ItemFileRow>> line) =>
        connection.ExecuteAsync(
            Sql.Of("Files", "FollowFile"),
            new
            {
                item = item.Value,
                file = file.Id.Value,
                hash = Convert.FromHexString(file.Hash),
                line = line.Select(one => one.Value).ToArray(),
            }
        );

    /// <summary>Keeps what was written in copies, in the caller's transaction.</summary>
    public static Task KeepTexts(NpgsqlConnection connection, IReadOnlyDictionary<Id<WorkFileRow>, string> texts, Instant at) =>
        texts.Count == 0
            ? Task.CompletedTask
            : connection.ExecuteAsync(
                """
                INSERT INTO copy_text (file, text, saved_at)
                SELECT file, text, @at FROM unnest(@files, @texts) one (file, text)
                ON CONFLICT (file) DO UPDATE SET text = excluded.text, saved_at = excluded.saved_at
                """,
                new
                {
                    files = texts.Keys.Select(file => file.Value).ToArray(),
                    texts = texts.Values.ToArray(),
                    at,
                }
            );

    /// <summary>What was written in some copies, and is no file of its own yet.</summary>
    public static async Task<IReadOnlyDictionary<Id<WorkFileRow>, string>> Texts(
        NpgsqlConnection connection,
        IReadOnlyList<Id<WorkFileRow>> files
    ) =>
        (
            await connection.QueryAsync<(Id<WorkFileRow> File, string Text)>(
                "SELECT file, text FROM copy_text WHERE file = ANY(@files)",
                new { files = files.Select(file => file.Value).ToArray() }
            )
        ).ToDictionary(text => text.File, text => text.Text);

    /// <summary>All the forms of a file, earlier and later, itself among them.</summary>
    public static IReadOnlySet<Id<ItemFileRow>> LineOf(IReadOnlyList<ItemFileRow> files, Id<ItemFileRow> file)
    {
        var replaced = files.Where(one => one.Replaces is not null).ToDictionary(one => one.Id, one => one.Replaces!.Value);
        var first = First(file);
        return files.Select(one => one.Id).Where(one => First(one) == first).ToHashSet();

        Id<ItemFileRow> First(Id<ItemFileRow> one)
        {
            while (replaced.TryGetValue(one, out var before))
                one = before;
            return one;
        }
    }
}
