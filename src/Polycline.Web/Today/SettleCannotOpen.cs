using Polycline.Core;
using Polycline.Data.CannotOpen;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Today;

public sealed record SettleCannotOpenRequest(Id<CannotOpenRow> CannotOpen);

/// <summary>A teacher has seen to something that a student could not open.</summary>
public sealed class SettleCannotOpen : IWorkCommand<SettleCannotOpenRequest, DoneAnswer>
{
    public static string Name => "settle-cannot-open";

    public static WorkPlace Place => WorkPlace.Edition;

    public static async Task<DoneAnswer> Do(WorkContext work, SettleCannotOpenRequest request)
    {
        var row = await CannotOpenStore.Of(work.Connection, work.Edition, request.CannotOpen);
        // To whoever does not teach that section it is not there.
        if (row is null || !(work.Access.IsLead || work.Access.Teaches.Contains(row.Section)))
            throw Problem.Unknown("cannotOpen");
        await CannotOpenStore.Settle(work.Connection, row.Id, work.Access.Person.Id, work.Viewpoint.At);
        return new();
    }
}
