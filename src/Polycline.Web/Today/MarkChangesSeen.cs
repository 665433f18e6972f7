using Polycline.Core;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Today;

/// <param name="Batch">The last change that was seen.</param>
public sealed record ChangesSeenRequest(Id<Batch> Batch);

/// <summary>Somebody has seen what changed up to here: it is not shown to them again as new.</summary>
public sealed class MarkChangesSeen : IWorkCommand<ChangesSeenRequest, DoneAnswer>
{
    public static string Name => "mark-changes-seen";

    public static WorkPlace Place => WorkPlace.Edition;

    public static async Task<DoneAnswer> Do(WorkContext work, ChangesSeenRequest request)
    {
        if (await LedgerStore.Find(work.Connection, Scope.Of(work.Edition), request.Batch) is null)
            throw Problem.Unknown("batch");
        await LookedStore.Set(work.Connection, work.Access.Person.Id, work.Edition, request.Batch, work.Viewpoint.At);
        return new();
    }
}
