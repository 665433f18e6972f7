using System.Net;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core.Sections;
using Polycline.Core;

namespace Polycline.Data.People;

/// <summary>What is needed to check a password.</summary>
public sealed record AccountRow(long Id, string Name, string PasswordHash);

/// <summary>How many tries stood in the window before this one.</summary>
/// <param name="AtAccount">At this account: from here, where its owner has signed in before; else from everywhere where not.</param>
/// <param name="FromAddress">From this address, at whatever account.</param>
public sealed record TryCount(int AtAccount, int FromAddress);

/// <summary>Sessions are rows: whoever has the token of one is its person, until the row goes.</summary>
public static class SessionStore
{
    public static Task<AccountRow?> Account(NpgsqlConnection connection, string email) =>
        connection.QuerySingleOrDefaultAsync<AccountRow?>(
            "SELECT id, name, password_hash FROM person WHERE email = @email::citext AND removed_at IS NULL", new { email });

    /// <summary>Counts a try and says what stood before it. Tries at one account, or from one address, are counted one after another.</summary>
    /// <param name="since">Earlier ones do not count.</param>
    public static async Task<TryCount> CountTry(NpgsqlConnection connection, string account, IPAddress address, Instant now, Instant since)
    {
        await connection.ExecuteAsync(
            "SELECT pg_advisory_xact_lock(1, least(a, b)), pg_advisory_xact_lock(1, greatest(a, b)) FROM (SELECT hashtext(lower(@account)) a, hashtext(@address::text) b) keys",
            new { account, address });
        return await connection.QuerySingleAsync<TryCount>(Sql.Of("People", "CountTry"), new { account, address, now, since });
    }

    /// <summary>A password was right: what was tried before it from here no longer counts.</summary>
    public static async Task Start(NpgsqlConnection connection, Id<Person> person, string account, IPAddress address, byte[] tokenHash, Instant now, Instant expires)
    {
        await connection.ExecuteAsync(Sql.Of("People", "StartSession"), new { person = person.Value, account, address, tokenHash, now, expires });
    }

    public static Task End(NpgsqlConnection connection, byte[] tokenHash) =>
        connection.ExecuteAsync("DELETE FROM session WHERE token_hash = @tokenHash", new { tokenHash });

    /// <summary>Ends every session of a person, and tells the instances so that open connections go too.</summary>
    public static async Task EndAll(NpgsqlConnection connection, Id<Person> person)
    {
        await connection.ExecuteAsync("DELETE FROM session WHERE person = @Value", person);
        await connection.ExecuteAsync("SELECT pg_notify(@channel, @message)", new
        {
            channel = Ledger.LedgerStore.Channel,
            message = new Live.Raised($"person:{person}", 0).ToJson(),
        });
    }

    /// <summary>Drops what no longer counts: sessions that are over, old tries, answers kept for requests sent twice.</summary>
    public static Task<int> Sweep(NpgsqlConnection connection, Instant now) =>
        connection.ExecuteAsync(Sql.Of("People", "Sweep"), new { now, tries = now - Duration.FromHours(1), requests = now - Duration.FromDays(7) });
}
