using System.Text.Json.Nodes;
using NodaTime;
using NodaTime.Text;
using Polycline.Core.Calendars;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Calendar;

/// <summary>Reads what somebody says of a term: when it is, in which zone, and its settings in the plan file's form.</summary>
public static class TermForm
{
    private const int Longest = 400;

    /// <summary>Of a term that is like no other yet: Monday to Friday, the same every week, no periods.</summary>
    public static JsonObject PlainWeek =>
        new()
        {
            ["weekdays"] = new JsonArray("mon", "tue", "wed", "thu", "fri"),
            ["rotation"] = new JsonObject { ["kind"] = "weekly" },
            ["periods"] = new JsonArray(),
            ["offDays"] = "stay",
        };

    /// <exception cref="ProblemException">A field is wrong: <c>first</c>, <c>last</c>, <c>zone</c>, <c>weekdays</c> …</exception>
    public static Term Read(string name, string zone, string first, string last, JsonObject settings)
    {
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone) is null)
            throw Problem.Field("zone", "Choose a time zone from the list.");
        var (from, to) = (DateOf(first, "first"), DateOf(last, "last"));
        if (to < from)
            throw Problem.Field("last", "The term ends before it begins. Choose a later last day.");
        if (NodaTime.Period.DaysBetween(from, to) > Longest)
            throw Problem.Field("last", $"A term is at most {Longest} days long. Choose an earlier last day.");
        var json = new JsonObject
        {
            ["name"] = name,
            ["zone"] = zone,
            ["first"] = first,
            ["last"] = last,
        };
        foreach (var (field, value) in settings)
            json[field] = value?.DeepClone();
        try
        {
            var term = PlanParts.Term(json.ToJsonString());
            return term.Calendar.Weekdays.IsEmpty ? throw Problem.Field("weekdays", "Choose at least one weekday with classes.") : term;
        }
        catch (FileRefusedException refusal)
        {
            throw Problem.Field(refusal.Path.Replace("$.", "", StringComparison.Ordinal), $"{refusal.Message.Capital()}.");
        }
    }

    /// <exception cref="ProblemException">It is no date, or one that no school has.</exception>
    public static LocalDate DateOf(string text, string field) =>
        LocalDatePattern.Iso.Parse(text) is { Success: true, Value: { Year: >= 1990 and <= 2200 } date }
            ? date
            : throw Problem.Field(field, "Choose a date.");
}
