using System.Globalization;
using NodaTime;
using NodaTime.Text;

namespace Polycline.Core.Json;

/// <summary>Whether a piece has the form it should have; what is wrong goes to the faults.</summary>
internal delegate void JsonShape(JsonPiece piece, FaultList faults);

/// <summary>A member an object may have.</summary>
/// <param name="Required">Whether it may be left out.</param>
internal sealed record MemberShape(string Name, JsonShape JsonShape, bool Required = false);

/// <summary>The plain forms that a plan file is made of. Source: the plan file, <i>Refusal</i>, pass 1.</summary>
internal static class Forms
{
    private static readonly LocalDate Earliest = new(1900, 1, 1);
    private static readonly LocalDate Latest = new(2999, 12, 31);
    private static readonly LocalTimePattern Clock = LocalTimePattern.CreateWithInvariantCulture("HH:mm");
    private static readonly InstantPattern Moment = InstantPattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:ss'Z'");

    public static readonly JsonShape Text = OfText(_ => true, "must be text");

    public static readonly JsonShape Name = OfText(text => text.Length > 0, "must be a name that is not empty");

    public static readonly JsonShape Id = OfText(IsId, "must be an id: 1 to 64 ASCII letters, digits, '-', '_' and '.'");

    public static readonly JsonShape Date = OfText(
        text => DateOf(text) is not null,
        "must be a date, such as 2026-09-07, from 1900 to 2999"
    );

    public static readonly JsonShape Time = OfText(text => TimeOf(text) is not null, "must be a time, such as 08:40");

    public static readonly JsonShape Instant = OfText(
        text => InstantOf(text) is not null,
        "must be a moment, to the second in UTC, such as 2026-09-07T07:40:00Z"
    );

    public static readonly JsonShape Bool = (piece, faults) =>
    {
        if (piece.Kind is not (JsonKind.True or JsonKind.False))
            faults.Add(piece, "must be true or false");
    };

    public static readonly JsonShape Score = Number(0, 10_000);

    public static LocalDate? DateOf(string text) =>
        LocalDatePattern.Iso.Parse(text) is { Success: true, Value: var date } && Earliest <= date && date <= Latest ? date : null;

    public static LocalTime? TimeOf(string text) => Clock.Parse(text) is { Success: true, Value: var time } ? time : null;

    public static Instant? InstantOf(string text) =>
        Moment.Parse(text) is { Success: true, Value: var moment } && moment.InUtc().Date is var date && Earliest <= date && date <= Latest
            ? moment
            : null;

    public static decimal NumberOf(JsonPiece piece) => decimal.Parse(piece.Value!, NumberStyles.Float, CultureInfo.InvariantCulture);

    public static int WholeOf(JsonPiece piece) => int.Parse(piece.Value!, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture);

    public static JsonShape OneOf(params string[] words) => OfText(words.Contains, "must be one of: " + string.Join(", ", words));

    /// <summary>A whole number, written without point or exponent.</summary>
    public static JsonShape Whole(int from = -10_000, int to = 10_000) =>
        (piece, faults) =>
        {
            if (
                piece.Kind != JsonKind.Number
                || !int.TryParse(piece.Value, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var value)
                || value < from
                || value > to
            )
                faults.Add(piece, $"must be a whole number from {from} to {to}");
        };

    public static JsonShape Number(decimal from, decimal to) =>
        (piece, faults) =>
        {
            if (
                piece.Kind != JsonKind.Number
                || !decimal.TryParse(piece.Value, NumberStyles.Float, CultureInfo.InvariantCulture, out var value)
                || value < from
                || value > to
            )
                faults.Add(piece, $"must be a number from {from} to {to}");
        };

    public static JsonShape OrNull(JsonShape form) =>
        (piece, faults) =>
        {
            if (!piece.IsNull)
                form(piece, faults);
        };

    public static JsonShape List(JsonShape item, int least = 0) =>
        (piece, faults) =>
        {
            if (piece.Kind != JsonKind.List || piece.Items.Count < least)
            {
                faults.Add(piece, least == 0 ? "must be a list" : "must be a list with at least one entry");
                return;
            }
            foreach (var entry in piece.Items)
                item(entry, faults);
        };

    /// <summary>An object with names of its own, all of whose values are alike.</summary>
    public static JsonShape Map(JsonShape value, bool namesMayBeEmpty) =>
        (piece, faults) =>
        {
            if (!IsObject(piece, faults))
                return;
            var seen = new HashSet<string>(StringComparer.Ordinal);
            foreach (var member in piece.Members)
            {
                if (!seen.Add(member.Name))
                    faults.Add(piece, member, "this is given twice");
                if (member.Name.Length == 0 && !namesMayBeEmpty)
                    faults.Add(piece, member, "must be a name that is not empty");
                value(member.Value, faults);
            }
        };

    public static JsonShape Object(params MemberShape[] fields) => Object(_ => fields);

    /// <summary>An object whose members depend on what it says.</summary>
    /// <param name="fieldsOf">Null: it is at fault itself and has been told of.</param>
    /// <param name="check">What its members must be to one another.</param>
    public static JsonShape Object(Func<JsonPiece, IReadOnlyList<MemberShape>> fieldsOf, JsonShape? check = null) =>
        (piece, faults) =>
        {
            if (!IsObject(piece, faults))
                return;
            Check(piece, fieldsOf(piece), faults);
            check?.Invoke(piece, faults);
        };

    public static bool IsObject(JsonPiece piece, FaultList faults)
    {
        if (piece.Kind != JsonKind.Object)
            faults.Add(piece, "must be an object");
        return piece.Kind == JsonKind.Object;
    }

    public static void Check(JsonPiece piece, IReadOnlyList<MemberShape> fields, FaultList faults)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var member in piece.Members)
        {
            if (fields.FirstOrDefault(field => field.Name == member.Name) is not { } field)
            {
                faults.Add(piece, member, $"'{member.Name}' does not belong here");
                continue;
            }
            if (!seen.Add(member.Name))
                faults.Add(piece, member, $"'{member.Name}' is given twice");
            field.JsonShape(member.Value, faults);
        }
        foreach (var field in fields)
            if (field.Required && !seen.Contains(field.Name))
                faults.AddMissing(piece, field.Name, $"'{field.Name}' is missing");
    }

    /// <summary>A later date or time that may not lie before an earlier one.</summary>
    public static JsonShape InOrder(string earlier, string later, bool orEqual) =>
        (piece, faults) =>
        {
            // Dates and times compare as they are written; what has no right form has been told of.
            if (
                piece[earlier] is { Kind: JsonKind.Text, Value: { } from }
                && piece[later] is { Kind: JsonKind.Text, Value: { } to } end
                && (DateOf(from) is not null ? DateOf(to) is not null : TimeOf(from) is not null && TimeOf(to) is not null)
                && string.CompareOrdinal(to, from) is var order
                && (order < 0 || (order == 0 && !orEqual))
            )
                faults.Add(end, orEqual ? $"'{later}' lies before '{earlier}'" : $"'{later}' must come after '{earlier}'");
        };

    public static JsonShape Both(JsonShape one, JsonShape other) =>
        (piece, faults) =>
        {
            one(piece, faults);
            other(piece, faults);
        };

    /// <param name="wanted">What is said of a text that is not good: it “must be …”.</param>
    public static JsonShape OfText(Func<string, bool> good, string wanted) =>
        (piece, faults) =>
        {
            if (piece.Kind != JsonKind.Text || piece.Value is null || !good(piece.Value))
                faults.Add(piece, wanted);
        };

    public static bool IsId(string text) =>
        text.Length is > 0 and <= 64 && text.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '-' or '_' or '.');
}
