using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;

namespace Polycline.Data.Rosters;

/// <summary>A roster that was fetched from the school's feed.</summary>
public sealed record RosterFetchRow
{
    public required long Id { get; init; }

    public required Instant At { get; init; }

    /// <summary>Null: it was fetched at night.</summary>
    public required string? By { get; init; }

    /// <summary>
    /// <c>waiting</c> for somebody's yes, <c>nothing</c> (it changes nothing), <c>failed</c>, <c>imported</c>, <c>set-aside</c>,
    /// <c>overtaken</c> by a later one, or still <c>fetching</c>.
    /// </summary>
    public required string State { get; init; }

    /// <summary>What it would change, or what went wrong.</summary>
    public required string Sentence { get; init; }
}

/// <summary>What was fetched from the school's roster feed, and what became of it.</summary>
public static class RosterFetchStore
{
    /// <summary>The latest of a term; null: nothing has been fetched for it yet.</summary>
    public static Task<RosterFetchRow?> Latest(NpgsqlConnection connection, Id<Term> term) =>
        connection.QueryFirstOrDefaultAsync<RosterFetchRow?>(
            """
            SELECT f.id, f.at, p.name AS by, f.state, f.sentence
            FROM roster_fetch f
            LEFT JOIN person p ON p.id = f.by
            WHERE f.term = @Value
            ORDER BY f.id DESC
            """,
            term
        );

    /// <summary>Whether that night's has been fetched, by whichever instance.</summary>
    public static Task<bool> Has(NpgsqlConnection connection, LocalDate night) =>
        connection.ExecuteScalarAsync<bool>("SELECT EXISTS (SELECT FROM roster_fetch WHERE night = @night)", new { night });

    /// <param name="night">The night it is fetched in; null: somebody asked.</param>
    /// <returns>Null: another instance has begun it.</returns>
    public static Task<long?> Begin(NpgsqlConnection connection, Id<Term> term, LocalDate? night, Id<Person>? by, Instant at) =>
        connection.ExecuteScalarAsync<long?>(
            """
            INSERT INTO roster_fetch (at, term, night, by, state) VALUES (@at, @term, @night, @by, 'fetching')
            ON CONFLICT (night) DO NOTHING RETURNING id
            """,
            new
            {
                at,
                term = term.Value,
                night,
                by = by?.Value,
            }
        );

    /// <summary>Keeps what came of it. One of the term that still waited is overtaken.</summary>
    /// <param name="content">What is to be looked at; null: nothing.</param>
    public static Task Came(NpgsqlConnection connection, long fetch, string state, string sentence, byte[]? content) =>
        connection.ExecuteAsync(
            """
            UPDATE roster_fetch SET state = 'overtaken', content = NULL
            WHERE state = 'waiting' AND @state <> 'failed' AND term = (SELECT term FROM roster_fetch WHERE id = @fetch) AND id <> @fetch;
            UPDATE roster_fetch SET state = @state, sentence = left(@sentence, 2000), content = @content WHERE id = @fetch
            """,
            new
            {
                fetch,
                state,
                sentence,
                content,
            }
        );

    /// <summary>The file that waits; null: it does not wait.</summary>
    public static Task<byte[]?> Content(NpgsqlConnection connection, Id<Term> term, long fetch) =>
        connection.ExecuteScalarAsync<byte[]?>(
            "SELECT content FROM roster_fetch WHERE id = @fetch AND term = @term AND state = 'waiting'",
            new { fetch, term = term.Value }
        );

    /// <param name="state"><c>imported</c> or <c>set-aside</c>.</param>
    /// <returns>Whether it was waiting.</returns>
    public static async Task<bool> Answer(NpgsqlConnection connection, Id<Term> term, long fetch, string state) =>
        await connection.ExecuteAsync(
            "UPDATE roster_fetch SET state = @state, content = NULL WHERE id = @fetch AND term = @term AND state = 'waiting'",
            new
            {
                fetch,
                term = term.Value,
                state,
            }
        ) == 1;
}
