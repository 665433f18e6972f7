using System.Diagnostics;
using OpenTelemetry;
using OpenTelemetry.Exporter;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;
using Polycline.Web.Foundation;

namespace Polycline.Web.Host;

/// <summary>
/// Traces and metrics of requests, commands, sweeps and the database. They go to the log in a few words, and to a collector where one is
/// set, as OpenTelemetry's protocol has it.
/// </summary>
internal static class Telemetry
{
    private const int EveryMilliseconds = 60_000;

    /// <param name="collector">Where a collector takes what is measured, over HTTP; null: nowhere.</param>
    public static void AddTelemetry(this IServiceCollection services, Uri? collector)
    {
        services.AddSingleton<SlowInTheLog>();
        services.AddSingleton<MinuteInTheLog>();
        services
            .AddOpenTelemetry()
            .ConfigureResource(resource => resource.AddService("polycline"))
            .WithTracing(traces =>
            {
                traces
                    .AddSource(Measured.Name, "Npgsql")
                    .AddAspNetCoreInstrumentation()
                    .AddProcessor(services => new SimpleActivityExportProcessor(services.GetRequiredService<SlowInTheLog>()));
                if (collector is not null)
                    traces.AddOtlpExporter(to => To(to, collector, "v1/traces"));
            })
            .WithMetrics(metrics =>
            {
                metrics
                    .AddMeter(Measured.Name, "Npgsql", "Microsoft.AspNetCore.Hosting")
                    .AddReader(services => new PeriodicExportingMetricReader(
                        services.GetRequiredService<MinuteInTheLog>(),
                        EveryMilliseconds
                    )
                    {
                        TemporalityPreference = MetricReaderTemporalityPreference.Delta,
                    });
                if (collector is not null)
                    metrics.AddOtlpExporter(to => To(to, collector, "v1/metrics"));
            });
    }

    private static void To(OtlpExporterOptions to, Uri collector, string path)
    {
        to.Protocol = OtlpExportProtocol.HttpProtobuf;
        to.Endpoint = new(collector, path);
    }
}

/// <summary>Logs requests, commands and sweeps that took longer than anybody likes to wait.</summary>
internal sealed class SlowInTheLog(ILogger<SlowInTheLog> log) : BaseExporter<Activity>
{
    private static readonly TimeSpan Slow = TimeSpan.FromSeconds(1);

    public override ExportResult Export(in Batch<Activity> batch)
    {
        foreach (var activity in batch)
            if (activity.Duration >= Slow && activity.Source.Name != "Npgsql")
                log.LogInformation(
                    "{What} took {Seconds:0.0} s, trace {Trace}",
                    activity.DisplayName,
                    activity.Duration.TotalSeconds,
                    activity.TraceId
                );
        return ExportResult.Success;
    }
}

/// <summary>Logs a summary of the last minute, unless nobody asked for anything.</summary>
internal sealed class MinuteInTheLog(ILogger<MinuteInTheLog> log) : BaseExporter<Metric>
{
    private const string Requests = "http.server.request.duration";

    public override ExportResult Export(in Batch<Metric> batch)
    {
        var (requests, refused, commands, sweeps, statements) = (0L, 0L, 0L, 0L, 0L);
        var seconds = 0.0;
        foreach (var metric in batch)
        {
            if (metric.MetricType is not (MetricType.Histogram or MetricType.ExponentialHistogram))
                continue;
            foreach (ref readonly var point in metric.GetMetricPoints())
            {
                var count = point.GetHistogramCount();
                switch (metric.Name)
                {
                    case Requests:
                        requests += count;
                        seconds += point.GetHistogramSum();
                        break;
                    case Measured.CommandDuration:
                        commands += count;
                        if (Tag(point, Measured.Outcome) is not ("done" or "previewed"))
                            refused += count;
                        break;
                    case Measured.SweepDuration:
                        sweeps += count;
                        break;
                    default:
                        if (metric.MeterName == "Npgsql" && metric.Name.EndsWith("duration", StringComparison.Ordinal))
                            statements += count;
                        break;
                }
            }
        }
        if (requests > 0)
            log.LogInformation(
                "The last minute: {Requests} requests of {Milliseconds:0} ms on average, {Commands} commands ({Refused} refused), "
                    + "{Sweeps} sweeps, {Statements} statements",
                requests,
                1_000 * seconds / requests,
                commands,
                refused,
                sweeps,
                statements
            );
        return ExportResult.Success;
    }

    private static string? Tag(in MetricPoint point, string name)
    {
        foreach (var tag in point.Tags)
            if (tag.Key == name)
                return tag.Value as string;
        return null;
    }
}
