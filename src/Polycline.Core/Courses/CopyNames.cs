using System.Text.RegularExpressions;

namespace Polycline.Core.Courses;

/// <summary>What can stand in the name of a student's copy.</summary>
/// <param name="Code">The item's.</param>
/// <param name="Title">The item's.</param>
/// <param name="File">The name of the file it is a copy of, without its ending.</param>
public sealed record CopyNaming(string Code, string Title, string File, string SectionName, string Student);

/// <summary>How each student's copy of a file is named: text in which words in braces stand for what they say.</summary>
public static partial class CopyNames
{
    /// <summary>In characters.</summary>
    public const int Longest = 120;

    /// <summary>How a copy is named where nobody has said.</summary>
    public const string Usual = "{code} {title} – {student}";

    private static readonly string[] Words = ["code", "title", "file", "section", "student"];

    /// <summary>Why text is no such pattern, in words; null if it is one.</summary>
    public static string? Fault(string pattern) =>
        pattern.Trim().Length == 0 ? "Say how the copies are named, such as {code} {title} – {student}."
        : pattern.Length > Longest ? $"This is too long: {Longest} characters at most."
        : Word().Matches(pattern).Select(word => word.Groups[1].Value).FirstOrDefault(word => !Words.Contains(word)) is { } unknown
            ? $"{{{unknown}}} stands for nothing here. Use {{code}}, {{title}}, {{file}}, {{section}} or {{student}}."
        : Word().Replace(pattern, "").AsSpan().IndexOfAny('{', '}') >= 0
            ? "A brace is left over. Each word in braces needs one on both sides, such as {student}."
        : null;

    /// <summary>The name of one copy, without its ending.</summary>
    /// <param name="pattern">Null: the usual one.</param>
    public static string Of(string? pattern, CopyNaming of) =>
        Word()
            .Replace(pattern ?? Usual, word => word.Groups[1].Value switch
                {
                    "code" => of.Code,
                    "title" => of.Title,
                    "file" => of.File,
                    "section" => of.SectionName,
                    _ => of.Student,
                })
            .Trim();

    [GeneratedRegex(@"\{([^{}]*)\}")]
    private static partial Regex Word();
}
