using System.Data;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Npgsql;
using Polycline.Data;
using Polycline.Data.Editions;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Editions;

/// <param name="Edition">The edition that is current again.</param>
public sealed record TakenBackAnswer(long Edition);

/// <summary>Takes a roll-over back, as long as no student has worked in the new edition: nothing of it is left.</summary>
public static class TakeBackRollOver
{
    public static async Task<TakenBackAnswer> Handle(
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
            throw Problem.Forbidden("Only the lead can undo rolling over.", "Ask whoever leads this course to take it back.");
        var given = Idempotency.Key(key);
        try
        {
            return await database.Within(
                IsolationLevel.ReadCommitted,
                connection => Idempotency.Run(connection, viewpoint, given, Idempotency.Digest($"{edition} take-back", new { }), async () =>
                    {
                        var origin = await RolloverStore.TakeBack(connection, access.Edition!.Value);
                        await AccessStore.Audit(
                            connection,
                            viewpoint.At,
                            access.Person.Id,
                            "roll-over-taken-back",
                            JsonSerializer.Serialize(new { edition, current = origin.Value })
                        );
                        return new TakenBackAnswer(origin.Value);
                    }),
                stop
            );
        }
        catch (PostgresException fault) when (fault.SqlState is "PC002")
        {
            throw Problem.CannotUndo("This edition was not rolled over from another.", "Nothing was changed.");
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo("Students have worked in this edition.", "Nothing was changed: their work stays where it is.");
        }
    }
}
