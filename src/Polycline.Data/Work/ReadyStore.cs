using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Work;

/// <param name="Name">Whose piece it is.</param>
/// <param name="By">Whoever left it.</param>
/// <param name="ByName">Their name.</param>
/// <param name="Words">How it goes back, such as <c>go on, 8 of 12</c>.</param>
/// <param name="Request">What goes back, as it was sent.</param>
public sealed record ReadyRow(Id<PieceRow> Work, int N, string Name, Id<Person> By, string ByName, string Words, string Request);

/// <summary>Pieces that were read and go back later, with others.</summary>
public static class ReadyStore
{
    private const string Columns =
        "r.work, r.n, p.name, r.by, b.name AS by_name, r.words, r.request::text FROM ready_mark r "
        + "JOIN work w ON w.id = r.work JOIN person p ON p.id = w.person JOIN person b ON b.id = r.by";

    /// <summary>
    /// Keeps what is to go back with a piece, in place of what the same person left before; what somebody else left stays beside it.
    /// </summary>
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
            "DELETE FROM ready_mark WHERE work = @work AND n <> @n; "
                + "INSERT INTO ready_mark (work, n, by, at, words, request) VALUES (@work, @n, @by, @at, @words, @request::jsonb) "
                + "ON CONFLICT (work, by) DO UPDATE SET n = EXCLUDED.n, at = EXCLUDED.at, words = EXCLUDED.words, "
                + "request = EXCLUDED.request, goes_at = NULL, with_all = false",
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
                $"SELECT {Columns} WHERE w.section = @Value ORDER BY p.name, r.work, r.at, r.by FOR UPDATE OF r",
                section
            )
        ).AsList();

    /// <summary>Says when pieces go back by themselves: at a moment, or with the others of their item; with neither they do not.</summary>
    public static Task Later(NpgsqlConnection connection, IReadOnlyList<Id<PieceRow>> works, Instant? at, bool withAll) =>
        connection.ExecuteAsync(
            "UPDATE ready_mark SET goes_at = @at, with_all = @withAll WHERE work = ANY(@works)",
            new
            {
                works = works.Select(work => work.Value).ToArray(),
                at,
                withAll,
            }
        );

    /// <summary>Pieces that are to go back by themselves now, 200 at most.</summary>
    public static async Task<IReadOnlyList<DueReady>> Due(NpgsqlConnection connection, Instant at) =>
        (await connection.QueryAsync<DueReady>(Sql.Of("Work", "ReadDueReady"), new { at })).AsList();

    /// <summary>What was left for one piece, locked; none: it is ready no longer, or somebody else has it in hand.</summary>
    public static async Task<IReadOnlyList<ReadyRow>> Take(NpgsqlConnection connection, Id<PieceRow> work) =>
        (
            await connection.QueryAsync<ReadyRow>(
                $"SELECT {Columns} WHERE r.work = @work ORDER BY r.at, r.by FOR UPDATE OF r SKIP LOCKED",
                new { work }
            )
        ).AsList();

    /// <summary>What others left for a piece that goes back otherwise: who, and how it would have gone back.</summary>
    public static async Task<IReadOnlyList<(string ByName, string Words)>> Beside(
        NpgsqlConnection connection,
        Id<PieceRow> work,
        int n,
        Id<Person> by
    ) =>
        (
            await connection.QueryAsync<(string, string)>(
                "SELECT b.name, r.words FROM ready_mark r JOIN person b ON b.id = r.by "
                    + "WHERE r.work = @work AND r.n = @n AND r.by <> @by ORDER BY b.name",
                new
                {
                    work,
                    n,
                    by = by.Value,
                }
            )
        ).AsList();
}

/// <param name="By">Who left it to go back then.</param>
/// <param name="May">Whether they still may.</param>
public sealed record DueReady(
    Id<PieceRow> Work,
    Id<Section> Section,
    Id<Edition> Edition,
    long Version,
    long TermVersion,
    Id<Person> By,
    string ByName,
    bool May
);
