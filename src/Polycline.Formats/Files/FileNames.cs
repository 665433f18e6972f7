using System.Globalization;
using System.Text;

namespace Polycline.Formats.Files;

/// <summary>Which names a file can have, so that every computer can save it and nobody mistakes it for something else.</summary>
public static class FileNames
{
    /// <summary>In characters.</summary>
    public const int Longest = 200;

    private static readonly string[] Reserved = ["CON", "PRN", "AUX", "NUL", "COM1", "COM2", "COM3", "COM4", "LPT1", "LPT2", "LPT3"];

    /// <summary>What is wrong with a name, in words; null: nothing.</summary>
    public static string? Fault(string name) =>
        name.Trim().Length == 0 ? "Give the file a name."
        : name.Length > Longest ? $"This name is too long: {Longest} characters at most."
        : name.Any(one => one is '/' or '\\' or ':' or '*' or '?' or '"' or '<' or '>' or '|')
            ? "A file name can’t contain / \\ : * ? \" < > or |. Remove them."
        : name.EnumerateRunes().Any(IsUnseen) ? "This name contains invisible characters. Type it again."
        : name[0] is '.' or ' ' || name[^1] is '.' or ' ' ? "A file name can’t begin or end with a dot or a space."
        : Reserved.Contains(name.Split('.')[0].Trim(), StringComparer.OrdinalIgnoreCase)
            ? "Some computers can’t save a file with this name. Choose another."
        : null;

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
