using System.Data;
using System.Text.Json;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using Polycline.Core;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation;

namespace Polycline.Web.SignIn;

public sealed record SignInRequest(string Email, string Password);

public sealed record SignInAnswer(string Name);

/// <summary>
/// Starts a session. Tries are counted in the database before a password is looked at: 10 at an account from one
/// address, 50 from one address at all, and 100 at an account from addresses that its owner has never used, in 15
/// minutes. So a stranger's tries do not lock the owner out elsewhere, and many strangers together do not get far.
/// </summary>
public static class StartSession
{
    public static readonly Duration Window = Duration.FromMinutes(15);
    public const int MostHere = 10;
    public const int MostFromAddress = 50;
    public const int MostFromStrangers = 100;

    private static readonly PasswordHasher<string> Hasher = new();

    // Checked where there is no such account, so that the answer takes as long as for one that exists.
    private static readonly string NobodysHash = Hasher.HashPassword("", "nobody has this password");

    public static async Task<SignInAnswer> Handle(SignInRequest request, HttpContext http, Database database, IClock clock, CancellationToken stop)
    {
        var email = request.Email.Trim();
        if (email.Length is 0 or > 200)
            throw Problem.Field("email", "Write the address you sign in with.");
        if (request.Password.Length is 0 or > 200)
            throw Problem.Field("password", "Write your password.");
        var address = http.Connection.RemoteIpAddress!.MapToIPv6();
        var now = clock.GetCurrentInstant();
        var count = await database.Within(IsolationLevel.ReadCommitted, connection => SessionStore.CountTry(connection, email, address, now, now - Window), stop);
        if (count.Here >= MostHere || count.FromAddress >= MostFromAddress || (!count.AddressIsKnown && count.FromStrangers >= MostFromStrangers))
            throw Problem.TooManyTries((int)Window.TotalSeconds);
        var account = await database.Read(connection => SessionStore.Account(connection, email), stop);
        var right = Hasher.VerifyHashedPassword("", account?.PasswordHash ?? NobodysHash, request.Password) != PasswordVerificationResult.Failed;
        if (account is null || !right)
            throw Problem.WrongSignIn();
        var token = SessionCookie.Give(http);
        await database.Within(IsolationLevel.ReadCommitted, async connection =>
        {
            await SessionStore.Start(connection, new(account.Id), email, address, token, now, now + SessionCookie.Life);
            await AccessStore.Audit(connection, now, new Id<Person>(account.Id), "signed-in", JsonSerializer.Serialize(new { address = address.ToString() }));
            return true;
        }, stop);
        return new(account.Name);
    }

    /// <summary>A password as it is stored.</summary>
    public static string Hash(string password) => Hasher.HashPassword("", password);
}
