using System.Data;
using System.Text.Json.Nodes;
using FluentValidation;
using Npgsql;
using Polly;
using Polly.Retry;
using Polycline.Data;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Foundation.Commands;

/// <summary>A command that was sent, with all that is the same for every one.</summary>
/// <param name="Command">The command's name.</param>
/// <param name="About">What it is about: with its name what its key stands for.</param>
/// <param name="Key">The request's key: sent twice it is done once, and answered the same. Null in a preview.</param>
public sealed record Sent<TRequest>(
    string Command,
    string About,
    May May,
    IValidator<TRequest> Validator,
    Access Access,
    Viewpoint Viewpoint,
    TRequest Request,
    Guid? Key
)
    where TRequest : class
{
    /// <summary>True: its answer is kept nowhere.</summary>
    public bool HasSecret { get; init; }

    /// <summary>A preview ends early when its caller hangs up; a command that was sent is carried out all the same.</summary>
    public CancellationToken Until(CancellationToken gone) => Key is null ? gone : CancellationToken.None;
}

/// <summary>
/// The one way to write: viewpoint, validation, request key, one transaction, another try where two crossed, conflicts
/// with both sides. A preview goes the same way and then gives the transaction up, so that what is shown before is what is
/// done after.
/// </summary>
public sealed class CommandPipeline(Database database)
{
    // Two changes crossed, and this one was rolled back whole: it is tried again. Where the other took a name that must be unique,
    // the next try finds it taken and says so.
    private static readonly ResiliencePipeline Again = new ResiliencePipelineBuilder()
        .AddRetry(
            new RetryStrategyOptions
            {
                MaxRetryAttempts = 3,
                Delay = TimeSpan.FromMilliseconds(10),
                BackoffType = DelayBackoffType.Exponential,
                UseJitter = true,
                ShouldHandle = new PredicateBuilder().Handle<PostgresException>(fault =>
                    fault.SqlState
                        is PostgresErrorCodes.DeadlockDetected
                            or PostgresErrorCodes.SerializationFailure
                            or PostgresErrorCodes.UniqueViolation
                ),
            }
        )
        .Build();

    /// <summary>What must hold before anything is read.</summary>
    /// <exception cref="ProblemException">It is not to be done from here, or a field is at fault.</exception>
    public static void Check<TRequest>(Sent<TRequest> sent)
        where TRequest : class
    {
        // What students do as well as teachers is done by each as themselves.
        if (sent.May == May.SectionStudent || (sent.May.HasFlag(May.SectionStudent) && sent.Viewpoint.Eyes is not Eyes.OfTeam))
            sent.Viewpoint.NeedsOneself();
        else if (sent.May != May.SignedIn && !sent.Viewpoint.TakesCommands)
            throw sent.Viewpoint.ReadsOnly ? Problem.ReadsOnly() : Problem.NotNow();
        sent.Validator.Hold(sent.Request);
    }

    /// <param name="run">What is done in the transaction, under a key of its own.</param>
    /// <param name="gone">The caller has hung up.</param>
    /// <exception cref="ProblemException">It cannot be done; nothing was written.</exception>
    public async Task<TAnswer> Run<TRequest, TAnswer>(
        Sent<TRequest> sent,
        Func<NpgsqlConnection, Guid, CancellationToken, Task<TAnswer>> run,
        CancellationToken gone
    )
        where TRequest : class
        where TAnswer : IAnswer<TAnswer>
    {
        var stop = sent.Until(gone);
        using var measured = Measured.Command(sent.Command, sent.Key is null);
        try
        {
            return await Again.ExecuteAsync(async stop => await Once(sent, run, stop), stop);
        }
        catch (StaleChangeException stale)
        {
            measured.Refused("changed-meanwhile");
            throw await Conflicting(stale, sent.Access, stop);
        }
        catch (Exception fault)
        {
            measured.Refused(Problem.From(fault)?.Code ?? "fault");
            throw;
        }
    }

    private async Task<TAnswer> Once<TRequest, TAnswer>(
        Sent<TRequest> sent,
        Func<NpgsqlConnection, Guid, CancellationToken, Task<TAnswer>> run,
        CancellationToken stop
    )
        where TRequest : class
        where TAnswer : IAnswer<TAnswer>
    {
        await using var connection = await database.Source.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted, stop);
        if (sent.Key is not { } key)
            return (await run(connection, Guid.NewGuid(), stop)).AsPreview();
        var answer = await Idempotency.Run(connection, sent, key, () => run(connection, key, stop));
        await transaction.CommitAsync(stop);
        return answer;
    }

    // Both sides of a change that came too late: the first field asked for, and who wrote what stands there now.
    private async Task<ProblemException> Conflicting(StaleChangeException stale, Access access, CancellationToken stop)
    {
        var field = (stale.Change.After ?? stale.Change.Before!).First().Key;
        var later = await database.Read(connection => LedgerStore.LastChange(connection, stale.Change), stop);
        return Problem.Changed(
            new(
                field,
                Text(stale.Change.After),
                Text(stale.Present),
                stale.Change.Table.VersionOf(stale.Present),
                later?.AuthorName,
                later is null ? null : Moment.Of(later.At, access.Zone)
            )
        );

        string? Text(JsonObject? row) => row?[field] is JsonValue value ? value.ToString() : null;
    }
}
