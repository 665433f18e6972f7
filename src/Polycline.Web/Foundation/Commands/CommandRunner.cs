using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Commands;

/// <summary>
/// Runs every command on an edition alike: lock, keep what has opened, decide, apply, and read again what came of it.
/// </summary>
public sealed class CommandRunner(Database database)
{
    /// <param name="key">The request's key: sent twice it is done once, and answered the same. Null in a preview.</param>
    /// <param name="names">Whether to name the students whom it reaches.</param>
    /// <exception cref="ProblemException">It cannot be done; nothing was written.</exception>
    public Task<CommandAnswer> Run<TCommand, TRequest, TPlan>(
        Access access,
        Viewpoint viewpoint,
        TRequest request,
        Guid? key,
        bool names,
        CancellationToken stop
    )
        where TCommand : IEditionCommand<TRequest, TPlan>
        where TRequest : class
    {
        var edition = access.Edition ?? throw Problem.Unknown();
        return CommandPipeline.Run<TCommand, TRequest, TPlan>(
            database,
            access,
            viewpoint,
            request,
            key,
            $"{edition} {TCommand.Name}",
            connection => Do<TCommand, TRequest, TPlan>(connection, edition, access, viewpoint, request, names),
            stop
        );
    }

    private static async Task<CommandAnswer> Do<TCommand, TRequest, TPlan>(
        NpgsqlConnection connection,
        Id<Edition> edition,
        Access access,
        Viewpoint viewpoint,
        TRequest request,
        bool names
    )
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
            return new(false, null, before.Version, decision.Words, decision.Act, Reaching.Answer(Reach.Nothing));
        await Holding.Against(connection, access, before, decision.Changes);
        foreach (var body in decision.Bodies)
            await BodyStore.Keep(connection, body);
        var applied = await CommandPipeline.Apply(connection, Scope.Of(edition), TCommand.Name, decision, viewpoint);
        if (decision.Undoes is { } undone)
            await OpenedStore.Forget(connection, edition, undone);
        var after = await EditionStore.Read(connection, edition) ?? throw Problem.Unknown();
        var reach = await Reaching.Of(connection, before, after, viewpoint);
        return new(
            true,
            applied.Id.Value,
            applied.Version,
            decision.Words,
            Reaching.Act(decision, reach, after.Edition.Levels),
            names ? await Reaching.WithNames(connection, reach, access, after) : Reaching.Answer(reach)
        );
    }
}
