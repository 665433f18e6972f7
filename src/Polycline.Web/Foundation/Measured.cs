using System.Diagnostics;
using System.Diagnostics.Metrics;

namespace Polycline.Web.Foundation;

/// <summary>
/// What Polycline measures of itself, beside what the framework measures of requests and Npgsql of statements: how long commands and sweeps
/// take, and what came of them.
/// </summary>
public sealed class Measured : IDisposable
{
    /// <summary>The name under which traces and metrics are found.</summary>
    public const string Name = "Polycline";

    public const string CommandDuration = "polycline.command.duration";
    public const string SweepDuration = "polycline.sweep.duration";
    public const string Outcome = "outcome";

    private static readonly ActivitySource Traces = new(Name);
    private static readonly Meter Meter = new(Name);
    private static readonly Histogram<double> Commands = Meter.CreateHistogram<double>(CommandDuration, "s");
    private static readonly Histogram<double> Sweeps = Meter.CreateHistogram<double>(SweepDuration, "s");

    private readonly long begun = Stopwatch.GetTimestamp();
    private readonly Histogram<double> duration;
    private readonly Activity? activity;
    private readonly string what;
    private string outcome;

    private Measured(Histogram<double> duration, string what, string outcome)
    {
        (this.duration, this.what, this.outcome) = (duration, what, outcome);
        activity = Traces.StartActivity(what);
    }

    /// <summary>A command, from when it is checked until it is answered.</summary>
    public static Measured Command(string name, bool preview) => new(Commands, name, preview ? "previewed" : "done");

    /// <summary>A sweep through every edition.</summary>
    public static Measured Sweep() => new(Sweeps, "sweep", "done");

    /// <summary>It was not done.</summary>
    /// <param name="why">The problem's code.</param>
    public void Refused(string why)
    {
        outcome = why;
        activity?.SetStatus(ActivityStatusCode.Error, why);
    }

    public void Dispose()
    {
        activity?.SetTag(Outcome, outcome);
        activity?.Dispose();
        duration.Record(
            Stopwatch.GetElapsedTime(begun).TotalSeconds,
            new KeyValuePair<string, object?>("what", what),
            new KeyValuePair<string, object?>(Outcome, outcome)
        );
    }
}
