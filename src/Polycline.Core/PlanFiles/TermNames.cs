using NodaTime;
using Polycline.Core.Calendars;

namespace Polycline.Core.PlanFiles;

/// <summary>Whether what a term names is there, and named once. Source: the plan file, <i>Refusal</i>.</summary>
internal static class TermNames
{
    /// <summary>Every label that days of the term can be given.</summary>
    public static HashSet<string> Labels(JsonPiece term) => [.. Meetings.LabelsOf(PlanBuilder.RotationOf(term["rotation"]))];

    public static void Check(JsonPiece term, Faults faults)
    {
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(term["zone"]!.Value!) is null)
            faults.Add(term["zone"]!, "no such zone: an IANA name is wanted, such as Europe/Dublin");
        CheckPeriods(Names.Entries(term, "periods"), faults);
        var labels = Labels(term);
        foreach (var day in Names.Entries(term, "specialDays"))
        {
            CheckPeriods(Names.Entries(day, "periods"), faults);
            if (day["runs"] is { IsNull: false } runs && !labels.Contains(runs.Value!))
                faults.Add(runs, "no such day in the rotation");
        }
        if (term["rotation"] is { } rotation)
            Once(Names.Entries(rotation, "labels"), "there is a label of that name already", faults);
    }

    public static void CheckPeriods(IEnumerable<JsonPiece> periods, Faults faults) =>
        Once(periods.Select(period => period["name"]!), "there is a period of that name already", faults);

    /// <summary>The one that stands second in the file is told.</summary>
    public static void Once(IEnumerable<JsonPiece> texts, string message, Faults faults)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var text in texts.OrderBy(text => text.At))
            if (!seen.Add(text.Value!))
                faults.Add(text, message);
    }
}
