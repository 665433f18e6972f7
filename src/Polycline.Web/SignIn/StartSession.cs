using System.Data;
using System.Text.Json;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.SignIn;

public sealed record SignInRequest(string Email, string Password);

public sealed record SignInAnswer(string Name);

/// <summary>
/// Starts a session. Tries at an account are counted in the database before a password is looked at: 10 wrong ones in 15 minutes are its
/// last. Where its owner has signed in before, at an address or with a browser, strangers' tries do not lock the owner out. Wrong tries
/// from one address make every further one from a browser that is not known wait longer, up to some seconds; they refuse
/// nobody, since a whole school may sign in from behind one address.
/// </summary>
public static class StartSession
{
    public static readonly Duration Window = Duration.FromMinutes(15);
    public const int MostAtAccount = 10;
    public const int MostFromAddress = 50;
    private static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(4);

    private static readonly PasswordHasher<string> Hasher = new();

    // Hashing is slow on purpose, so only as many run at once as there are cores.
    private static readonly SemaphoreSlim Hashing = new(Environment.ProcessorCount);

    // Checked if there is no such account, so that the answer takes as long as for one that exists.
    private static readonly string NobodysHash = Hasher.HashPassword("", "nobody has this password");

    public static async Task<SignInAnswer> Handle(
        SignInRequest request,
        HttpContext http,
        Database database,
        IClock clock,
        CancellationToken stop
    )
    {
        var email = request.Email.Trim();
        if (email.Length is 0 or > 200)
            throw Problem.Field("email", "Enter your mail address.");
        if (request.Password.Length is 0 or > 200)
            throw Problem.Field("password", "Enter your password.");
        var address = http.Connection.RemoteIpAddress!.MapToIPv6();
        var now = clock.GetCurrentInstant();
        var count = await database.Within(
            IsolationLevel.ReadCommitted,
            connection => SessionStore.CountTry(connection, email, address, SessionCookie.ReadKnown(http), now, now - Window),
            stop
        );
        if (!count.KnowsBrowser && count.AtAccount >= MostAtAccount)
            throw Problem.TooManyTries((int)Window.TotalSeconds);
        if (!count.KnowsBrowser && count.FromAddress >= MostFromAddress)
            await Task.Delay(WaitAfter(count.FromAddress), stop);
        var account = await database.Read(connection => SessionStore.Account(connection, email), stop);
        var right = await IsRight(account is { PasswordHash: { Length: > 0 } hash } ? hash : NobodysHash, request.Password, stop);
        if (account is null or { PasswordHash: "" } || !right)
        {
            await database.Read(
                async connection =>
                {
                    await SessionStore.WasWrong(connection, count.Try);
                    return true;
                },
                stop
            );
            throw Problem.WrongSignIn();
        }
        await database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                await Start(http, connection, account.Id, email, now);
                return true;
            },
            stop
        );
        return new(account.Name);
    }

    /// <summary>Whether it is the password of somebody who is signed in. A wrong one counts as a try at signing in.</summary>
    /// <exception cref="ProblemException">There were too many of these.</exception>
    internal static async Task<bool> IsOwnPassword(
        HttpContext http,
        Database database,
        string email,
        string password,
        Instant now,
        CancellationToken stop
    )
    {
        var address = http.Connection.RemoteIpAddress!.MapToIPv6();
        // Without the browser: here it is known already, and a stolen session must not guess on.
        var count = await database.Within(
            IsolationLevel.ReadCommitted,
            connection => SessionStore.CountTry(connection, email, address, null, now, now - Window),
            stop
        );
        if (count.AtAccount >= MostAtAccount)
            throw Problem.TooManyTries((int)Window.TotalSeconds);
        var account = await database.Read(connection => SessionStore.Account(connection, email), stop);
        var right = account is { PasswordHash: { Length: > 0 } hash } && await IsRight(hash, password, stop);
        await database.Read(
            async connection =>
            {
                await (right ? SessionStore.WasRight(connection, count.Try) : SessionStore.WasWrong(connection, count.Try));
                return true;
            },
            stop
        );
        return right;
    }

    /// <summary>Starts a session of somebody who has shown that they are who they say, in the caller's transaction.</summary>
    internal static async Task Start(HttpContext http, NpgsqlConnection connection, Id<Person> person, string email, Instant now)
    {
        var address = http.Connection.RemoteIpAddress!.MapToIPv6();
        var (token, browser) = (SessionCookie.Give(http), SessionCookie.Remember(http));
        await SessionStore.Start(connection, person, email, address, token, browser, now, now + SessionCookie.Life);
        await AccessStore.Audit(connection, now, person, "signed-in", JsonSerializer.Serialize(new { address = address.ToString() }));
    }

    /// <summary>How long an attempt waits after this many wrong ones from its address: longer with each, up to a few seconds.</summary>
    public static TimeSpan WaitAfter(int wrong) =>
        wrong < MostFromAddress
            ? TimeSpan.Zero
            : TimeSpan.FromMilliseconds(Math.Min(LongestWait.TotalMilliseconds, 250 + (50.0 * (wrong - MostFromAddress))));

    // A class that signs in at once waits here, holding neither a thread nor a connection, and not at everything else.
    private static async Task<bool> IsRight(string hash, string password, CancellationToken stop)
    {
        await Hashing.WaitAsync(stop);
        try
        {
            return await Task.Run(() => Hasher.VerifyHashedPassword("", hash, password) != PasswordVerificationResult.Failed, stop);
        }
        finally
        {
            Hashing.Release();
        }
    }

    /// <summary>Hashes a password to be stored, as soon as a core is free for it.</summary>
    internal static async Task<string> HashLater(string password, CancellationToken stop)
    {
        await Hashing.WaitAsync(stop);
        try
        {
            return await Task.Run(() => Hash(password), stop);
        }
        finally
        {
            Hashing.Release();
        }
    }

    /// <summary>A password as it is stored.</summary>
    public static string Hash(string password) => Hasher.HashPassword("", password);
}
