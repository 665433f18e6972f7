using Polycline.Core.Courses;

namespace Polycline.Core.Wording;

/// <summary>What a course calls its levels, as words of sentences.</summary>
public static class LevelWords
{
    // What other things are called on every screen: a level of the same name could not be told from them.
    private static readonly string[] Taken =
    [
        "class",
        "classes",
        "section",
        "sections",
        "course",
        "courses",
        "edition",
        "editions",
        "term",
        "terms",
        "student",
        "students",
    ];

    /// <summary>So many of what lessons are measured in: <c>1 class</c>, <c>50 minutes</c>.</summary>
    public static string Counted(this Basis basis, int amount) =>
        basis == Basis.Meetings ? Counting.Counted(amount, "class", "classes") : Counting.Counted(amount, "minute", "minutes");

    /// <summary><c>1 week</c>, <c>2 weeks</c>.</summary>
    public static string Counted(this LevelName name, int count) => Counting.Counted(count, name.One, name.Many);

    /// <summary>What makes them no good as words of sentences: the word as <c>unit.one</c>, and what is wrong with it.</summary>
    public static IEnumerable<(string At, string Message)> Faults(this LevelNames names)
    {
        var words = new[] { ("unit", names.Unit), ("lesson", names.Lesson), ("item", names.Item) }
            .SelectMany(level =>
                new[]
                {
                    (At: $"{level.Item1}.one", Level: level.Item1, Word: level.Item2.One),
                    (At: $"{level.Item1}.many", Level: level.Item1, Word: level.Item2.Many),
                }
            )
            .ToList();
        foreach (var (at, level, word) in words)
        {
            if (
                word.Length is 0 or > LevelNames.Longest
                || !char.IsLetter(word[0])
                || !char.IsLetterOrDigit(word[^1])
                || !word.All(letter => char.IsLetterOrDigit(letter) || letter is ' ' or '-' or '’' or '\'')
            )
                yield return (at, $"Give a word of 1 to {LevelNames.Longest} letters, such as “week”.");
            else if (Taken.Contains(word, StringComparer.OrdinalIgnoreCase))
                yield return (at, $"“{word}” means something else on these screens. Choose another word.");
            else if (words.Any(other => other.Level != level && string.Equals(other.Word, word, StringComparison.OrdinalIgnoreCase)))
                yield return (at, $"Two levels are called “{word}”. Give each a word of its own.");
        }
    }
}
