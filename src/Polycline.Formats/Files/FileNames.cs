using System.Globalization;
using System.Text;

namespace Polycline.Formats.Files;

/// <summary>Which names a file can have, so that every computer can save it and nobody mistakes it for something else.</summary>
public static class FileNames
{
    /// <summary>In characters.</summary>
    public const int Longest = 200;

    private const int LongestEnding = 20,
        LongestNumber = 6;

    private static readonly string[] Reserved = ["CON", "PRN", "AUX", "NUL", "COM1", "COM2", "COM3", "COM4", "LPT1", "LPT2", "LPT3"];

    /// <summary>What is wrong with a name, in words; null: nothing.</summary>
    public static string? Fault(string name) =>
        name.Trim().Length == 0 ? "Give the file a name."
        : name.Length > Longest ? $"This name is too long: {Longest} characters at most."
        : name.Any(one => IsBarred(one)) ? "A file name can’t contain / \\ : * ? \" < > or |. Remove them."
        : name.EnumerateRunes().Any(IsUnseen) ? "This name contains invisible characters. Type it again."
        : name[0] is '.' or ' ' || name[^1] is '.' or ' ' ? "A file name can’t begin or end with a dot or a space."
        : Reserved.Contains(name.Split('.')[0].Trim(), StringComparer.OrdinalIgnoreCase)
            ? "Some computers can’t save a file with this name. Choose another."
        : null;

    /// <summary>The nearest name that is still free: “chart (2).pdf” if “chart.pdf” is taken.</summary>
    public static string Free(string name, IReadOnlyCollection<string> taken)
    {
        var (stem, ending) = Parts(name);
        stem = stem[..Math.Min(stem.Length, Longest - ending.Length - LongestNumber)].TrimEnd(' ', '.');
        for (var n = 2; taken.Contains(name, StringComparer.OrdinalIgnoreCase); n++)
            name = $"{stem} ({n}){ending}";
        return name;
    }

    /// <summary>A name without its ending.</summary>
    public static string Stem(string name) => Parts(name).Stem;

    /// <summary>The ending of a name in small letters, with its dot; empty: it has none.</summary>
    public static string EndingOf(string name) => Parts(name).Ending.ToLowerInvariant();

    /// <summary>A name that every computer can save, from any words and the ending of another name.</summary>
    public static string Made(string words, string like)
    {
        var ending = Parts(like).Ending;
        var stem = string.Concat(
            words.EnumerateRunes().Where(rune => !IsUnseen(rune)).Select(rune => IsBarred(rune.Value) ? "-" : rune.ToString())
        );
        stem = stem[..Math.Min(stem.Length, Longest - ending.Length - LongestNumber)].Trim(' ', '.');
        var name = stem + ending;
        return stem.Length > 0 && Fault(name) is null ? name : $"copy{ending}";
    }

    private static (string Stem, string Ending) Parts(string name)
    {
        var ending = Path.GetExtension(name) is { Length: <= LongestEnding } usual ? usual : "";
        return (name[..^ending.Length], ending);
    }

    private static bool IsBarred(int sign) => sign is '/' or '\\' or ':' or '*' or '?' or '"' or '<' or '>' or '|';

    // Above all those that turn the direction of writing, and make “fdp.exe” read like “exe.pdf”.
    private static bool IsUnseen(Rune rune) =>
        Rune.GetUnicodeCategory(rune)
            is UnicodeCategory.Control
                or UnicodeCategory.Format
                or UnicodeCategory.LineSeparator
                or UnicodeCategory.ParagraphSeparator
                or UnicodeCategory.Surrogate
                or UnicodeCategory.PrivateUse;
}
