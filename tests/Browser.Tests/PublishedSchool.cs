using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Polycline.Testing;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>The application as it is started, published: one process on a database of its own, or several.</summary>
public class PublishedSchool : IAsyncLifetime
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    // A machine that does other things beside may take long to start a process; one that ended says so at once.
    private static readonly TimeSpan Starting = TimeSpan.FromSeconds(180);
    private readonly List<Process> processes = [];
    private readonly ConcurrentDictionary<int, Task> serving = new();
    private readonly ConcurrentQueue<string> said = [];
    private readonly TestDatabase? given;
    private TestDatabase database = null!;

    public PublishedSchool() { }

    /// <param name="given">One that holds the demo school; whoever gives it drops it.</param>
    internal PublishedSchool(TestDatabase given) => this.given = given.Shared();

    /// <summary>How many instances there are.</summary>
    internal int Instances { get; init; } = 1;

    /// <summary><c>demo</c>, or <c>school</c> without it.</summary>
    internal string Profile { get; init; } = "demo";

    /// <summary>The first line at the console that has this in it.</summary>
    internal async Task<string> Said(string part)
    {
        using var pause = new PeriodicTimer(TimeSpan.FromMilliseconds(50));
        for (var waited = Stopwatch.StartNew(); waited.Elapsed < Patience; await pause.WaitForNextTickAsync())
            if (said.FirstOrDefault(line => line.Contains(part, StringComparison.Ordinal)) is { } line)
                return line.Trim();
        throw new TimeoutException($"The console did not say {part}.");
    }

    /// <summary>Where the instances listen.</summary>
    public IReadOnlyList<Uri> Addresses { get; private set; } = [];

    public async ValueTask InitializeAsync()
    {
        database = given ?? await TestServer.Clone();
        Addresses = [.. Enumerable.Range(0, Instances).Select(_ => new Uri($"http://127.0.0.1:{FreePort()}"))];
        for (var n = 0; n < Addresses.Count; n++)
            await Start(n);
    }

    public TestDatabase Database => database;

    /// <summary>Ends an instance as a power cut would, and starts it again at the same address.</summary>
    public async Task KillAndStart(int instance)
    {
        var started = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        serving[instance] = started.Task;
        processes[instance].Kill(entireProcessTree: true);
        await processes[instance].WaitForExitAsync();
        await Start(instance);
        started.SetResult();
    }

    /// <summary>Comes when an instance that was killed serves again; at once where none was.</summary>
    public Task Serving(int instance) => serving.GetValueOrDefault(instance, Task.CompletedTask);

    private async Task Start(int instance)
    {
        var start = new ProcessStartInfo("dotnet") { RedirectStandardError = true, RedirectStandardOutput = true };
        start.ArgumentList.Add(Path.Combine(TestServer.Published, "Polycline.Demo.dll"));
        start.ArgumentList.Add("serve");
        start.Environment["POLYCLINE_DATABASE"] = database.App;
        start.Environment["POLYCLINE_PROFILE"] = Profile;
        start.Environment["POLYCLINE_ADDRESS"] = Addresses[instance].ToString();
        // Compiled ahead of time already: a walk is over before recompiling would pay.
        start.Environment["DOTNET_TieredPGO"] = "0";
        start.Environment["DOTNET_TC_CallCountThreshold"] = "4000";
        var process = Process.Start(start)!;
        process.OutputDataReceived += (_, told) => said.Enqueue(told.Data ?? "");
        process.ErrorDataReceived += (_, told) => said.Enqueue(told.Data ?? "");
        process.BeginErrorReadLine();
        process.BeginOutputReadLine();
        if (instance < processes.Count)
        {
            processes[instance].Dispose();
            processes[instance] = process;
        }
        else
        {
            processes.Add(process);
        }
        await Ready(process, Addresses[instance]);
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
        GC.SuppressFinalize(this);
    }

    private async Task Ready(Process process, Uri address)
    {
        using var caller = new Caller(address);
        // Asked in a hurry, it is answered later: it starts on the same machine.
        using var pause = new PeriodicTimer(TimeSpan.FromMilliseconds(100));
        for (var waited = Stopwatch.StartNew(); waited.Elapsed < Starting && !process.HasExited; await pause.WaitForNextTickAsync())
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
        throw new TimeoutException(
            $"{address} {(process.HasExited ? "ended" : "did not get ready")}. It said: {string.Join('\n', said.TakeLast(20))}"
        );
    }

    // Below the ports the system hands out by itself, so that nobody is given it before the application listens.
    private static int FreePort()
    {
        while (true)
        {
            using var listener = new TcpListener(IPAddress.Loopback, Random.Shared.Next(10_000, 20_000));
            try
            {
                listener.Start();
                return ((IPEndPoint)listener.LocalEndpoint).Port;
            }
            catch (SocketException)
            {
                // Taken: another one.
            }
        }
    }
}

/// <summary>Two processes on one database, for walks on which what is done at one is seen at the other.</summary>
public sealed class TwoInstances : PublishedSchool
{
    public TwoInstances() => Instances = 2;
}
