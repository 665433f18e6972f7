using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles.Reading;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>Whether what a term names is there, and named once. Source: the plan file, <i>Refusal</i>.</summary>
internal static class TermNames
{
    public const string NoSuchZone = "no such zone: use an IANA name, such as Europe/Dublin";

    public static bool IsZone(string name) => DateTimeZoneProviders.Tzdb.GetZoneOrNull(name) is not null;

    /// <summary>Every label that days of the term can be given.</summary>
    public static HashSet<string> Labels(JsonPiece term) => [.. SectionMeetings.LabelsOf(PlanBuilder.RotationOf(term["rotation"]))];

    public static void Check(JsonPiece term, FaultList faults)
    {
        if (!IsZone(term["zone"]!.Value!))
            faults.Add(term["zone"]!, NoSuchZone);
        CheckPeriods(term.Each("periods"), faults);
        var labels = Labels(term);
        foreach (var day in term.Each("specialDays"))
        {
            CheckPeriods(day.Each("periods"), faults);
            if (day["runs"] is { IsNull: false } runs && !labels.Contains(runs.Value!))
                faults.Add(runs, "no such day in the rotation");
        }
        if (term["rotation"] is { } rotation)
            Once(rotation.Each("labels"), "there is a label of that name already", faults);
    }

    public static void CheckPeriods(IEnumerable<JsonPiece> periods, FaultList faults) =>
        Once(periods.Select(period => period["name"]!), "there is a period of that name already", faults);

    /// <summary>The one that comes second in the file is reported.</summary>
    public static void Once(IEnumerable<JsonPiece> texts, string message, FaultList faults)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var text in texts.OrderBy(text => text.At))
            if (!seen.Add(text.Value!))
                faults.Add(text, message);
    }
}
