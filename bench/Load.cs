using System.Diagnostics;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Polycline.Bench;

/// <summary>Requests as fast as they are answered, sent by wrk over 16 connections to loopback.</summary>
public static partial class Load
{
    private const string Seconds = "2s";

    /// <returns>How many were answered a second.</returns>
    /// <exception cref="InvalidOperationException">wrk failed, or some answer was none of success.</exception>
    public static async Task<double> Run(Uri address, params string[] headers)
    {
        var start = new ProcessStartInfo("wrk") { RedirectStandardOutput = true };
        foreach (
            var argument in new[] { "-t1", "-c16", $"-d{Seconds}" }
                .Concat(headers.SelectMany(header => new[] { "-H", header }))
                .Append(address.ToString())
        )
            start.ArgumentList.Add(argument);
        using var process = Process.Start(start)!;
        var said = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        if (process.ExitCode != 0 || said.Contains("Non-2xx", StringComparison.Ordinal))
            throw new InvalidOperationException($"{address}: {said}");
        return double.Parse(ASecond().Match(said).Groups[1].Value, CultureInfo.InvariantCulture);
    }

    [GeneratedRegex(@"Requests/sec:\s*([\d.]+)")]
    private static partial Regex ASecond();
}
