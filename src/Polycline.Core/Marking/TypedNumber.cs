using System.Globalization;
using System.Numerics;
using Polycline.Core.Unicode;

namespace Polycline.Core.Marking;

/// <summary>What a school writes between the whole number and its decimals.</summary>
public enum DecimalMark
{
    Point,
    Comma,
}

/// <summary>A number as a student typed it. Source: the computation, chapter 13.1, <i>Number</i>.</summary>
/// <param name="Rest">What stands after it, tidy: a unit, or nothing.</param>
/// <param name="FewestFigures">How many significant figures it has at least …</param>
/// <param name="MostFigures">… and at most: the zeros at the end of <c>1300</c> may count or not.</param>
public sealed record TypedNumber(Fraction Value, string Rest, int FewestFigures, int MostFigures)
{
    private const char Minus = '\u2212';

    /// <summary>Reads an answer.</summary>
    /// <returns>Null: it is not a number.</returns>
    public static TypedNumber? Read(string answer, DecimalMark mark)
    {
        var text = WithPlainMinus(Spaces.Tidy(answer));
        var (own, other) = mark == DecimalMark.Point ? ('.', ',') : (',', '.');
        var start = text.Length > 0 && text[0] is '+' or '-' ? 1 : 0;
        var (end, isPartedByOther) = WholeNumber(text, start, other);
        var whole = text[start..end];
        var hasMark = end < text.Length && (text[end] == own || (text[end] == other && !isPartedByOther));
        var decimals = hasMark ? text[(end + 1)..DigitsEnd(text, end + 1)] : "";
        if (whole.Length == 0 && decimals.Length == 0)
            return null;
        var rest = text[(hasMark ? end + 1 + decimals.Length : end)..].Trim(' ');
        if (rest.Length > 0 && (char.IsAsciiDigit(rest[0]) || rest[0] is '.' or ','))
            return null;
        var digits = string.Concat(whole.Where(char.IsAsciiDigit)) + decimals;
        var value = new Fraction(BigInteger.Parse(digits, CultureInfo.InvariantCulture), BigInteger.Pow(10, decimals.Length));
        var (fewest, most) = Figures(digits, decimals.Length, hasMark);
        return new(start == 1 && text[0] == '-' ? -value : value, rest, fewest, most);
    }

    /// <summary>A minus sign proper is as good as a hyphen.</summary>
    public static string WithPlainMinus(string text) => text.Replace(Minus, '-');

    // Groups of three digits, parted by blanks or by the mark that parts no decimals here; else digits alone.
    private static (int End, bool IsPartedByOther) WholeNumber(string text, int start, char other)
    {
        var first = DigitsEnd(text, start);
        if (first - start is < 1 or > 3)
            return (first, false);
        foreach (var parting in text[start] == '0' ? " " : $" {other}")
        {
            var end = first;
            while (end < text.Length && text[end] == parting && DigitsEnd(text, end + 1) == end + 4)
                end += 4;
            if (end > first)
                return (end, parting == other);
        }
        return (first, false);
    }

    private static int DigitsEnd(string text, int from)
    {
        while (from < text.Length && char.IsAsciiDigit(text[from]))
            from++;
        return from;
    }

    private static (int Fewest, int Most) Figures(string digits, int decimals, bool hasMark)
    {
        var counted = digits.TrimStart('0');
        if (counted.Length == 0)
            return (Math.Max(1, decimals), Math.Max(1, decimals));
        return (hasMark ? counted.Length : counted.TrimEnd('0').Length, counted.Length);
    }
}
