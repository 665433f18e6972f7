using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation;

/// <summary>
/// Something that is done again and again while the application runs. Several instances do it at once, so it must do no harm twice.
/// Whatever goes wrong, the school carries on, and it is tried again the next time.
/// </summary>
/// <param name="what">What waits when it goes wrong, for the log.</param>
public abstract class Recurring(string what, TimeSpan every, ILogger log) : BackgroundService
{
    /// <summary>Does one round of it.</summary>
    protected abstract Task Once(CancellationToken stop);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(every);
        while (
            await timer
                .WaitForNextTickAsync(stoppingToken)
                .AsTask()
                .ContinueWith(tick => tick.IsCompletedSuccessfully && tick.Result, TaskScheduler.Default)
        )
        {
            try
            {
                await Once(stoppingToken);
            }
            catch (Exception fault) when (fault is not OperationCanceledException || !stoppingToken.IsCancellationRequested)
            {
                log.LogWarning("{What} waits until the next time: {Problem}", what, Problem.From(fault)?.Message ?? fault.Message);
            }
        }
    }
}
