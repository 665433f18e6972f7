namespace Polycline.Web.Calendar;

/// <summary>The letters by which the sections of a term are told apart on the drawings.</summary>
public static class SectionLetters
{
    /// <summary>The first that fewest sections of the term have.</summary>
    public static string Free(IReadOnlyCollection<string> taken) =>
        Enumerable.Range('A', 26).Select(letter => $"{(char)letter}").MinBy(letter => taken.Count(other => other == letter))!;
}
