using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Sections;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Commands;

/// <summary>A planning command, whatever reads for it.</summary>
/// <typeparam name="TBefore">What it changes, as it stands.</typeparam>
/// <typeparam name="TRequest">What it is asked.</typeparam>
public sealed record Planning<TBefore, TRequest>(
    string Name,
    May May,
    IValidator<TRequest> Validator,
    Func<NpgsqlConnection, TBefore, TRequest, Viewpoint, Task<CommandDecision>> Decide
)
    where TRequest : class;

/// <summary>Something planning commands can change: an edition, or a term with everything taught in it.</summary>
/// <typeparam name="TBefore">Its state.</typeparam>
public interface IPlanned<TBefore>
{
    Scope Scope { get; }

    /// <summary>Locks it against other changes until the transaction ends.</summary>
    /// <param name="stop">Cancels the wait for the lock.</param>
    Task Lock(NpgsqlConnection connection, CancellationToken stop);

    /// <summary>Reads it as it stands.</summary>
    Task<TBefore> Read(NpgsqlConnection connection);

    /// <exception cref="Http.ProblemException">It takes no changes any more.</exception>
    void NeedsOpen(TBefore before, Viewpoint viewpoint);

    /// <summary>The editions in it.</summary>
    IReadOnlyList<EditionPlan> Editions(TBefore state);

    /// <summary>Its counter.</summary>
    long VersionOf(TBefore state);

    /// <exception cref="Http.ProblemException">Something that is to be written is not the caller's to change.</exception>
    Task Hold(NpgsqlConnection connection, Access access, TBefore before, IReadOnlyList<Change> changes);

    /// <summary>What came of it; tells those whom the ledger does not know of.</summary>
    /// <exception cref="Http.ProblemException">It cannot stay as it would then be.</exception>
    Task<Reach> Reach(NpgsqlConnection connection, TBefore before, TBefore after, Viewpoint viewpoint);

    /// <summary>The reach of a command that changes nothing.</summary>
    Reach Nothing(Viewpoint viewpoint);

    LevelNames Levels(TBefore state);
}

/// <summary>
/// Runs every planning command alike: lock, keep what has opened, decide, apply, and read again what came of it. So it
/// reads what it changes twice, and nothing decides from what was read before the lock.
/// </summary>
public sealed class PlanningRunner(CommandPipeline pipeline)
{
    /// <param name="key">The request's key; null in a preview.</param>
    /// <param name="names">Whether to name the students whom it reaches.</param>
    /// <exception cref="Http.ProblemException">It cannot be done; nothing was written.</exception>
    public Task<CommandAnswer> Run<TBefore, TRequest>(
        Planning<TBefore, TRequest> command,
        IPlanned<TBefore> planned,
        Access access,
        Viewpoint viewpoint,
        TRequest request,
        Guid? key,
        bool names,
        CancellationToken gone
    )
        where TRequest : class
    {
        var sent = new Sent<TRequest>(command.Name, $"{planned.Scope}", command.May, command.Validator, access, viewpoint, request, key);
        CommandPipeline.Check(sent);
        return pipeline.Run(sent, (connection, _, stop) => Do(connection, command, planned, sent, names, stop), gone);
    }

    private static async Task<CommandAnswer> Do<TBefore, TRequest>(
        NpgsqlConnection connection,
        Planning<TBefore, TRequest> command,
        IPlanned<TBefore> planned,
        Sent<TRequest> sent,
        bool names,
        CancellationToken stop
    )
        where TRequest : class
    {
        var viewpoint = sent.Viewpoint;
        await planned.Lock(connection, stop);
        var before = await planned.Read(connection);
        planned.NeedsOpen(before, viewpoint);
        var codesFixed = false;
        foreach (var edition in planned.Editions(before))
            codesFixed |= (await OpeningRecords.Keep(connection, edition, viewpoint.At)).FixedCodes;
        // This happens once in an edition's life.
        if (codesFixed)
            before = await planned.Read(connection);
        var decision = await command.Decide(connection, before, sent.Request, viewpoint);
        if (decision.Changes.Count == 0)
            return new(false, null, planned.VersionOf(before), decision.Words, decision.Act, Reaching.Answer(planned.Nothing(viewpoint)));
        // An abandoned preview releases the course at once.
        stop.ThrowIfCancellationRequested();
        await planned.Hold(connection, sent.Access, before, decision.Changes);
        if (decision.Undoes is not null)
            await KeepWorked(connection, decision.Changes);
        foreach (var body in decision.Bodies)
            await BodyStore.Keep(connection, body);
        var applied = await LedgerStore.Apply(
            connection,
            new(planned.Scope, command.Name, decision.Words, viewpoint.Who.Id, viewpoint.At, decision.Undoes),
            decision.Changes
        );
        if (decision.Moves is { } moves)
            await FollowingStore.Move(connection, applied.Id, moves);
        if (decision.Undoes is { } batch)
            await TakeBackWork(connection, batch);
        if (decision.Undoes is { } undone)
            foreach (var edition in planned.Editions(before))
                await OpenedStore.Forget(connection, edition.Id, undone);
        stop.ThrowIfCancellationRequested();
        var after = await planned.Read(connection);
        var reach = (decision.Told ?? await planned.Reach(connection, before, after, viewpoint)).With(decision.Besides);
        return new(
            true,
            applied.Id,
            applied.Version,
            decision.Words,
            Reaching.Act(decision, reach, planned.Levels(after)),
            names ? await Reaching.WithNames(connection, reach, sent.Access, planned.Editions(after)) : Reaching.Answer(reach)
        );
    }

    // Whoever has worked in a section is not taken out of it as if they had never been there.
    private static async Task KeepWorked(NpgsqlConnection connection, IReadOnlyList<Change> changes)
    {
        var going = changes
            .Where(change => change.Table == Tables.Places.Table && change.After is null)
            .Select(change => new Id<ListedStudent>(change.Key["id"]!.GetValue<long>()))
            .ToList();
        if (going.Count > 0 && await StudentStore.HaveWorked(connection, going))
            throw Problem.CannotUndo(
                "A student has worked in the section since.",
                "Nothing was changed. Have them leave the section instead: their work stays, and can be read."
            );
    }

    private static async Task TakeBackWork(NpgsqlConnection connection, Id<Batch> undone)
    {
        try
        {
            await FollowingStore.TakeBack(connection, undone);
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo(
                "Students have worked since on something that would be left behind.",
                "Nothing was changed. Have the section stop following instead: it keeps everything."
            );
        }
    }
}
