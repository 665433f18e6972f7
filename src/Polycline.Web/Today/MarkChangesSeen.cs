using Microsoft.AspNetCore.Mvc;
using Polycline.Core;
using Polycline.Data;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Today;

/// <param name="Batch">The last change that was seen.</param>
public sealed record ChangesSeenRequest(Id<Batch> Batch);

/// <summary>Somebody has seen what changed up to here: it is not shown to them again as new.</summary>
public static class MarkChangesSeen
{
    public static async Task<IResult> Handle(
        long edition,
        [FromBody] ChangesSeenRequest request,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        if (!viewpoint.TakesCommands)
            throw Problem.NotNow();
        await database.Read(
            async connection =>
            {
                if (await LedgerStore.Find(connection, Scope.Of(access.Edition!.Value), request.Batch) is null)
                    throw Problem.Unknown("batch");
                await LookedStore.Set(connection, access.Person.Id, access.Edition.Value, request.Batch, viewpoint.At);
                return 0;
            },
            stop
        );
        return Results.NoContent();
    }
}
