using System.Collections.Immutable;
using System.Text.Json;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles.Writing;
using Polycline.Core.Sections;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>The members that a plan file is made of; what is null is left out.</summary>
internal static class JsonMembers
{
    public static void Object(Utf8JsonWriter json, string? name, Action members)
    {
        if (name is not null)
            json.WritePropertyName(name);
        json.WriteStartObject();
        members();
        json.WriteEndObject();
    }

    // An empty list is left out.
    public static void List<T>(Utf8JsonWriter json, string name, ImmutableArray<T> entries, Action<T, Utf8JsonWriter> write)
    {
        if (entries.IsDefaultOrEmpty)
            return;
        json.WriteStartArray(name);
        foreach (var entry in entries)
            write(entry, json);
        json.WriteEndArray();
    }

    public static void Texts(Utf8JsonWriter json, string name, IEnumerable<string> texts)
    {
        json.WriteStartArray(name);
        foreach (var text in texts)
            json.WriteStringValue(text);
        json.WriteEndArray();
    }

    public static void Text(Utf8JsonWriter json, string name, string? text)
    {
        if (text is not null)
            json.WriteString(name, text);
    }

    public static void Flag(Utf8JsonWriter json, string name, bool? flag)
    {
        if (flag is { } given)
            json.WriteBoolean(name, given);
    }

    public static void Given(Utf8JsonWriter json, string name, Given<Anchor> given)
    {
        if (given is { Is: true, Value: { } anchor })
            Anchor(json, name, anchor);
        else if (given.Is)
            json.WriteNull(name);
    }

    public static void Anchor(Utf8JsonWriter json, string name, Anchor anchor)
    {
        json.WritePropertyName(name);
        GateWriter.Write(anchor, json);
    }

    public static void Gate(Utf8JsonWriter json, Gate? gate)
    {
        if (gate is null)
            return;
        json.WritePropertyName("gate");
        GateWriter.Write(gate, json);
    }

    public static void Before(Utf8JsonWriter json, BeforeOpening? before)
    {
        if (before is { } seen)
            json.WriteString("before", EnumNames.Of(seen));
    }

    public static void Date(Utf8JsonWriter json, string name, LocalDate? date)
    {
        if (date is { } day)
            json.WriteString(name, $"{day:uuuu-MM-dd}");
    }

    public static void Time(Utf8JsonWriter json, string name, LocalTime time) => json.WriteString(name, $"{time:HH:mm}");

    public static void Moment(Utf8JsonWriter json, string name, Instant? moment)
    {
        if (moment is { } at)
            json.WriteString(name, $"{at:uuuu-MM-dd'T'HH:mm:ss'Z'}");
    }
}
