using System.Data;
using System.Text.Json;
using System.Text.Json.Nodes;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Sections;

namespace Polycline.Web.Foundation;

/// <summary>
/// Runs every command alike: request key, load and lock, decide, apply, and read again what came of it. A preview goes
/// the same way and then gives the transaction up, so that what is shown before is what is done after.
/// </summary>
public sealed class CommandRunner(Database database)
{
    private const int Attempts = 4;

    /// <param name="key">The request's key: sent twice it is done once, and answered the same. Null in a preview.</param>
    /// <exception cref="ProblemException">It cannot be done; nothing was written.</exception>
    public async Task<CommandAnswer> Run<TCommand, TRequest, TPlan>(Access access, Viewpoint viewpoint, TRequest request, Guid? key, CancellationToken stop)
        where TCommand : IEditionCommand<TRequest, TPlan>
        where TRequest : class
    {
        if (!viewpoint.TakesCommands)
            throw Problem.NotNow();
        if (TCommand.Validator.Validate(request).Errors is [var first, ..])
            throw Problem.Field(JsonNamingPolicy.CamelCase.ConvertName(first.PropertyName), first.ErrorMessage);
        var edition = access.Edition ?? throw Problem.Unknown();
        for (var attempt = 1; ; attempt++)
        {
            try
            {
                await using var connection = await database.Source.OpenConnectionAsync(stop);
                await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted, stop);
                var answer = key is { } given
                    ? await Once.Run(connection, viewpoint, given, Once.Digest($"{edition} {TCommand.Name}", request), () => Do<TCommand, TRequest, TPlan>(connection, edition, viewpoint, request))
                    : await Do<TCommand, TRequest, TPlan>(connection, edition, viewpoint, request) with { Applied = false, Batch = null };
                if (key is not null)
                    await transaction.CommitAsync(stop);
                return answer;
            }
            catch (StaleChangeException stale)
            {
                throw await Conflicting(stale, access, stop);
            }
            catch (PostgresException fault) when (attempt < Attempts
                && fault.SqlState is PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.SerializationFailure)
            {
                // Two changes crossed, and this one was given up whole: it goes again.
            }
        }
    }

    private static async Task<CommandAnswer> Do<TCommand, TRequest, TPlan>(NpgsqlConnection connection, Id<Edition> edition, Viewpoint viewpoint, TRequest request)
        where TCommand : IEditionCommand<TRequest, TPlan>
        where TRequest : class
    {
        await EditionStore.Lock(connection, edition);
        var before = await EditionStore.Read(connection, edition) ?? throw Problem.Unknown();
        if (before.State == EditionState.Resting)
            throw Problem.AtRest();
        if (await OpeningRecords.Keep(connection, before, viewpoint.At) > 0)
            before = await EditionStore.Read(connection, edition) ?? throw Problem.Unknown();
        var decision = TCommand.Decide(await TCommand.Load(connection, edition, request), request, viewpoint);
        if (decision.Changes.Count == 0)
            return new(false, null, before.Version, decision.Words, Reach.Between(before.Schedule, before.Schedule, before.Sizes));
        foreach (var body in decision.Bodies)
            await BodyStore.Keep(connection, body);
        var head = new BatchHead(Scope.Of(edition), TCommand.Name, decision.Words, viewpoint.Who.Id.Value, viewpoint.At, decision.Undoes);
        var applied = await LedgerStore.Apply(connection, head, decision.Changes);
        if (decision.Undoes is { } undone)
            await OpenedStore.Forget(connection, edition, undone);
        var after = await EditionStore.Read(connection, edition) ?? throw Problem.Unknown();
        return new(true, applied.Id.Value, applied.Version, decision.Words, Reach.Between(before.Schedule, after.Schedule, [.. after.Sizes, .. before.Sizes.Where(size => !after.Schedule.Follows(size.Section))]));
    }

    // Both sides of a change that came too late: the first field asked for, and who wrote what stands there now.
    private async Task<ProblemException> Conflicting(StaleChangeException stale, Access access, CancellationToken stop)
    {
        var field = (stale.Change.After ?? stale.Change.Before!).First().Key;
        var later = await database.Read(connection => LedgerStore.LaterChange(connection, stale.Change, null), stop);
        return Problem.Changed(new(
            field, Text(stale.Change.After), Text(stale.Present), stale.Present?["version"]?.GetValue<long>(),
            later?.AuthorName, later is null ? null : Moment.Of(later.At, access.Zone)));

        string? Text(JsonObject? row) => row?[field] is JsonValue value ? value.ToString() : null;
    }
}
