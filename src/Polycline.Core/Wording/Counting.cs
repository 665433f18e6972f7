using System.Globalization;

namespace Polycline.Core.Wording;

/// <summary>Numbers in sentences.</summary>
public static class Counting
{
    /// <summary><c>1 class</c>, <c>2 classes</c>.</summary>
    public static string Counted(int count, string one, string many) =>
        $"{count.ToString(CultureInfo.InvariantCulture)} {(count == 1 ? one : many)}";

    /// <summary><c>1st</c>, <c>2nd</c>, <c>11th</c>.</summary>
    public static string Nth(int n) =>
        n.ToString(CultureInfo.InvariantCulture)
        + (
            (n % 100) is >= 11 and <= 13
                ? "th"
                : (n % 10) switch
                {
                    1 => "st",
                    2 => "nd",
                    3 => "rd",
                    _ => "th",
                }
        );

    /// <summary>With a capital letter.</summary>
    public static string Capital(this string words) => words.Length == 0 ? words : char.ToUpperInvariant(words[0]) + words[1..];

    /// <summary><c>a, b and c</c>.</summary>
    public static string Joined(IReadOnlyList<string> parts, string last) =>
        parts.Count < 2 ? string.Concat(parts) : $"{string.Join(", ", parts.Take(parts.Count - 1))} {last} {parts[^1]}";
}
