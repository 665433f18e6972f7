using System.Collections;
using System.Collections.Concurrent;
using System.Globalization;
using System.Reflection;
using System.Text;
using System.Text.Json;
using NodaTime;

namespace Polycline.Web.Foundation.Http;

/// <summary>
/// What may come from outside at all, whatever it is for: held against every body before its handler sees it, so that no
/// handler and no statement meets a text that cannot be kept, a hole in a list or a moment beyond all calendars.
/// </summary>
public static class Bounds
{
    /// <summary>Moments that anything here can be about.</summary>
    public static readonly Instant Earliest = Instant.FromUtc(1900, 1, 1, 0, 0),
        Latest = Instant.FromUtc(2999, 12, 31, 23, 59);

    private const int Deepest = 64;
    private static readonly ConcurrentDictionary<Type, PropertyInfo[]> Members = new();

    /// <summary>Puts the check before every handler of a group.</summary>
    public static void HoldBounds(this RouteGroupBuilder routes) =>
        routes.AddEndpointFilter(
            async (context, next) =>
            {
                foreach (var argument in context.Arguments)
                    if (argument is not null && IsOurs(argument.GetType()))
                        Check(argument, "", 0);
                return await next(context);
            }
        );

    /// <summary>Whether a moment lies where anything here can be.</summary>
    public static bool Holds(Instant moment) => Earliest <= moment && moment <= Latest;

    /// <summary>Whether a text has something in it that can be seen.</summary>
    public static bool IsVisible(string text) =>
        text.EnumerateRunes()
            .Any(rune =>
                Rune.GetUnicodeCategory(rune)
                    is not (
                        UnicodeCategory.Control
                        or UnicodeCategory.Format
                        or UnicodeCategory.SpaceSeparator
                        or UnicodeCategory.LineSeparator
                        or UnicodeCategory.ParagraphSeparator
                        or UnicodeCategory.OtherNotAssigned
                        or UnicodeCategory.PrivateUse
                        or UnicodeCategory.Surrogate
                    )
            );

    /// <summary>What cannot be kept of a text; null: nothing. Line breaks and tabs can.</summary>
    public static string? Fault(string text)
    {
        for (var at = 0; at < text.Length; at++)
        {
            if (char.IsControl(text[at]) && text[at] is not ('\n' or '\r' or '\t'))
                return "It contains a control character, which cannot be saved. Take it out and try again.";
            if (char.IsHighSurrogate(text[at]) && at + 1 < text.Length && char.IsLowSurrogate(text[at + 1]))
                at++;
            else if (char.IsSurrogate(text[at]))
                return "It contains a broken character, which cannot be saved. Take it out and try again.";
        }
        return null;
    }

    private static bool IsOurs(Type type) =>
        type.Namespace?.StartsWith("Polycline.", StringComparison.Ordinal) == true
        && type.Name.EndsWith("Request", StringComparison.Ordinal);

    private static void Check(object value, string path, int depth)
    {
        if (depth > Deepest)
            throw Problem.Malformed(path, "This is nested too deeply.");
        switch (value)
        {
            case string text:
                if (Fault(text) is { } fault)
                    throw Problem.Field(path, fault);
                break;
            case JsonElement json:
                Check(json, path, depth);
                break;
            case IEnumerable list:
                var n = 0;
                foreach (var one in list)
                    Check(one ?? throw Problem.Malformed($"{path}[{n}]", "A value is missing here."), $"{path}[{n++}]", depth + 1);
                break;
            case var record
                when record.GetType() is { IsClass: true } type
                    && type.Namespace?.StartsWith("Polycline.", StringComparison.Ordinal) == true:
                foreach (
                    var member in Members.GetOrAdd(type, known =>
                        [.. known.GetProperties(BindingFlags.Instance | BindingFlags.Public).Where(property => property.CanWrite)]
                    )
                )
                    if (member.GetValue(record) is { } inner)
                        Check(inner, Under(path, JsonNamingPolicy.CamelCase.ConvertName(member.Name)), depth + 1);
                break;
        }
    }

    private static void Check(JsonElement json, string path, int depth)
    {
        if (depth > Deepest)
            throw Problem.Malformed(path, "This is nested too deeply.");
        switch (json.ValueKind)
        {
            case JsonValueKind.String:
                if (TextOf(json) is not { } text)
                    throw Problem.Field(path, "It contains a broken character, which cannot be saved. Take it out and try again.");
                if (Fault(text) is { } fault)
                    throw Problem.Field(path, fault);
                break;
            case JsonValueKind.Array:
                var n = 0;
                foreach (var one in json.EnumerateArray())
                    Check(one, $"{path}[{n++}]", depth + 1);
                break;
            case JsonValueKind.Object:
                foreach (var member in json.EnumerateObject())
                {
                    if (Fault(member.Name) is { } wrong)
                        throw Problem.Field(path, wrong);
                    Check(member.Value, Under(path, member.Name), depth + 1);
                }
                break;
        }
    }

    // Null: it is no text that Unicode knows.
    private static string? TextOf(JsonElement json)
    {
        try
        {
            return json.GetString();
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }

    private static string Under(string path, string member) => path.Length == 0 ? member : $"{path}.{member}";
}
