using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Account;

/// <param name="Sessions">Where they are signed in, the latest first.</param>
public sealed record AccountAnswer(string Name, string Email, IReadOnlyList<OwnSession> Sessions);

/// <param name="Session">By which it is ended; nobody comes in by it.</param>
/// <param name="Since">When it began, in words.</param>
/// <param name="IsThis">The one that is asking.</param>
public sealed record OwnSession(string Session, string Since, bool IsThis);

/// <summary>Reads one's own account.</summary>
public static class ReadAccount
{
    public static async Task<AccountAnswer> Handle(Access access, Viewpoint viewpoint, Database database, CancellationToken stop)
    {
        var (email, sessions) = await database.Read(
            async connection =>
                (await PersonStore.Email(connection, access.Person.Id), await SessionStore.Of(connection, access.Person.Id, viewpoint.Now)),
            stop
        );
        return new(
            access.Person.Name,
            email,
            [
                .. sessions.Select(session => new OwnSession(
                    Convert.ToHexStringLower(session.TokenHash),
                    Moment.Of(session.StartedAt, access.Zone).Words,
                    session.TokenHash.AsSpan().SequenceEqual(access.Token)
                )),
            ]
        );
    }
}
