using System.Net;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>What is needed to check a password.</summary>
public sealed record AccountRow(Id<Person> Id, string Name, string PasswordHash);

/// <summary>How many tries stood in the window before this one.</summary>
/// <param name="AtAccount">Tries at this account that were wrong or are still being checked: those from this browser if the owner has
/// signed in on it before, otherwise those from all other browsers.</param>
/// <param name="FromAddress">Wrong ones from this address, at whatever account.</param>
/// <param name="Try">This try's id.</param>
/// <param name="KnowsBrowser">The account's owner has signed in from this browser before.</param>
public sealed record TryCount(int AtAccount, int FromAddress, long Try, bool KnowsBrowser);

/// <summary>Sessions are rows: whoever has the token of one is its person, until the row goes.</summary>
public static class SessionStore
{
    public static Task<AccountRow?> Account(NpgsqlConnection connection, string email) =>
        connection.QuerySingleOrDefaultAsync<AccountRow?>(
            "SELECT id, name, password_hash FROM person WHERE email = @email::citext AND removed_at IS NULL",
            new { email }
        );

    /// <summary>
    /// Counts a sign-in attempt and returns the counts before it. Attempts at one account are counted one after another;
    /// attempts at different accounts do not wait for each other.
    /// </summary>
    /// <param name="browser">The hash of what the browser keeps to be known again; null: nothing.</param>
    /// <param name="since">Earlier ones do not count.</param>
    public static async Task<TryCount> CountTry(
        NpgsqlConnection connection,
        string account,
        IPAddress address,
        byte[]? browser,
        Instant now,
        Instant since
    )
    {
        await connection.ExecuteAsync("SELECT pg_advisory_xact_lock(1, hashtext(lower(@account)))", new { account });
        return await connection.QuerySingleAsync<TryCount>(
            Sql.Of("People", "CountTry"),
            new
            {
                account,
                address,
                browser,
                now,
                since,
            }
        );
    }

    /// <summary>Marks an attempt as wrong: from now on it counts against its address too.</summary>
    public static Task WasWrong(NpgsqlConnection connection, long counted) =>
        connection.ExecuteAsync("UPDATE sign_in_try SET wrong = true WHERE id = @counted", new { counted });

    /// <summary>Forgets an attempt that was right and starts no session.</summary>
    public static Task WasRight(NpgsqlConnection connection, long counted) =>
        connection.ExecuteAsync("DELETE FROM sign_in_try WHERE id = @counted", new { counted });

    /// <summary>Marks an attempt as right: earlier attempts from here no longer count.</summary>
    public static async Task Start(
        NpgsqlConnection connection,
        Id<Person> person,
        string account,
        IPAddress address,
        byte[] tokenHash,
        byte[] browser,
        Instant now,
        Instant expires
    )
    {
        await connection.ExecuteAsync(
            Sql.Of("People", "StartSession"),
            new
            {
                person = person.Value,
                account,
                address,
                tokenHash,
                browser,
                now,
                expires,
            }
        );
    }

    /// <summary>Ends one session, and tells every instance to close its open connections.</summary>
    public static async Task End(NpgsqlConnection connection, byte[] tokenHash)
    {
        await connection.ExecuteAsync("DELETE FROM session WHERE token_hash = @tokenHash", new { tokenHash });
        await new Live.ScopeChanged($"session:{Convert.ToHexStringLower(tokenHash)}", 0).Tell(connection);
    }

    /// <summary>The sessions of a person that have not expired, the latest first.</summary>
    public static async Task<IReadOnlyList<(byte[] TokenHash, Instant StartedAt)>> Of(
        NpgsqlConnection connection,
        Id<Person> person,
        Instant now
    ) =>
        [
            .. await connection.QueryAsync<(byte[], Instant)>(
                "SELECT token_hash, started_at FROM session WHERE person = @Value AND expires_at > @now ORDER BY started_at DESC",
                new { person.Value, now }
            ),
        ];

    /// <summary>Ends the other sessions of a person, or one of them, and tells every instance to close their open connections.</summary>
    /// <param name="keep">The session that stays.</param>
    /// <param name="only">The one that ends; null: all the others.</param>
    /// <returns>How many were ended.</returns>
    public static async Task<int> EndOthers(NpgsqlConnection connection, Id<Person> person, byte[] keep, byte[]? only)
    {
        var others = (
            await connection.QueryAsync<byte[]>(
                "SELECT token_hash FROM session WHERE person = @Value AND token_hash <> @keep AND token_hash = coalesce(@only, token_hash)",
                new
                {
                    person.Value,
                    keep,
                    only,
                }
            )
        ).AsList();
        foreach (var session in others)
            await End(connection, session);
        return others.Count;
    }

    /// <summary>Ends every session of a person, and tells every instance to close their open connections.</summary>
    public static async Task EndAll(NpgsqlConnection connection, Id<Person> person)
    {
        await connection.ExecuteAsync("DELETE FROM session WHERE person = @Value", person);
        await new Live.ScopeChanged($"person:{person}", 0).Tell(connection);
    }

    /// <summary>Deletes what is no longer needed: ended sessions, old sign-in attempts, answers kept for repeated requests.</summary>
    public static Task<int> Sweep(NpgsqlConnection connection, Instant now) =>
        connection.ExecuteAsync(
            Sql.Of("People", "Sweep"),
            new
            {
                now,
                tries = now - Duration.FromHours(1),
                requests = now - Duration.FromDays(7),
            }
        );
}
