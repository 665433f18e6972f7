using System.Collections.Immutable;
using System.Text.Json;
using NodaTime;
using NodaTime.Text;

namespace Polycline.Core.Calendars;

/// <summary>The stored form of a <see cref="SchoolCalendar"/>: the members of a plan file's <c>term</c> beside name, zone and dates.</summary>
public static class CalendarJson
{
    private static readonly string[] WeekdayNames = ["", "mon", "tue", "wed", "thu", "fri", "sat", "sun"];

    /// <summary>Reads a calendar.</summary>
    /// <exception cref="JsonException">The text is no JSON.</exception>
    /// <exception cref="FormatException">A member has not the form of the plan file.</exception>
    public static SchoolCalendar Read(string json)
    {
        using var document = JsonDocument.Parse(json);
        var root = document.RootElement;
        return new(
            Each(root, "weekdays", day => (IsoDayOfWeek)Array.IndexOf(WeekdayNames, day.GetString())),
            Each(root, "closures", closure => new Closure(Date(closure, "from"), Date(closure, "to"), Text(closure, "name"))),
            Each(root, "extraDays", extra => new ExtraDay(Date(extra, "date"), Text(extra, "name"))),
            root.TryGetProperty("rotation", out var rotation) ? ReadRotation(rotation) : new Rotation.Weekly(),
            Each(root, "periods", ReadPeriod),
            Each(root, "specialDays", day => new SpecialDay(
                Date(day, "date"),
                day.TryGetProperty("runs", out var runs) ? runs.GetString() : null,
                day.TryGetProperty("periods", out _) ? Each(day, "periods", ReadPeriod) : null,
                day.TryGetProperty("name", out var name) ? name.GetString() : null)));
    }

    private static Rotation ReadRotation(JsonElement rotation) => Text(rotation, "kind") switch
    {
        "weekly" => new Rotation.Weekly(),
        "weeks" => new Rotation.Weeks(Labels(rotation), Text(rotation, "count") == "teaching"),
        "days" => new Rotation.Days(Labels(rotation), Text(rotation, "closures") == "count"),
        var kind => throw new FormatException($"'{kind}' is no kind of rotation."),
    };

    private static ImmutableArray<string> Labels(JsonElement rotation) => Each(rotation, "labels", label => label.GetString()!);

    private static Period ReadPeriod(JsonElement period) => new(Text(period, "name"), Time(period, "start"), Time(period, "end"));

    private static ImmutableArray<T> Each<T>(JsonElement owner, string name, Func<JsonElement, T> read) =>
        owner.TryGetProperty(name, out var list) ? [.. list.EnumerateArray().Select(read)] : [];

    private static string Text(JsonElement owner, string name) =>
        owner.GetProperty(name).GetString() ?? throw new FormatException($"'{name}' is empty.");

    private static LocalDate Date(JsonElement owner, string name) => LocalDatePattern.Iso.Parse(Text(owner, name)).GetValueOrThrow();

    private static LocalTime Time(JsonElement owner, string name) =>
        LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(Text(owner, name)).GetValueOrThrow();
}
