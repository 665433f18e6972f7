using System.Collections.Concurrent;
using Microsoft.AspNetCore.SignalR;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Web.Foundation;

namespace Polycline.Web.Live;

/// <summary>The open connections of this instance, by person.</summary>
public sealed class LiveConnections
{
    private readonly ConcurrentDictionary<string, (long Person, HubCallerContext Context)> open = new();

    public void Add(HubCallerContext context, long person) => open[context.ConnectionId] = (person, context);

    public void Remove(HubCallerContext context) => open.TryRemove(context.ConnectionId, out _);

    /// <summary>Ends every connection of a person whose sessions were ended.</summary>
    public void End(long person)
    {
        foreach (var (_, connection) in open.Where(pair => pair.Value.Person == person))
            connection.Context.Abort();
    }
}

/// <summary>Tells browsers which counters were raised. It never sends content: they read again, as anybody would.</summary>
public sealed class LiveHub(Database database, IClock clock, LiveConnections connections) : Hub
{
    public const string Route = "/live";

    public override async Task OnConnectedAsync()
    {
        var access = await AccessMiddleware.Find(Context.GetHttpContext()!, database, null, null, clock.GetCurrentInstant());
        if (access is null)
        {
            Context.Abort();
            return;
        }
        connections.Add(Context, access.Person.Id.Value);
        await base.OnConnectedAsync();
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        connections.Remove(Context);
        return base.OnDisconnectedAsync(exception);
    }

    /// <summary>From now on tells this connection when the edition is changed.</summary>
    /// <returns>The edition's counter, so that nothing is missed between reading and watching.</returns>
    /// <exception cref="HubException">There is no such edition for whoever asks.</exception>
    public async Task<long> WatchEdition(long edition)
    {
        await Groups.AddToGroupAsync(Context.ConnectionId, $"edition:{edition}");
        var access = await AccessMiddleware.Find(Context.GetHttpContext()!, database, new Id<Edition>(edition), null, clock.GetCurrentInstant());
        if (access?.IsMember == true)
            return access.EditionVersion;
        await Groups.RemoveFromGroupAsync(Context.ConnectionId, $"edition:{edition}");
        throw new HubException("There is nothing here.");
    }

    public Task LeaveEdition(long edition) => Groups.RemoveFromGroupAsync(Context.ConnectionId, $"edition:{edition}");
}
