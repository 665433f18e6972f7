using Polycline.Core.Courses;

namespace Polycline.Core.Wording;

/// <summary>For whom an item is, in words, for the team: students never hear of groups.</summary>
public static class WhomWords
{
    /// <returns>Such as <c>for Field team, not for Late starters</c>; null: for everyone.</returns>
    public static string? Of(ForWhom? whom)
    {
        if (whom is null || (whom.Groups is null && whom.Students is null && whom.Except.IsDefaultOrEmpty))
            return null;
        var parts = new List<string>();
        if (whom.Groups is { } groups)
            parts.Add(groups.IsEmpty ? "for nobody" : $"for {Counting.Joined(groups, "and")}");
        if (whom.Students is { } students)
            parts.Add($"for {Counting.Counted(students.Length, "student", "students")} by name");
        if (!whom.Except.IsDefaultOrEmpty)
            parts.Add($"not for {Counting.Joined(whom.Except, "and")}");
        return string.Join(", ", parts);
    }
}
