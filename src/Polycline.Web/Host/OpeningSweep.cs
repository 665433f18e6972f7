using System.Data;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Sections;
using Polycline.Web.Foundation;

namespace Polycline.Web.Host;

/// <summary>Records openings as time passes. Several instances may sweep at once: what one holds another leaves, and nothing is recorded twice.</summary>
public sealed class OpeningSweep(Database database, Compiled compiled, IClock clock, ILogger<OpeningSweep> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(15);

    /// <summary>Looks once through every edition that is taught now.</summary>
    /// <returns>How many openings it recorded.</returns>
    public async Task<int> Sweep(CancellationToken stop)
    {
        var recorded = 0;
        var at = clock.GetCurrentInstant();
        foreach (var (edition, version, termVersion) in await database.Read(OpenedStore.Taught, stop))
            if (OpeningRecords.Missing(await compiled.Edition(new(edition), version, termVersion), at).Count > 0)
                recorded += await Record(new(edition), at, stop);
        return recorded;
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        while (await timer.WaitForNextTickAsync(stoppingToken).AsTask().ContinueWith(tick => tick.IsCompletedSuccessfully && tick.Result, TaskScheduler.Default))
        {
            try
            {
                await Sweep(stoppingToken);
            }
            catch (Exception fault) when (Problem.From(fault) is { } problem)
            {
                log.LogWarning("Openings are recorded a little later: {Problem}", problem.Message);
            }
        }
    }

    private Task<int> Record(Id<Edition> edition, Instant at, CancellationToken stop) => database.Within(
        IsolationLevel.ReadCommitted,
        async connection => await OpenedStore.TryLock(connection, edition) && await EditionStore.Read(connection, edition) is { } plan ? await OpeningRecords.Keep(connection, plan, at) : 0,
        stop);
}
