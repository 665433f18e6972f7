namespace Polycline.Core.Courses;

/// <summary>What one level of a course is called.</summary>
/// <param name="One">As in "1 week".</param>
/// <param name="Many">As in "2 weeks".</param>
public sealed record LevelName(string One, string Many)
{
    private static readonly string[] SpokenWithY = ["uni", "use", "eu", "one"];
    private static readonly string[] Silent = ["hour", "hono", "heir"];

    /// <summary>With its article: <c>a week</c>, <c>an item</c>.</summary>
    public string A => $"{(Silent.Any(Starts) || ("aeiou".Contains(char.ToLowerInvariant(One[0])) && !SpokenWithY.Any(Starts)) ? "an" : "a")} {One}";

    /// <summary><c>1 week</c>, <c>2 weeks</c>.</summary>
    public string Counted(int count) => Wording.Counting.Counted(count, One, Many);

    private bool Starts(string with) => One.StartsWith(with, StringComparison.OrdinalIgnoreCase);
}

/// <summary>What a team calls the three levels of its course. The computation does not read them; sentences do.</summary>
public sealed record LevelNames(LevelName Unit, LevelName Lesson, LevelName Item)
{
    /// <summary>At most this many letters.</summary>
    public const int Longest = 24;

    // What other things are called on every screen: a level of the same name could not be told from them.
    private static readonly string[] Taken = ["class", "classes", "section", "sections", "course", "courses", "edition", "editions", "term", "terms", "student", "students"];

    /// <summary>Where a team has said nothing.</summary>
    public static LevelNames Plain { get; } = new(new("unit", "units"), new("lesson", "lessons"), new("item", "items"));

    /// <summary>The name of the level of that table: <c>unit</c>, <c>lesson</c>, else item.</summary>
    public LevelName Of(string table) => table switch { "unit" => Unit, "lesson" => Lesson, _ => Item };

    /// <summary>What makes them no good as words of sentences: the word as <c>unit.one</c>, and what is wrong with it.</summary>
    public IEnumerable<(string At, string Message)> Faults()
    {
        var words = new[] { ("unit", Unit), ("lesson", Lesson), ("item", Item) }
            .SelectMany(level => new[] { (At: $"{level.Item1}.one", Level: level.Item1, Word: level.Item2.One), (At: $"{level.Item1}.many", Level: level.Item1, Word: level.Item2.Many) }).ToList();
        foreach (var (at, level, word) in words)
        {
            if (word.Length is 0 or > Longest || !char.IsLetter(word[0]) || !char.IsLetterOrDigit(word[^1]) || !word.All(letter => char.IsLetterOrDigit(letter) || letter is ' ' or '-' or '’' or '\''))
                yield return (at, $"Give a word of 1 to {Longest} letters, such as “week”.");
            else if (Taken.Contains(word, StringComparer.OrdinalIgnoreCase))
                yield return (at, $"“{word}” means something else on these screens. Choose another word.");
            else if (words.Any(other => other.Level != level && string.Equals(other.Word, word, StringComparison.OrdinalIgnoreCase)))
                yield return (at, $"Two levels are called “{word}”. Give each a word of its own.");
        }
    }
}
