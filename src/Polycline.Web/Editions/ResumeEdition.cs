using Npgsql;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Editions;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Editions;

public sealed record ResumeEditionRequest;

/// <summary>Takes back that an edition has ended, or that it is to end on a day.</summary>
public sealed class ResumeEdition : IWorkCommand<ResumeEditionRequest, DoneAnswer>
{
    public static string Name => "resume-edition";

    public static May May => May.Lead;

    public static WorkPlace Place => WorkPlace.Edition;

    public static async Task<DoneAnswer> Do(WorkContext work, ResumeEditionRequest request)
    {
        try
        {
            await EditionStore.Lock(work.Connection, work.Edition);
            if (work.Access.EditionState == EditionState.Current)
                await RolloverStore.EndOn(work.Connection, work.Edition, null);
            else
                await RolloverStore.Resume(work.Connection, work.Edition);
            await work.Audit("edition-resumed", new { edition = work.Edition.Value });
            return new();
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo(
                "Students have started work in the next edition.",
                "Nothing was changed. This edition stays open for reading only."
            );
        }
        catch (PostgresException fault) when (fault.SqlState is PostgresErrorCodes.UniqueViolation)
        {
            throw Problem.CannotUndo("Another edition of this course is current.", "Nothing was changed. End that one first.");
        }
    }
}
