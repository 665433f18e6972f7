using NodaTime;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Host;

/// <summary>Drops, once an hour, what no longer counts. Several instances may do it at once: it is the same to do it twice.</summary>
public sealed class Housekeeping(Database database, IClock clock, ILogger<Housekeeping> log) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(TimeSpan.FromHours(1));
        do
        {
            try
            {
                await database.Read(connection => SessionStore.Sweep(connection, clock.GetCurrentInstant()), stoppingToken);
            }
            catch (Exception fault) when (fault is not OperationCanceledException || !stoppingToken.IsCancellationRequested)
            {
                // Whatever is wrong, the school goes on.
                log.LogWarning("Housekeeping waits an hour: {Problem}", Problem.From(fault)?.Message ?? fault.Message);
            }
        } while (
            await timer
                .WaitForNextTickAsync(stoppingToken)
                .AsTask()
                .ContinueWith(tick => tick.IsCompletedSuccessfully && tick.Result, TaskScheduler.Default)
        );
    }
}
