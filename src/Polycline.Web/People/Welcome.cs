using System.Data;
using NodaTime;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.Http;
using Polycline.Web.SignIn;

namespace Polycline.Web.People;

/// <summary>Whose password a link sets.</summary>
public sealed record WelcomeAnswer(string Name, string Email);

/// <param name="Password">10 to 200 characters.</param>
public sealed record SetPasswordRequest(string Password);

/// <summary>The page behind an invitation: whoever has the link sets a password and is signed in.</summary>
public static class Welcome
{
    public static async Task<WelcomeAnswer> Read(string token, Database database, IClock clock, CancellationToken stop)
    {
        var link = await database.Read(
            connection => OneTimeLinkStore.Read(connection, OneTimeToken.Hash(token), clock.GetCurrentInstant()),
            stop
        );
        return link is { Name: { } name, Email: { } email } ? new(name, email) : throw Gone();
    }

    public static async Task<SignInAnswer> SetPassword(
        string token,
        SetPasswordRequest request,
        HttpContext http,
        Database database,
        IClock clock,
        CancellationToken stop
    )
    {
        var (hash, now) = (OneTimeToken.Hash(token), clock.GetCurrentInstant());
        var found = await database.Read(connection => OneTimeLinkStore.Read(connection, hash, now), stop);
        if (found is not { Person: { } person, Name: { } name, Email: { } email })
            throw Gone();
        PeopleRules.CheckPassword(request.Password, name, email);
        var password = await StartSession.HashLater(request.Password, stop);
        await database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                if (!await OneTimeLinkStore.Use(connection, hash, now))
                    throw Gone();
                await PersonStore.SetPassword(connection, person, password);
                await SessionStore.EndAll(connection, person);
                await AccessStore.Audit(connection, now, person, "password-set", "{}");
                await StartSession.Start(http, connection, person, email, now);
                return true;
            },
            stop
        );
        return new(name);
    }

    private static ProblemException Gone() =>
        Problem.Gone("This link has been used or has expired.", "It works once, for a day. Ask the school office for a new one.");
}
