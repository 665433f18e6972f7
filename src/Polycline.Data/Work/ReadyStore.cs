using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
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
                "SELECT r.work, r.n, p.name, r.request::text FROM ready_mark r JOIN work w ON w.id = r.work "
                    + "JOIN person p ON p.id = w.person WHERE w.section = @Value ORDER BY p.name, r.work FOR UPDATE OF r",
                section
            )
        ).AsList();

    /// <summary>When pieces go back by themselves: at a moment, or with all the others of their item; neither: when they are given back.</summary>
    /// <param name="by">Who gives them back then.</param>
    public static Task Later(NpgsqlConnection connection, IReadOnlyList<Id<PieceRow>> works, Instant? at, bool withAll, Id<Person> by) =>
        connection.ExecuteAsync(
            "UPDATE ready_mark SET goes_at = @at, with_all = @withAll, by = @by WHERE work = ANY(@works)",
            new
            {
                works = works.Select(work => work.Value).ToArray(),
                at,
                withAll,
                by = by.Value,
            }
        );

    /// <summary>Pieces that are to go back by themselves now, 200 at most.</summary>
    public static async Task<IReadOnlyList<DueReady>> Due(NpgsqlConnection connection, Instant at) =>
        (await connection.QueryAsync<DueReady>(Sql.Of("Work", "ReadDueReady"), new { at })).AsList();

    /// <summary>One that is ready, locked; null: it is ready no longer, or somebody else has it in hand.</summary>
    public static Task<ReadyRow?> Take(NpgsqlConnection connection, Id<PieceRow> work) =>
        connection.QuerySingleOrDefaultAsync<ReadyRow?>(
            "SELECT r.work, r.n, p.name, r.request::text FROM ready_mark r JOIN work w ON w.id = r.work JOIN person p ON p.id = w.person "
                + "WHERE r.work = @work FOR UPDATE OF r SKIP LOCKED",
            new { work }
        );
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
