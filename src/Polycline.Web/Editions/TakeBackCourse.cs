using System.Data;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Npgsql;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Editions;

/// <summary>Takes back a course that was taken in from a file, as long as no section follows it: nothing of it is left.</summary>
public static class TakeBackCourse
{
    public static async Task<IResult> Handle(
        long edition,
        [FromHeader(Name = "Idempotency-Key")] Guid? key,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        if (!viewpoint.TakesCommands)
            throw Problem.NotNow();
        if (!access.IsLead)
            throw Problem.Forbidden("Only the lead can take a course back.", "Ask whoever leads this course to do it.");
        var given = Idempotency.Key(key);
        try
        {
            await database.Within(
                IsolationLevel.ReadCommitted,
                connection =>
                    Idempotency.Run(connection, viewpoint, given, Idempotency.Digest($"{edition} take-back-course", new { }), async () =>
                    {
                        await CourseStore.TakeBack(connection, access.Edition!.Value);
                        await AccessStore.Audit(
                            connection,
                            viewpoint.At,
                            access.Person.Id,
                            "course-taken-back",
                            JsonSerializer.Serialize(new { edition })
                        );
                        return true;
                    }),
                stop
            );
            return Results.NoContent();
        }
        catch (PostgresException fault) when (fault.SqlState is "PC002")
        {
            throw Problem.CannotUndo("This course was not taken in from a file.", "Nothing was changed.");
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo(
                "A section follows this course, or it has a next edition.",
                "Nothing was changed: what came of it stays."
            );
        }
    }
}
