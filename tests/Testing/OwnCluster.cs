using System.Diagnostics;
using Polycline.Data;
using Polycline.Demo.School;

namespace Polycline.Testing;

/// <summary>A PostgreSQL of one test's own, which it may stop and start; made by the same scripts as the application's.</summary>
public sealed class OwnCluster : IAsyncDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("polycline-cluster.").FullName;
    private string port = "";

    private OwnCluster() { }

    /// <summary>Holds the demo school.</summary>
    public TestDatabase Database { get; private set; } = null!;

    public static async Task<OwnCluster> Start()
    {
        var cluster = new OwnCluster();
        cluster.port = await cluster.Script("free_port");
        await cluster.Script(
            """
            [ "$(id -u)" = 0 ] && chown postgres:postgres "$PGROOT"
            STATE="$PGROOT" cluster_create && cluster_start "-c fsync=off"
            ensure_roles own-owner own-app
            sql -d postgres -c 'CREATE DATABASE polycline OWNER polycline_owner'
            """
        );
        var server = $"Host=127.0.0.1;Port={cluster.port};Database=polycline;";
        cluster.Database = new(
            "polycline",
            server + "Username=polycline_owner;Password=own-owner",
            server + "Username=polycline_app;Password=own-app",
            () => Task.CompletedTask
        );
        await Migrator.Migrate(cluster.Database.Owner, CancellationToken.None);
        await DemoSchool.Load(cluster.Database.Owner, CancellationToken.None);
        return cluster;
    }

    public Task Stop() => Script("cluster_stop fast");

    public Task StartAgain() => Script("cluster_start '-c fsync=off'");

    public async ValueTask DisposeAsync()
    {
        await Script("cluster_stop immediate");
        Directory.Delete(folder, recursive: true);
    }

    private async Task<string> Script(string commands)
    {
        var start = new ProcessStartInfo("bash") { RedirectStandardOutput = true, WorkingDirectory = TestServer.Root };
        start.ArgumentList.Add("-c");
        start.ArgumentList.Add(
            $"set -eu; ROOT=$PWD; . scripts/common.sh; . scripts/postgres.sh; find_postgres; PGROOT={folder}; PGPORT={port}\n{commands}"
        );
        using var process = Process.Start(start)!;
        var said = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        return process.ExitCode == 0 ? said : throw new InvalidOperationException($"'{commands}' ended with {process.ExitCode}: {said}");
    }
}
