using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Polycline.Testing;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>The application as it is started, published, as two processes on one database.</summary>
public sealed class PublishedSchool : IAsyncLifetime
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private readonly List<Process> processes = [];
    private TestDatabase database = null!;

    /// <summary>Where the instances listen.</summary>
    public IReadOnlyList<Uri> Addresses { get; private set; } = [];

    public async ValueTask InitializeAsync()
    {
        database = await TestServer.Clone();
        var addresses = new List<Uri>();
        for (var n = 0; n < 2; n++)
        {
            var address = new Uri($"http://127.0.0.1:{FreePort()}");
            var start = new ProcessStartInfo("dotnet") { RedirectStandardError = true, RedirectStandardOutput = true };
            start.ArgumentList.Add(Path.Combine(TestServer.Published, "Polycline.Demo.dll"));
            start.ArgumentList.Add("serve");
            start.Environment["POLYCLINE_DATABASE"] = database.App;
            start.Environment["POLYCLINE_ADDRESS"] = address.ToString();
            var process = Process.Start(start)!;
            process.BeginErrorReadLine();
            process.BeginOutputReadLine();
            processes.Add(process);
            addresses.Add(address);
        }
        Addresses = addresses;
        foreach (var address in addresses)
            await Ready(address);
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var process in processes)
        {
            process.Kill(entireProcessTree: true);
            await process.WaitForExitAsync();
            process.Dispose();
        }
        await database.DisposeAsync();
    }

    private static async Task Ready(Uri address)
    {
        using var caller = new Caller(address);
        for (var waited = Stopwatch.StartNew(); waited.Elapsed < Patience; await Task.Yield())
        {
            try
            {
                if ((await caller.Get("/health/ready")).Status == HttpStatusCode.OK)
                    return;
            }
            catch (HttpRequestException)
            {
                // Not listening yet.
            }
        }
        throw new TimeoutException($"{address} did not get ready.");
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
