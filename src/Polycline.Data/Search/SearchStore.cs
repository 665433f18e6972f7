using Dapper;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Files;

namespace Polycline.Data.Search;

/// <summary>An item that was found.</summary>
/// <param name="Place">Where the words stand: <c>title</c>, <c>text</c> or <c>file</c>.</param>
/// <param name="File">The file they stand in; null: none.</param>
/// <param name="Words">The passage, each word that was sought between <see cref="SearchStore.Begins"/> and
/// <see cref="SearchStore.Ends"/>.</param>
public sealed record FoundRow(Id<Item> Item, string Place, string? File, string Words);

/// <summary>Finds items by the words of their titles, texts and files.</summary>
public static class SearchStore
{
    public const char Begins = '\u0002',
        Ends = '\u0003';

    private const int Most = 30;

    /// <summary>Those of some items that have every word, the best first; at most 30.</summary>
    /// <param name="words">Letters and digits only, each the beginning of a word.</param>
    public static async Task<IReadOnlyList<FoundRow>> Find(
        NpgsqlConnection connection,
        IReadOnlyCollection<Id<Item>> items,
        IReadOnlyList<string> words
    ) =>
        words.Count == 0 || items.Count == 0
            ? []
            : (
                await connection.QueryAsync<FoundRow>(
                    Sql.Of("Search", "SearchItems"),
                    new
                    {
                        items = items.Select(item => item.Value).ToArray(),
                        all = string.Join(" & ", words.Select(word => $"{word}:*")),
                        any = string.Join(" | ", words.Select(word => $"{word}:*")),
                        most = Most,
                    }
                )
            ).AsList();

    /// <summary>Files whose words nobody has read yet, some at once.</summary>
    public static async Task<IReadOnlyList<StoredFile>> Unread(NpgsqlConnection connection) =>
        (
            await connection.QueryAsync<StoredFile>(
                """
                SELECT encode(s.hash, 'hex') AS hash, s.size, s.type
                FROM stored_file s
                WHERE s.type IN ('text/plain', 'application/pdf') AND NOT EXISTS (SELECT 1 FROM file_text t WHERE t.file = s.hash)
                  -- Of a student's files nothing is read.
                  AND EXISTS (SELECT 1 FROM item_file f WHERE f.file = s.hash)
                ORDER BY s.stored_at
                LIMIT 20
                """
            )
        ).AsList();

    /// <summary>Notes that a file is being read: whatever comes of it, it is read once.</summary>
    /// <returns>False: somebody else does it, or it is gone.</returns>
    public static async Task<bool> Begin(NpgsqlConnection connection, StoredFile file) =>
        await connection.ExecuteAsync(
            "INSERT INTO file_text (file) SELECT hash FROM stored_file WHERE hash = @hash ON CONFLICT DO NOTHING",
            new { hash = Convert.FromHexString(file.Hash) }
        ) == 1;

    /// <param name="text">Up to 200,000 characters.</param>
    public static Task Keep(NpgsqlConnection connection, StoredFile file, string text) =>
        connection.ExecuteAsync(
            "UPDATE file_text SET text = @text WHERE file = @hash",
            new { text, hash = Convert.FromHexString(file.Hash) }
        );
}
