using System.Globalization;
using System.Numerics;
using System.Text;
using System.Text.Json;
using Polycline.Core.Json;
using Polycline.Core.Merging.Trees;

namespace Polycline.Core.MergeFiles;

/// <summary>Any JSON value as one that can be compared, however deep it is.</summary>
internal static class JsonValues
{
    public static MergeValue Of(JsonPiece piece) => new(Text(piece, isCanonical: true), Text(piece, isCanonical: false));

    /// <summary>A member given twice somewhere in a value, or a text that is no Unicode.</summary>
    public static void Check(JsonPiece piece, FaultList faults)
    {
        var open = new Stack<JsonPiece>([piece]);
        while (open.TryPop(out var one))
        {
            if (one.Kind == JsonKind.Text && one.Value is null)
                faults.Add(one, "must be text");
            var seen = new HashSet<string>(StringComparer.Ordinal);
            foreach (var member in one.Members)
            {
                if (!seen.Add(member.Name))
                    faults.Add(one, member, $"'{member.Name}' is given twice");
                open.Push(member.Value);
            }
            foreach (var item in one.Items)
                open.Push(item);
        }
    }

    private static string Text(JsonPiece whole, bool isCanonical)
    {
        var text = new StringBuilder();
        // Pieces still to be written, and what stands between them.
        var open = new Stack<(JsonPiece? Piece, string Between)>([(whole, "")]);
        while (open.TryPop(out var next))
        {
            text.Append(next.Between);
            switch (next.Piece)
            {
                case null:
                    break;
                case { Kind: JsonKind.Object } piece:
                    open.Push((null, "}"));
                    var members = isCanonical ? [.. piece.Members.OrderBy(member => member.Name, StringComparer.Ordinal)] : piece.Members;
                    for (var n = members.Count - 1; n >= 0; n--)
                        open.Push((members[n].Value, $"{(n == 0 ? "" : ",")}{JsonSerializer.Serialize(members[n].Name)}:"));
                    text.Append('{');
                    break;
                case { Kind: JsonKind.List } piece:
                    open.Push((null, "]"));
                    for (var n = piece.Items.Count - 1; n >= 0; n--)
                        open.Push((piece.Items[n], n == 0 ? "" : ","));
                    text.Append('[');
                    break;
                case { Kind: JsonKind.Text } piece:
                    text.Append(JsonSerializer.Serialize(piece.Value));
                    break;
                case { Kind: JsonKind.Number } piece:
                    text.Append(isCanonical ? Number(piece.Value!) : piece.Value);
                    break;
                case { Kind: JsonKind.True }:
                    text.Append("true");
                    break;
                case { Kind: JsonKind.False }:
                    text.Append("false");
                    break;
                default:
                    text.Append("null");
                    break;
            }
        }
        return text.ToString();
    }

    // The digits without zeros at either end, and the power of ten of the last.
    private static string Number(string written)
    {
        var (mantissa, power) =
            written.IndexOfAny(['e', 'E']) is var at && at < 0
                ? (written, BigInteger.Zero)
                : (written[..at], BigInteger.Parse(written[(at + 1)..], NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture));
        var isNegative = mantissa[0] == '-';
        var point = mantissa.IndexOf('.', StringComparison.Ordinal);
        if (point >= 0)
            power -= mantissa.Length - point - 1;
        var digits = mantissa.TrimStart('-').Replace(".", "", StringComparison.Ordinal).TrimStart('0');
        var significant = digits.TrimEnd('0');
        power += digits.Length - significant.Length;
        return significant.Length == 0 ? "0" : $"{(isNegative ? "-" : "")}{significant}e{power.ToString(CultureInfo.InvariantCulture)}";
    }
}
