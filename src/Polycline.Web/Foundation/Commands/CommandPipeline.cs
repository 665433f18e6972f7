using System.Data;
using System.Text.Json;
using System.Text.Json.Nodes;
using Npgsql;
using Polycline.Data;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Foundation.Commands;

/// <summary>
/// What stands around every command, whatever it is about: request key, one transaction, conflicts with both sides. A
/// preview goes the same way and then gives the transaction up, so that what is shown before is what is done after.
/// </summary>
public static class CommandPipeline
{
    private const int Attempts = 4;

    /// <param name="key">The request's key: sent twice it is done once, and answered the same. Null in a preview.</param>
    /// <param name="what">What the key stands for.</param>
    /// <exception cref="ProblemException">It cannot be done; nothing was written.</exception>
    public static async Task<CommandAnswer> Run<TCommand, TRequest, TPlan>(
        Database database,
        Access access,
        Viewpoint viewpoint,
        TRequest request,
        Guid? key,
        string what,
        Func<NpgsqlConnection, Task<CommandAnswer>> run,
        CancellationToken stop
    )
        where TCommand : ICommand<TRequest, TPlan>
        where TRequest : class
    {
        if (!viewpoint.TakesCommands)
            throw Problem.NotNow();
        if (TCommand.Validator.Validate(request).Errors is [var first, ..])
            throw Problem.Field(JsonNamingPolicy.CamelCase.ConvertName(first.PropertyName), first.ErrorMessage);
        for (var attempt = 1; ; attempt++)
        {
            try
            {
                await using var connection = await database.Source.OpenConnectionAsync(stop);
                await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted, stop);
                var answer = key is { } given
                    ? await Idempotency.Run(connection, viewpoint, given, Idempotency.Digest(what, request), () => run(connection))
                    : await run(connection) with
                    {
                        Applied = false,
                        Batch = null,
                    };
                if (key is not null)
                    await transaction.CommitAsync(stop);
                return answer;
            }
            catch (StaleChangeException stale)
            {
                throw await Conflicting(database, stale, access, stop);
            }
            catch (PostgresException fault)
                when (attempt < Attempts && fault.SqlState is PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.SerializationFailure
                )
            {
                // Two changes crossed, and this one was given up whole: it goes again.
            }
        }
    }

    /// <summary>Writes what was decided, as one batch.</summary>
    public static Task<AppliedBatch> Apply(
        NpgsqlConnection connection,
        Scope scope,
        string command,
        CommandDecision decision,
        Viewpoint viewpoint
    ) =>
        LedgerStore.Apply(
            connection,
            new(scope, command, decision.Words, viewpoint.Who.Id.Value, viewpoint.At, decision.Undoes),
            decision.Changes
        );

    // Both sides of a change that came too late: the first field asked for, and who wrote what stands there now.
    private static async Task<ProblemException> Conflicting(
        Database database,
        StaleChangeException stale,
        Access access,
        CancellationToken stop
    )
    {
        var field = (stale.Change.After ?? stale.Change.Before!).First().Key;
        var later = await database.Read(connection => LedgerStore.LaterChange(connection, stale.Change, null), stop);
        return Problem.Changed(
            new(
                field,
                Text(stale.Change.After),
                Text(stale.Present),
                LedgerTable.Of(stale.Change).VersionOf(stale.Present),
                later?.AuthorName,
                later is null ? null : Moment.Of(later.At, access.Zone)
            )
        );

        string? Text(JsonObject? row) => row?[field] is JsonValue value ? value.ToString() : null;
    }
}
