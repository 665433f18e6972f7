using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Calendar;

public sealed record RemoveTermRequest(Id<Term> Term);

/// <summary>Removes a term in which no section meets and no course is taught, with everything marked in it.</summary>
public sealed class RemoveTerm : IWorkCommand<RemoveTermRequest, DoneAnswer>
{
    public static string Name => "remove-term";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, RemoveTermRequest request)
    {
        await TermStore.Lock(work.Connection, request.Term);
        if (await TermStore.Read(work.Connection, request.Term) is not { } plan)
            throw Problem.Unknown("term");
        try
        {
            await TermStore.Remove(work.Connection, request.Term);
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo($"A section meets in {plan.Term.Name}, or a course is planned for it.", "Nothing was removed.");
        }
        await work.Audit("term-removed", new { name = plan.Term.Name });
        return new();
    }
}
