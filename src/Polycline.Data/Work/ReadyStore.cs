using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.Work;

/// <param name="Request">What goes back, as it was sent.</param>
public sealed record ReadyRow(Id<PieceRow> Work, int N, string Name, string Request);

/// <summary>Pieces that were read and go back later, with others.</summary>
public static class ReadyStore
{
    /// <summary>Keeps what is to go back with a piece, in place of what was kept before.</summary>
    /// <param name="words">How it goes back, such as <c>go on, 8 of 12</c>.</param>
    public static Task Put(
        NpgsqlConnection connection,
        Id<PieceRow> work,
        int n,
        Id<Person> by,
        string words,
        string request,
        Instant at
    ) =>
        connection.ExecuteAsync(
            "INSERT INTO ready_mark (work, n, by, at, words, request) VALUES (@work, @n, @by, @at, @words, @request::jsonb) "
                + "ON CONFLICT (work) DO UPDATE SET n = EXCLUDED.n, by = EXCLUDED.by, at = EXCLUDED.at, words = EXCLUDED.words, "
                + "request = EXCLUDED.request",
            new
            {
                work,
                n,
                by = by.Value,
                words,
                request,
                at,
            }
        );

    /// <summary>A piece of a section is ready no longer.</summary>
    /// <returns>Whether it was.</returns>
    public static async Task<bool> End(NpgsqlConnection connection, Id<Section> section, Id<PieceRow> work) =>
        await connection.ExecuteAsync(
            "DELETE FROM ready_mark r USING work w WHERE w.id = r.work AND r.work = @work AND w.section = @section",
            new { work, section = section.Value }
        ) > 0;

    /// <summary>Those of a section, with whose they are, in order of name; they are locked.</summary>
    public static async Task<IReadOnlyList<ReadyRow>> Of(NpgsqlConnection connection, Id<Section> section) =>
        (
            await connection.QueryAsync<ReadyRow>(
                "SELECT r.work, r.n, p.name, r.request::text FROM ready_mark r JOIN work w ON w.id = r.work "
                    + "JOIN person p ON p.id = w.person WHERE w.section = @Value ORDER BY p.name, r.work FOR UPDATE OF r",
                section
            )
        ).AsList();
}
