namespace Polycline.Core;

/// <summary>The words for the members of an enumeration: <c>ForMarks</c> is <c>for-marks</c>.</summary>
public static class Words
{
    /// <exception cref="ArgumentException">The word names no member.</exception>
    public static T Parse<T>(string word)
        where T : struct, Enum => Enum.Parse<T>(word.Replace("-", "", StringComparison.Ordinal), ignoreCase: true);

    public static string Of<T>(T member)
        where T : struct, Enum => string.Concat(member.ToString().Select((letter, place) =>
            char.IsUpper(letter) && place > 0 ? $"-{char.ToLowerInvariant(letter)}" : $"{char.ToLowerInvariant(letter)}"));
}
