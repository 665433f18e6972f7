using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.SectionCodes;

/// <summary>A code that leads to a section.</summary>
public sealed record SectionCodeRow
{
    public required Id<SectionCodeRow> Id { get; init; }

    public required Id<Section> Section { get; init; }

    public required string SectionName { get; init; }

    /// <summary>Null: the section follows none at present.</summary>
    public required string? Course { get; init; }

    public required string Code { get; init; }

    /// <summary>The last day on which it can be used.</summary>
    public required LocalDate Until { get; init; }

    /// <summary>How many people can use it.</summary>
    public required int Most { get; init; }

    /// <summary>Those who use it wait for a teacher.</summary>
    public required bool Approve { get; init; }

    public required bool Withdrawn { get; init; }

    /// <summary>How many are in, or wait.</summary>
    public required int Used { get; init; }

    public required string Zone { get; init; }

    public required LocalDate First { get; init; }

    public required LocalDate Last { get; init; }
}

/// <summary>Somebody who waits for a teacher to let them into a section.</summary>
public sealed record WaitingRow(Id<WaitingRow> Id, Id<Person> Person, string Name, string Email, Instant At);

/// <summary>Codes by which people join a section themselves, and who has used them.</summary>
public static class SectionCodeStore
{
    private const string Codes = """
        SELECT k.id, k.section, c.name AS section_name, m.title AS course, k.code, k.until, k.most, k.approve,
               k.withdrawn_at IS NOT NULL AS withdrawn,
               (SELECT count(*) FROM code_use u WHERE u.code = k.id AND u.state <> 'refused')::int AS used,
               t.zone, t.first, coalesce(c.ended_on, t.last) AS last
        FROM section_code k
        JOIN section c ON c.id = k.section
        JOIN term t ON t.id = c.term
        LEFT JOIN edition e ON e.id = c.edition
        LEFT JOIN master m ON m.id = e.master
        """;

    /// <summary>Those of a section that have not been withdrawn, the latest first.</summary>
    public static async Task<IReadOnlyList<SectionCodeRow>> Of(NpgsqlConnection connection, Id<Section> section) =>
        [
            .. await connection.QueryAsync<SectionCodeRow>(
                $"{Codes} WHERE k.section = @Value AND k.withdrawn_at IS NULL ORDER BY k.id DESC",
                section
            ),
        ];

    /// <summary>Null: no code is written so.</summary>
    public static Task<SectionCodeRow?> Read(NpgsqlConnection connection, string code) =>
        connection.QuerySingleOrDefaultAsync<SectionCodeRow?>($"{Codes} WHERE k.code = @code", new { code });

    /// <summary>Holds a code, so that of two who use it last only as many come in as it lets in.</summary>
    public static Task Lock(NpgsqlConnection connection, string code) =>
        connection.ExecuteAsync("SELECT FROM section_code WHERE code = @code FOR UPDATE", new { code });

    public static Task Add(
        NpgsqlConnection connection,
        Id<Section> section,
        string code,
        (LocalDate Until, int Most, bool Approve) limits,
        Id<Person> by,
        Instant at
    ) =>
        connection.ExecuteAsync(
            """
            INSERT INTO section_code (section, code, made_by, made_at, until, most, approve)
            VALUES (@section, @code, @by, @at, @Until, @Most, @Approve)
            """,
            new
            {
                section = section.Value,
                code,
                by = by.Value,
                at,
                limits.Until,
                limits.Most,
                limits.Approve,
            }
        );

    /// <returns>Whether the section has such a code, and it was good until now.</returns>
    public static async Task<bool> Withdraw(NpgsqlConnection connection, Id<Section> section, Id<SectionCodeRow> code, Instant at) =>
        await connection.ExecuteAsync(
            "UPDATE section_code SET withdrawn_at = @at WHERE id = @code AND section = @section AND withdrawn_at IS NULL",
            new
            {
                code = code.Value,
                section = section.Value,
                at,
            }
        ) == 1;

    /// <summary>How it stands with somebody and a code: <c>waiting</c>, <c>in</c> or <c>refused</c>; null: they have not used it.</summary>
    public static Task<string?> StateOf(NpgsqlConnection connection, Id<SectionCodeRow> code, Id<Person> person) =>
        connection.ExecuteScalarAsync<string?>(
            "SELECT state FROM code_use WHERE code = @code AND person = @person",
            new { code = code.Value, person = person.Value }
        );

    /// <param name="state"><c>waiting</c> or <c>in</c>.</param>
    public static Task Use(NpgsqlConnection connection, Id<SectionCodeRow> code, Id<Person> person, string state, Instant at) =>
        connection.ExecuteAsync(
            "INSERT INTO code_use (code, person, at, state) VALUES (@code, @person, @at, @state)",
            new
            {
                code = code.Value,
                person = person.Value,
                at,
                state,
            }
        );

    /// <summary>Whether a section lists somebody on a day or later.</summary>
    public static Task<bool> Lists(NpgsqlConnection connection, Id<Section> section, Id<Person> person, LocalDate from) =>
        connection.ExecuteScalarAsync<bool>(
            """
            SELECT EXISTS (
              SELECT FROM enrolment WHERE section = @section AND person = @person AND (upper(period) IS NULL OR upper(period) > @from)
            )
            """,
            new
            {
                section = section.Value,
                person = person.Value,
                from,
            }
        );

    /// <summary>Those who wait at a section, the first first.</summary>
    public static async Task<IReadOnlyList<WaitingRow>> Waiting(NpgsqlConnection connection, Id<Section> section) =>
        [
            .. await connection.QueryAsync<WaitingRow>(
                """
                SELECT u.id, u.person, p.name, p.email::text, u.at
                FROM code_use u
                JOIN section_code k ON k.id = u.code
                JOIN person p ON p.id = u.person
                WHERE k.section = @Value AND u.state = 'waiting' AND p.removed_at IS NULL
                ORDER BY u.at, u.id
                """,
                section
            ),
        ];

    /// <summary>Answers those who wait.</summary>
    /// <param name="state"><c>in</c> or <c>refused</c>.</param>
    /// <returns>Those who were still waiting.</returns>
    public static async Task<IReadOnlyList<Id<Person>>> Answer(
        NpgsqlConnection connection,
        Id<Section> section,
        IReadOnlyCollection<Id<WaitingRow>> waiting,
        string state,
        Id<Person> by,
        Instant at
    ) =>
        [
            .. await connection.QueryAsync<Id<Person>>(
                """
                UPDATE code_use u SET state = @state, answered_by = @by, answered_at = @at
                FROM section_code k
                WHERE k.id = u.code AND k.section = @section AND u.id = ANY(@waiting) AND u.state = 'waiting'
                RETURNING u.person
                """,
                new
                {
                    section = section.Value,
                    waiting = waiting.Select(one => one.Value).ToArray(),
                    state,
                    by = by.Value,
                    at,
                }
            ),
        ];
}
