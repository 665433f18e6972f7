using System.Text.Json;
using Polycline.Core.Calendars;
using Polycline.Core.Wording;
using static Polycline.Core.PlanFiles.Checking.JsonMembers;

namespace Polycline.Core.PlanFiles.Writing;

/// <summary>Writes the term of a plan file. Source: the plan file; the computation, chapter 1.</summary>
internal static class TermWriter
{
    private static readonly string[] Weekdays = ["", "mon", "tue", "wed", "thu", "fri", "sat", "sun"];

    public static void Write(Term term, Utf8JsonWriter json)
    {
        var calendar = term.Calendar;
        json.WriteStartObject();
        json.WriteString("name", term.Name);
        json.WriteString("zone", term.Zone.Id);
        Date(json, "first", term.First);
        Date(json, "last", term.Last);
        Texts(json, "weekdays", calendar.Weekdays.Select(day => Weekdays[(int)day]));
        List(json, "closures", calendar.Closures, (closure, _) => Object(json, null, () =>
            {
                Date(json, "from", closure.From);
                Date(json, "to", closure.To);
                json.WriteString("name", closure.Name);
            }));
        List(json, "extraDays", calendar.ExtraDays, (extra, _) => Object(json, null, () =>
            {
                Date(json, "date", extra.Date);
                json.WriteString("name", extra.Name);
            }));
        Write(calendar.Rotation, json);
        List(json, "periods", calendar.Periods, Write);
        List(json, "specialDays", calendar.SpecialDays, (day, _) => Object(json, null, () =>
            {
                Date(json, "date", day.Date);
                Text(json, "runs", day.Runs);
                if (day.Periods is { } periods)
                {
                    json.WriteStartArray("periods");
                    foreach (var period in periods)
                        Write(period, json);
                    json.WriteEndArray();
                }
                Text(json, "name", day.Name);
            }));
        json.WriteString("offDays", EnumNames.Of(calendar.OffDays));
        json.WriteEndObject();
    }

    private static void Write(Rotation rotation, Utf8JsonWriter json) => Object(json, "rotation", () =>
        {
            json.WriteString(
                "kind",
                rotation switch
                {
                    Rotation.ByWeeks => "weeks",
                    Rotation.ByDays => "days",
                    _ => "weekly",
                }
            );
            if (rotation is Rotation.ByWeeks weeks)
            {
                Texts(json, "labels", weeks.Labels);
                json.WriteString("count", weeks.TeachingOnly ? "teaching" : "calendar");
            }
            if (rotation is Rotation.ByDays days)
            {
                Texts(json, "labels", days.Labels);
                json.WriteString("closures", days.ClosuresCount ? "count" : "pause");
            }
        });

    private static void Write(Calendars.Period period, Utf8JsonWriter json) => Object(json, null, () =>
        {
            json.WriteString("name", period.Name);
            Time(json, "start", period.Start);
            Time(json, "end", period.End);
        });
}
