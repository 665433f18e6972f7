using System.Data;
using NodaTime;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.People;
using Polycline.Web.SignIn;

namespace Polycline.Web.Account;

/// <param name="Current">The password that they sign in with.</param>
/// <param name="Password">10 to 200 characters.</param>
public sealed record ChangePasswordRequest(string Current, string Password);

/// <param name="Ended">How many other sessions were ended by it.</param>
public sealed record PasswordChangedAnswer(int Ended);

/// <summary>
/// Changes one's own password; whoever is signed in elsewhere is signed out there. Wrong tries count as those at signing in do.
/// </summary>
public static class ChangePassword
{
    public static async Task<PasswordChangedAnswer> Handle(
        ChangePasswordRequest request,
        HttpContext http,
        Access access,
        Database database,
        IClock clock,
        CancellationToken stop
    )
    {
        var (person, now) = (access.Person, clock.GetCurrentInstant());
        var email = await database.Read(connection => PersonStore.Email(connection, person.Id), stop);
        PeopleRules.CheckPassword(request.Password, person.Name, email);
        if (request.Current.Length is 0 or > 200 || !await StartSession.IsOwnPassword(http, database, email, request.Current, now, stop))
            throw Problem.Field("current", "This is not your password. Type the one you sign in with.");
        if (request.Current == request.Password)
            throw Problem.Field("password", "This is your password already. Choose another one.");
        var hash = await StartSession.HashLater(request.Password, stop);
        var ended = await database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                await PersonStore.SetPassword(connection, person.Id, hash);
                await AccessStore.Audit(connection, now, person.Id, "password-changed", "{}");
                return await SessionStore.EndOthers(connection, person.Id, access.Token, null);
            },
            stop
        );
        return new(ended);
    }
}
