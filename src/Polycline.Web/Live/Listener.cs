using Microsoft.AspNetCore.SignalR;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Live;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Live;

/// <summary>
/// Listens, once an instance, for raised counters and passes them to the browsers that watch. What was told while the
/// database was away is lost, so after it every browser is told to read again.
/// </summary>
public sealed class Listener(
    Database database,
    IHubContext<LiveHub> hub,
    LiveConnections connections,
    SchoolClock clock,
    ILogger<Listener> log
) : BackgroundService
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var pause = TimeSpan.FromMilliseconds(100);
        for (var missed = false; !stoppingToken.IsCancellationRequested; missed = true)
        {
            try
            {
                await using var connection = await database.OpenOwn(stoppingToken);
                connection.Notification += (_, told) => _ = Tell(ScopeChanged.FromJson(told.Payload));
                await using (var listen = new NpgsqlCommand($"LISTEN {ScopeChanged.Channel}", connection))
                    await listen.ExecuteNonQueryAsync(stoppingToken);
                if (missed)
                {
                    await clock.Set(stoppingToken);
                    await hub.Clients.All.SendAsync("raised", new ScopeChanged("*", 0), stoppingToken);
                }
                pause = TimeSpan.FromMilliseconds(100);
                while (!stoppingToken.IsCancellationRequested)
                    await connection.WaitAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception fault) when (fault is not OutOfMemoryException)
            {
                log.LogWarning("Not listening for changes: {Fault}. Trying again.", fault.Message);
                await Task.Delay(pause, stoppingToken).ContinueWith(_ => { }, TaskScheduler.Default);
                pause = pause * 2 < Longest ? pause * 2 : Longest;
            }
        }
    }

    private async Task Tell(ScopeChanged raised)
    {
        if (raised.Scope == ScopeChanged.Clock)
        {
            await clock.Set(CancellationToken.None);
            raised = new("*", 0);
        }
        if (raised.Scope.StartsWith("person:", StringComparison.Ordinal))
            connections.End(Id<Person>.Parse(raised.Scope["person:".Length..], null));
        if (raised.Scope.StartsWith("session:", StringComparison.Ordinal))
            connections.EndSession(raised.Scope["session:".Length..]);
        await (raised.Scope == "*" ? hub.Clients.All : hub.Clients.Group(raised.Scope)).SendAsync("raised", raised);
    }
}
