using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>What a link that is still good leads to.</summary>
/// <param name="Person">Whose password it sets; null: it makes the first account of the school.</param>
public sealed record OneTimeLink(Id<Person>? Person, string? Name, string? Email);

/// <summary>Links that are good once and for a while; only their hashes are kept.</summary>
public static class OneTimeLinkStore
{
    /// <summary>Makes a link; an earlier one of the same person is good no longer.</summary>
    public static async Task Add(NpgsqlConnection connection, byte[] tokenHash, Id<Person>? person, Instant now, Instant expires)
    {
        await Withdraw(connection, person, now);
        await connection.ExecuteAsync(
            "INSERT INTO one_time_link (token_hash, person, made_at, expires_at) VALUES (@tokenHash, @person, @now, @expires)",
            new
            {
                tokenHash,
                person = person?.Value,
                now,
                expires,
            }
        );
    }

    /// <summary>Every link of a person that is still good is so no longer.</summary>
    public static Task Withdraw(NpgsqlConnection connection, Id<Person>? person, Instant now) =>
        connection.ExecuteAsync(
            "UPDATE one_time_link SET used_at = @now WHERE person IS NOT DISTINCT FROM @person AND used_at IS NULL",
            new { person = person?.Value, now }
        );

    /// <returns>Null if there is no such link, or it has been used or has run out, or its person's account was deactivated.</returns>
    public static Task<OneTimeLink?> Read(NpgsqlConnection connection, byte[] tokenHash, Instant now) =>
        connection.QuerySingleOrDefaultAsync<OneTimeLink?>(
            """
            SELECT l.person, p.name, p.email::text
            FROM one_time_link l
            LEFT JOIN person p ON p.id = l.person
            WHERE l.token_hash = @tokenHash AND l.used_at IS NULL AND l.expires_at > @now AND p.removed_at IS NULL
            """,
            new { tokenHash, now }
        );

    /// <summary>Uses a link up. Of two who use it at once one finds it gone.</summary>
    public static async Task<bool> Use(NpgsqlConnection connection, byte[] tokenHash, Instant now) =>
        await connection.ExecuteAsync(
            "UPDATE one_time_link SET used_at = @now WHERE token_hash = @tokenHash AND used_at IS NULL AND expires_at > @now",
            new { tokenHash, now }
        ) == 1;
}
