using System.Collections.Frozen;

namespace Polycline.Core.Wording;

/// <summary>The words for the members of an enumeration: <c>ForMarks</c> is <c>for-marks</c>.</summary>
public static class EnumNames
{
    /// <exception cref="ArgumentException">The word names no member.</exception>
    public static T Parse<T>(string word)
        where T : struct, Enum =>
        NamesOf<T>.ByWord.TryGetValue(word, out var member)
            ? member
            : throw new ArgumentException($"'{word}' is no {typeof(T).Name}.", nameof(word));

    public static string Of<T>(T member)
        where T : struct, Enum => NamesOf<T>.ByMember[member];

    private static class NamesOf<T>
        where T : struct, Enum
    {
        public static FrozenDictionary<T, string> ByMember { get; } = Enum.GetValues<T>().ToFrozenDictionary(member => member, WordOf);

        public static FrozenDictionary<string, T> ByWord { get; } =
            ByMember.ToFrozenDictionary(pair => pair.Value, pair => pair.Key, StringComparer.Ordinal);

        private static string WordOf(T member) =>
            string.Concat(
                member
                    .ToString()
                    .Select(
                        (letter, place) =>
                            char.IsUpper(letter) && place > 0 ? $"-{char.ToLowerInvariant(letter)}" : $"{char.ToLowerInvariant(letter)}"
                    )
            );
    }
}
