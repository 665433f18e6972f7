namespace Polycline.Core.Courses;

/// <summary>A level of a course, from the whole to the part.</summary>
public enum Level
{
    Unit,
    Lesson,
    Item,
}

/// <summary>What one level of a course is called.</summary>
/// <param name="One">As in "1 week".</param>
/// <param name="Many">As in "2 weeks".</param>
public sealed record LevelName(string One, string Many)
{
    private static readonly string[] SpokenWithY = ["uni", "use", "eu", "one"];
    private static readonly string[] Silent = ["hour", "hono", "heir"];

    /// <summary>With its article: <c>a week</c>, <c>an item</c>.</summary>
    public string A =>
        $"{(Silent.Any(Starts) || ("aeiou".Contains(char.ToLowerInvariant(One[0])) && !SpokenWithY.Any(Starts)) ? "an" : "a")} {One}";

    private bool Starts(string with) => One.StartsWith(with, StringComparison.OrdinalIgnoreCase);
}

/// <summary>What a team calls the three levels of its course. The computation does not read them; sentences do.</summary>
public sealed record LevelNames(LevelName Unit, LevelName Lesson, LevelName Item)
{
    /// <summary>At most this many letters.</summary>
    public const int Longest = 24;

    /// <summary>Where a team has said nothing.</summary>
    public static LevelNames Plain { get; } = new(new("unit", "units"), new("lesson", "lessons"), new("item", "items"));

    public LevelName Of(Level level) =>
        level switch
        {
            Level.Unit => Unit,
            Level.Lesson => Lesson,
            _ => Item,
        };
}
