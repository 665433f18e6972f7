using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Live;

namespace Polycline.Data.Texts;

/// <summary>A text as a team is writing it, before it stands in the item.</summary>
/// <param name="Hash">What its text is kept under, in hexadecimal digits.</param>
/// <param name="By">Who saved it last.</param>
public sealed record TextDraftRow(string Hash, string Html, string By, Instant At);

/// <summary>
/// Texts that a team is writing, who saved them last, and who has them open. They are as they are now, whatever moment one looks at.
/// </summary>
public static class TextDraftStore
{
    /// <summary>How many versions of a text stay, for those who still write on one.</summary>
    private const int Kept = 100;

    /// <summary>Somebody is in a text if they said so within this time.</summary>
    private const int SecondsIn = 20;

    internal const string Statement = """
        SELECT encode(v.body, 'hex') AS hash, b.data ->> 'Html' AS html, p.name AS by, v.at
        FROM text_draft d
        JOIN text_draft_version v ON v.item = d.item AND v.n = d.n
        JOIN body b ON b.hash = v.body
        JOIN person p ON p.id = v.author
        WHERE d.item = @item
        """;

    /// <summary>The text as it is being written; null: nobody is writing it.</summary>
    public static Task<TextDraftRow?> Of(NpgsqlConnection connection, Id<Item> item) =>
        connection.QuerySingleOrDefaultAsync<TextDraftRow?>(Statement, new { item = item.Value });

    /// <summary>The same, with everybody else kept out until the transaction is through.</summary>
    public static async Task<TextDraftRow?> Locked(NpgsqlConnection connection, Id<Item> item)
    {
        await connection.ExecuteAsync(
            "INSERT INTO text_draft (item) VALUES (@item) ON CONFLICT DO NOTHING; SELECT 1 FROM text_draft WHERE item = @item FOR UPDATE",
            new { item = item.Value }
        );
        return await Of(connection, item);
    }

    /// <summary>What a version said that somebody still writes on; null: it is no longer there.</summary>
    public static Task<string?> Said(NpgsqlConnection connection, Id<Item> item, string hash) =>
        connection.ExecuteScalarAsync<string?>(
            """
            SELECT b.data ->> 'Html' FROM body b
            WHERE b.hash = @hash AND EXISTS (SELECT 1 FROM text_draft_version v WHERE v.item = @item AND v.body = b.hash)
            """,
            new { item = item.Value, hash = Convert.FromHexString(hash) }
        );

    /// <summary>Saves the text as it is now.</summary>
    public static async Task Save(NpgsqlConnection connection, Id<Item> item, Body body, Id<Person> author, Instant at)
    {
        await BodyStore.Keep(connection, body);
        var n = await connection.ExecuteScalarAsync<int>(
            """
            WITH saved AS (
              INSERT INTO text_draft_version (item, n, author, body, at)
              SELECT @item, coalesce(max(n), 0) + 1, @author, @body, @at FROM text_draft_version WHERE item = @item
              RETURNING n
            )
            UPDATE text_draft d SET n = s.n
            FROM saved s WHERE d.item = @item
            RETURNING s.n
            """,
            new
            {
                item = item.Value,
                author = author.Value,
                body = Convert.FromHexString(body.Hash),
                at,
            }
        );
        if (n > Kept)
            await connection.ExecuteAsync("SELECT forget_text_drafts(@item, @before)", new { item = item.Value, before = n - Kept + 1 });
    }

    /// <summary>
    /// Nobody is writing any more: the text is as it stands in the item. What was saved stays for those still writing on it.
    /// </summary>
    public static Task End(NpgsqlConnection connection, Id<Item> item) =>
        connection.ExecuteAsync("UPDATE text_draft SET n = NULL WHERE item = @item", new { item = item.Value });

    /// <summary>Tells every instance that a text was saved or put in place, once the transaction is through.</summary>
    public static Task Tell(NpgsqlConnection connection, Id<Item> item) => new ScopeChanged(Scope(item), 0).Tell(connection);

    /// <summary>What those are told under who have a text open.</summary>
    public static string Scope(Id<Item> item) => $"text:{item}";

    /// <summary>Notes that somebody has a text open.</summary>
    /// <returns>The names of the others who do.</returns>
    public static async Task<IReadOnlyList<string>> BeIn(NpgsqlConnection connection, Id<Item> item, Id<Person> person) =>
        (
            await connection.QueryAsync<string>(
                """
                INSERT INTO text_writer (item, person, at) VALUES (@item, @person, clock_timestamp())
                ON CONFLICT (item, person) DO UPDATE SET at = excluded.at;
                SELECT p.name FROM text_writer w JOIN person p ON p.id = w.person
                WHERE w.item = @item AND w.person <> @person AND w.at > clock_timestamp() - make_interval(secs => @seconds)
                ORDER BY p.name
                """,
                new
                {
                    item = item.Value,
                    person = person.Value,
                    seconds = SecondsIn,
                }
            )
        ).AsList();

    /// <summary>Somebody has closed it.</summary>
    public static Task Leave(NpgsqlConnection connection, Id<Item> item, Id<Person> person) =>
        connection.ExecuteAsync(
            "DELETE FROM text_writer WHERE item = @item AND person = @person",
            new { item = item.Value, person = person.Value }
        );
}
