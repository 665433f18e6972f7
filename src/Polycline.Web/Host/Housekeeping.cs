using NodaTime;
using Polycline.Data;
using Polycline.Data.Files;
using Polycline.Data.People;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Host;

/// <summary>Deletes, once an hour, what is no longer needed. Several instances may do it at once: doing it twice does no harm.</summary>
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
                await database.Read(connection => UploadStore.Sweep(connection, clock.GetCurrentInstant()), stoppingToken);
            }
            catch (Exception fault) when (fault is not OperationCanceledException || !stoppingToken.IsCancellationRequested)
            {
                // Whatever goes wrong, the school carries on.
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
