using System.Globalization;

namespace Polycline.Core.Json;

/// <summary>The forms of amounts (points, percents), and of objects that one word decides. Source: the computation, chapter 13.</summary>
internal static class Amounts
{
    public const decimal MostValue = 1_000_000_000;
    private const decimal MostAmount = 10_000;

    public static readonly JsonShape Amount = Decimal(0, MostAmount, 2);
    public static readonly JsonShape Worth = Decimal(0.01m, MostAmount, 2);
    public static readonly JsonShape Percent = Decimal(0, 100, 2);
    public static readonly JsonShape Count = Forms.Whole(0);
    public static readonly JsonShape FromOne = Forms.Whole(1);

    /// <summary>A number as it is written, of the form that <see cref="Decimal"/> lets through; null: of another.</summary>
    public static decimal? AmountOf(JsonPiece piece) =>
        piece.Kind == JsonKind.Number
        && decimal.TryParse(
            piece.Value,
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var amount
        )
            ? amount
            : null;

    // Written without exponent.
    public static JsonShape Decimal(decimal from, decimal to, int decimals) =>
        (piece, faults) =>
        {
            var point = piece.Value?.IndexOf('.', StringComparison.Ordinal) ?? -1;
            if (
                AmountOf(piece) is not { } amount
                || amount < from
                || amount > to
                || (point >= 0 && piece.Value!.Length - point - 1 > decimals)
            )
                faults.Add(
                    piece,
                    FormattableString.Invariant($"must be a number from {from} to {to} with at most {decimals} decimals, without exponent")
                );
        };

    /// <summary>An object whose members depend on one word of it. Where that is unknown or missing, the rest is not looked at.</summary>
    public static JsonShape ByWord(string member, Func<string?, MemberShape[]?> fieldsOf, string words) =>
        (piece, faults) =>
        {
            if (!Forms.IsObject(piece, faults))
                return;
            if (piece[member] is not { } word)
                faults.AddMissing(piece, member, $"'{member}' is missing");
            else if (word.Kind != JsonKind.Text || fieldsOf(word.Value) is not { } fields)
                faults.Add(word, $"must be one of: {words}");
            else
                Forms.Check(piece, fields, faults);
        };
}
