using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.Requests;

/// <summary>What was answered to a request that came before.</summary>
/// <param name="Asked">A digest of what it asked.</param>
public sealed record KeptAnswer(byte[] Asked, int? Status, string? Answer);

/// <summary>Keeps the answers to requests that carry an idempotency key, in the transaction that does what they ask.</summary>
public static class RequestStore
{
    /// <summary>Takes the key for this transaction. If it is taken already, waits for its holder and returns their answer.</summary>
    /// <returns>Null: the key is ours.</returns>
    public static async Task<KeptAnswer?> Claim(NpgsqlConnection connection, Id<Person> person, Guid key, byte[] asked, Instant at)
    {
        var claimed = await connection.ExecuteAsync(
            "INSERT INTO request (person, key, asked, at) VALUES (@person, @key, @asked, @at) ON CONFLICT DO NOTHING",
            new
            {
                person = person.Value,
                key,
                asked,
                at,
            }
        );
        return claimed == 1
            ? null
            : await connection.QuerySingleAsync<KeptAnswer>(
                "SELECT asked, status, answer::text FROM request WHERE person = @person AND key = @key",
                new { person = person.Value, key }
            );
    }

    /// <param name="answer">Null: it holds a secret, and is not kept.</param>
    public static Task Keep(NpgsqlConnection connection, Id<Person> person, Guid key, int status, string? answer) =>
        connection.ExecuteAsync(
            "UPDATE request SET status = @status, answer = @answer::jsonb WHERE person = @person AND key = @key",
            new
            {
                person = person.Value,
                key,
                status,
                answer,
            }
        );
}
