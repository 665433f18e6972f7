using System.Data;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Editions;
using Polycline.Data.Sections;
using Polycline.Web.Foundation;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Host;

/// <summary>
/// Records openings as time passes, and ends editions whose last day is over. Several instances may sweep at once: what one holds another
/// leaves, and nothing is recorded twice.
/// </summary>
public sealed class OpeningSweep(Database database, PlanCache compiled, IClock clock, ILogger<OpeningSweep> log)
    : Recurring("Recording what has opened", TimeSpan.FromSeconds(15), log)
{
    /// <summary>Looks once through every edition that is taught now.</summary>
    /// <returns>How many openings it recorded.</returns>
    public async Task<int> Sweep(CancellationToken stop)
    {
        using var measured = Measured.Sweep();
        var recorded = 0;
        var at = clock.GetCurrentInstant();
        foreach (var (edition, endsOn, zone) in await database.Read(RolloverStore.Ending, stop))
            if (at.InZone(DateTimeZoneProviders.Tzdb[zone]).Date > endsOn)
                await database.Within(
                    IsolationLevel.ReadCommitted,
                    async connection =>
                    {
                        await RolloverStore.End(connection, edition);
                        return true;
                    },
                    stop
                );
        foreach (
            var (edition, version, termVersion) in await database.Read(connection => OpenedStore.Taught(connection, at.InUtc().Date), stop)
        )
        {
            try
            {
                if (OpeningRecords.Missing(await compiled.Edition(edition, version, termVersion), at).Count > 0)
                    recorded += await Record(edition, at, stop);
            }
            catch (Exception fault) when (fault is not OperationCanceledException || !stop.IsCancellationRequested)
            {
                // One course that cannot be swept keeps no other from it.
                log.LogError(fault, "Could not record what has opened in edition {Edition}; will try again", edition);
            }
        }
        return recorded;
    }

    protected override Task Once(CancellationToken stop) => Sweep(stop);

    private Task<int> Record(Id<Edition> edition, Instant at, CancellationToken stop) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
                await OpenedStore.TryLock(connection, edition) && await EditionStore.Read(connection, edition) is { } plan
                    ? (await OpeningRecords.Keep(connection, plan, at)).Recorded
                    : 0,
            stop
        );
}
