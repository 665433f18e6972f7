using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Account;

/// <param name="Session">The session that is to end; null: all but the one that is asking.</param>
public sealed record SignOutElsewhereRequest(string? Session);

/// <param name="Ended">How many sessions were ended.</param>
public sealed record SignedOutAnswer(bool Applied, int Ended) : IAnswer<SignedOutAnswer>
{
    public SignedOutAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Ends one's own sessions elsewhere: their next request is refused.</summary>
public sealed class SignOutElsewhere : IWorkCommand<SignOutElsewhereRequest, SignedOutAnswer>
{
    public static string Name => "sign-out-elsewhere";

    public static May May => May.SignedIn;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static async Task<SignedOutAnswer> Do(WorkContext work, SignOutElsewhereRequest request)
    {
        var only = request.Session is { } session ? HashOf(session) : null;
        var ended = await SessionStore.EndOthers(work.Connection, work.Access.Person.Id, work.Access.Token, only);
        if (only is not null && ended == 0)
            throw Problem.Unknown("session");
        await work.Audit("signed-out-elsewhere", new { ended });
        return new(true, ended);
    }

    private static byte[] HashOf(string session)
    {
        try
        {
            return Convert.FromHexString(session);
        }
        catch (FormatException)
        {
            throw Problem.Unknown("session");
        }
    }
}
