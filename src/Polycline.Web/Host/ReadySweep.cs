using System.Data;
using NodaTime;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Work;
using Polycline.Web.Foundation;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Work;

namespace Polycline.Web.Host;

/// <summary>
/// Gives back what is ready once its moment has come, or once nothing else of its item waits. Several instances may sweep at once: each
/// piece is in one hand at a time. What is not as it was left stays ready, and goes back only when somebody gives it back.
/// </summary>
public sealed class ReadySweep(Database database, PlanCache compiled, IClock clock, FileRules files, ILogger<ReadySweep> log)
    : Recurring("Giving back what is ready", TimeSpan.FromSeconds(15), log)
{
    /// <summary>Gives back everything that is to go back by now.</summary>
    public async Task Sweep(CancellationToken stop)
    {
        using var measured = Measured.Sweep();
        var at = clock.GetCurrentInstant();
        foreach (var due in (await database.Read(connection => ReadyStore.Due(connection, at), stop)).DistinctBy(due => due.Work))
        {
            var plan = await compiled.Edition(due.Edition, due.Version, due.TermVersion);
            // What cannot go back, for whatever reason, keeps nothing else from it: it stays ready until somebody looks at it.
            try
            {
                await GiveBack(due, plan, at, stop);
            }
            catch (ProblemException)
            {
                await Stay(due, stop);
            }
        }
    }

    private Task GiveBack(DueReady due, EditionPlan plan, Instant at, CancellationToken stop) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                var marks = await ReadyStore.Take(connection, due.Work);
                if (marks.Count == 0)
                    return false;
                var work = new WorkContext(
                    connection,
                    Access.Teaching(new(due.By, due.ByName), plan, due.Section),
                    new(new(due.By, due.ByName), new Eyes.OfTeam(), at, at),
                    Guid.NewGuid(),
                    "",
                    false
                )
                {
                    Files = files,
                };
                var goes = due.May && GiveBackReady.TheOne(marks, null) is { } row && (await GiveBackReady.Back(work, plan, row)).AsLeft;
                if (!goes)
                    await ReadyStore.Later(connection, [due.Work], null, false);
                return true;
            },
            stop
        );

    private Task Stay(DueReady due, CancellationToken stop) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                await ReadyStore.Later(connection, [due.Work], null, false);
                return true;
            },
            stop
        );

    protected override Task Once(CancellationToken stop) => Sweep(stop);
}
