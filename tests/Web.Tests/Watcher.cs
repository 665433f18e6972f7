using System.Threading.Channels;
using Microsoft.AspNetCore.Http.Connections;
using Microsoft.AspNetCore.SignalR.Client;
using Polycline.Data.Live;
using Polycline.Testing;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Live;

namespace Polycline.Tests.Web;

/// <summary>An open live connection, and what it was told.</summary>
public sealed class Watcher : IAsyncDisposable
{
    /// <summary>How soon a change must have been told.</summary>
    public static readonly TimeSpan Soon = TimeSpan.FromSeconds(2);

    private readonly Channel<ScopeChanged> told = Channel.CreateUnbounded<ScopeChanged>();
    private readonly TaskCompletionSource closed = new();

    private Watcher(HubConnection connection)
    {
        Connection = connection;
        connection.On<ScopeChanged>("raised", raised => told.Writer.TryWrite(raised));
        connection.Closed += _ =>
        {
            closed.TrySetResult();
            return Task.CompletedTask;
        };
    }

    public HubConnection Connection { get; }

    public Task Closed => closed.Task;

    /// <param name="person">Null: nobody.</param>
    /// <param name="session">One they have; null: a new one.</param>
    public static async Task<Watcher> Connect(School school, string? person, int instance = 0, string? session = null)
    {
        session ??= person is null ? null : await school.Session(person);
        var connection = new HubConnectionBuilder()
            .WithUrl(new Uri(school.Address(instance), LiveHub.Route), options =>
            {
                options.Transports = HttpTransportType.WebSockets;
                options.SkipNegotiation = true;
                if (session is not null)
                    options.Headers["Cookie"] = $"{SessionCookie.Name}={session}";
            })
            .Build();
        var watcher = new Watcher(connection);
        await connection.StartAsync();
        return watcher;
    }

    public async Task<ScopeChanged> Next(TimeSpan? within = null) => await told.Reader.ReadAsync().AsTask().WaitAsync(within ?? Soon);

    public ValueTask DisposeAsync() => Connection.DisposeAsync();
}
