using System.Data;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;

namespace Polycline.Web.SignIn;

/// <summary>Ends the session one is in, or every session one has.</summary>
public static class EndSession
{
    public static async Task<IResult> Handle(HttpContext http, Access access, Database database, CancellationToken stop)
    {
        await database.Read(
            async connection =>
            {
                await SessionStore.End(connection, access.Token);
                return true;
            },
            stop
        );
        SessionCookie.Take(http);
        return Results.NoContent();
    }

    public static async Task<IResult> HandleEverywhere(
        HttpContext http,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        await database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                await SessionStore.EndAll(connection, access.Person.Id);
                await AccessStore.Audit(connection, viewpoint.At, access.Person.Id, "signed-out-everywhere", "{}");
                return true;
            },
            stop
        );
        SessionCookie.Take(http);
        return Results.NoContent();
    }
}
