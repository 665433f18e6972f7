using System.Text.RegularExpressions;
using Dapper;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Files;

namespace Polycline.Data.Courses;

/// <summary>
/// The pictures in texts. A stored text names a picture by its hash; on a page it has an address, which works for those who may read the
/// text.
/// </summary>
public static partial class Pictures
{
    /// <summary>How a stored text names a picture.</summary>
    public static string Named(string hash) => $"file:{hash}";

    /// <summary>The hashes of the pictures in a stored text, or in the questions of a quiz as they are kept.</summary>
    public static IReadOnlyList<string> In(string html) => [.. Stored().Matches(html).Select(match => match.Groups[1].Value).Distinct()];

    /// <summary>The text with the addresses of its pictures.</summary>
    /// <param name="address">Of the item that the text is of.</param>
    public static string? Shown(string? html, string address) =>
        html is null ? null : Stored().Replace(html, match => $"src=\"{address}/pictures/{match.Groups[1].Value}\"");

    /// <summary>The hash of the picture that an address on a page, or a stored name, is of; null if it is neither.</summary>
    public static string? HashOf(string source) => OfPage().Match(source) is { Success: true } match ? match.Groups[1].Value : null;

    /// <summary>The upload that an address on a page is of; null if it is not one of an upload.</summary>
    public static Guid? UploadOf(string source) =>
        OfUpload().Match(source) is { Success: true } match && Guid.TryParse(match.Groups[1].Value, out var upload) ? upload : null;

    /// <summary>A picture in a text; null if the text has no picture with this hash.</summary>
    /// <param name="body">The hash of the text or quiz; null if there is none, or the reader may not read it.</param>
    public static Task<StoredFile?> Of(NpgsqlConnection connection, string? body, string hash) =>
        body is null
            ? Task.FromResult<StoredFile?>(null)
            : Find(connection, "b.body = @body", hash, new { body = Convert.FromHexString(body), hash = Bytes(hash) });

    /// <summary>A picture in a question that was put to somebody in an attempt.</summary>
    /// <param name="student">Null: to anybody.</param>
    public static Task<StoredFile?> Put(NpgsqlConnection connection, Id<Item> item, Id<Person>? student, string hash) =>
        Find(
            connection,
            """
            b.body IN (SELECT paper FROM quiz_attempt WHERE item = @item AND (@student::bigint IS NULL OR person = @student))
            """,
            hash,
            new
            {
                item = item.Value,
                student = student?.Value,
                hash = Bytes(hash),
            }
        );

    /// <summary>All pictures in a text or quiz.</summary>
    public static async Task<IReadOnlyList<StoredFile>> All(NpgsqlConnection connection, string body) =>
        (
            await connection.QueryAsync<StoredFile>(
                """
                SELECT encode(s.hash, 'hex') AS hash, s.size, s.type
                FROM body_file b
                JOIN stored_file s ON s.hash = b.file
                WHERE b.body = @body
                ORDER BY s.hash
                """,
                new { body = Convert.FromHexString(body) }
            )
        ).AsList();

    private static async Task<StoredFile?> Find(NpgsqlConnection connection, string bodies, string hash, object what) =>
        hash.All(char.IsAsciiHexDigitLower)
            ? await connection.QueryFirstOrDefaultAsync<StoredFile?>(
                $"""
                SELECT encode(s.hash, 'hex') AS hash, s.size, s.type
                FROM body_file b
                JOIN stored_file s ON s.hash = b.file
                WHERE {bodies} AND b.file = @hash
                """,
                what
            )
            : null;

    private static byte[] Bytes(string hash) => hash.All(char.IsAsciiHexDigitLower) ? Convert.FromHexString(hash) : [];

    /// <summary>Those of these pictures that the course has already: in a text, in one that is being written, or in a choice.</summary>
    public static async Task<IReadOnlySet<string>> Known(NpgsqlConnection connection, Id<Edition> edition, IReadOnlyList<string> hashes) =>
        hashes.Count == 0
            ? new HashSet<string>()
            : (
                await connection.QueryAsync<string>(
                    """
                    SELECT DISTINCT encode(b.file, 'hex') FROM body_file b
                    WHERE b.file = ANY(@hashes) AND b.body IN (
                      SELECT body FROM item WHERE edition = @edition
                      UNION SELECT quiz FROM item WHERE edition = @edition
                      UNION SELECT v.body FROM text_draft_version v JOIN item i ON i.id = v.item WHERE i.edition = @edition
                    )
                    UNION SELECT o -> 'picture' ->> 'file'
                    FROM item i CROSS JOIN LATERAL jsonb_array_elements(i.offered -> 'options') o
                    WHERE i.edition = @edition AND o -> 'picture' ->> 'file' = ANY(@names)
                    """,
                    new
                    {
                        edition = edition.Value,
                        hashes = hashes.Select(Convert.FromHexString).ToArray(),
                        names = hashes.ToArray(),
                    }
                )
            ).ToHashSet(StringComparer.Ordinal);

    // In JSON, as the questions of a quiz are kept, a quotation mark is written by its number.
    [GeneratedRegex("src=(?:\"|\\\\u0022)file:([0-9a-f]{64})(?:\"|\\\\u0022)")]
    private static partial Regex Stored();

    [GeneratedRegex("^(?:file:|/api/(?:editions|sections)/[0-9]{1,18}/items/[0-9]{1,18}/pictures/)([0-9a-f]{64})(?:\\?.*)?$")]
    private static partial Regex OfPage();

    [GeneratedRegex("^/api/me/uploads/([0-9a-f-]{36})/bytes$")]
    private static partial Regex OfUpload();
}
