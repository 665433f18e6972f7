using System.Data;
using NodaTime;
using Polycline.Data;
using Polycline.Data.Choices;
using Polycline.Web.Choices;
using Polycline.Web.Foundation;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Host;

/// <summary>
/// Gives places in choices that came free otherwise than by another pick to whoever waits for them: there is more room now, or somebody
/// has left the section.
/// </summary>
public sealed class QueueSweep(Database database, PlanCache compiled, IClock clock, ILogger<QueueSweep> log)
    : Recurring("Moving up in the queues of choices", TimeSpan.FromSeconds(15), log)
{
    /// <summary>Gives away every place that is free now.</summary>
    public async Task Sweep(CancellationToken stop)
    {
        using var measured = Measured.Sweep();
        var at = clock.GetCurrentInstant();
        foreach (var one in await database.Read(QueueStore.Waiting, stop))
        {
            var plan = await compiled.Edition(one.Edition, one.Version, one.TermVersion);
            // It may be no choice of the course any more; others do not wait because of that.
            if (plan.Item(one.Item) is null || plan.Following(one.Section) is null)
                continue;
            await database.Within(
                IsolationLevel.ReadCommitted,
                connection => OptionQueue.MoveUp(connection, plan, one.Section, one.Item, at),
                stop
            );
        }
    }

    protected override Task Once(CancellationToken stop) => Sweep(stop);
}
