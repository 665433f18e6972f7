using System.Collections.Concurrent;
using System.Net;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.Logging;
using Polycline.Demo;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What is measured reaches a collector where one is set.</summary>
public sealed class TelemetryTests
{
    [Fact]
    public async Task A_collector_is_told_of_requests_commands_sweeps_and_statements_and_of_nobodys_words()
    {
        var taken = new ConcurrentDictionary<string, ConcurrentQueue<string>>();
        await using var collector = await Collector(taken);
        var database = await TestServer.Clone();
        await using (var school = await School.Open(database: database))
        {
            await using var app = PolyclineHost.Build(
                new(database.App, "http://127.0.0.1:0") { Collector = new(PolyclineHost.AddressOf(collector)) },
                new DemoProfile()
            );
            await PolyclineHost.Prepare(app);
            await app.StartAsync(TestContext.Current.CancellationToken);
            using var lead = new Caller(new(PolyclineHost.AddressOf(app))) { Session = await school.Session(DemoPeople.Lead) };
            var (item, version) = await CommandExamples.FirstItem(school, school.WeatherWatch);
            var address = $"/api/editions/{school.WeatherWatch}/rename-item";
            object Renamed(string title) =>
                new
                {
                    item,
                    title,
                    version,
                };
            (await lead.Post(address, Renamed("Nobody else's words"), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
            (await lead.Post(address, Renamed("Too late"), Guid.NewGuid())).Code.ShouldBe("changed-meanwhile");
            // What stands at the end is sent when it stops.
            await app.StopAsync(TestContext.Current.CancellationToken);
        }
        var (traces, metrics) = (string.Join('\n', taken["/v1/traces"]), string.Join('\n', taken["/v1/metrics"]));
        traces.ShouldContain("rename-item");
        traces.ShouldContain("changed-meanwhile");
        traces.ShouldContain("POST /api/editions/{edition:long}/rename-item");
        metrics.ShouldContain("polycline.command.duration");
        metrics.ShouldContain("http.server.request.duration");
        (traces + metrics).ShouldNotContain("Nobody else's words");
    }

    // Keeps what it is sent, as it came.
    private static async Task<WebApplication> Collector(ConcurrentDictionary<string, ConcurrentQueue<string>> taken)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        var app = builder.Build();
        app.Run(async http =>
        {
            using var body = new MemoryStream();
            await http.Request.Body.CopyToAsync(body);
            taken.GetOrAdd(http.Request.Path, _ => new()).Enqueue(Encoding.Latin1.GetString(body.ToArray()));
        });
        await app.StartAsync();
        return app;
    }
}
