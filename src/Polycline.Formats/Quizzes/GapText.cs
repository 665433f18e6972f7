using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Polycline.Core.Marking;

namespace Polycline.Formats.Quizzes;

/// <summary>The wording of a question's parts, by the ids they are given.</summary>
internal sealed class PaperWords
{
    private readonly ImmutableDictionary<string, string>.Builder all = ImmutableDictionary.CreateBuilder<string, string>();

    public ImmutableDictionary<string, string> All => all.ToImmutable();

    /// <returns>Their ids, in their order.</returns>
    public ImmutableArray<string> Add(IEnumerable<string> words)
    {
        var ids = ImmutableArray.CreateBuilder<string>();
        foreach (var one in words)
        {
            ids.Add($"a{all.Count + 1}");
            all.Add(ids[^1], one);
        }
        return ids.ToImmutable();
    }
}

/// <summary>Gaps in a text, in square brackets.</summary>
internal static partial class GapText
{
    /// <summary>What stands in each, in their order.</summary>
    public static IReadOnlyList<string> Find(string text) => [.. Gap().Matches(text).Select(gap => gap.Groups[1].Value.Trim())];

    /// <summary>The text with numbers in them.</summary>
    public static string Numbered(string text)
    {
        var n = 0;
        return Gap().Replace(text, _ => $"[{++n}]");
    }

    /// <returns>Null: it is not understood.</returns>
    public static QuestionKey? KeyOf(string gap, PaperWords words)
    {
        if (gap.StartsWith("number:", StringComparison.OrdinalIgnoreCase))
            return NumberText.Read(gap["number:".Length..].Trim());
        var parts = gap.Split(" / ", StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        if (parts.Length == 0)
            return null;
        if (!parts.All(part => part[0] is '+' or '-' && part.Length > 1))
            return parts.Any(part => part[0] is '+') ? null : new QuestionKey.TextKey([.. parts]);
        var ids = words.Add(parts.Select(part => part[1..].Trim()));
        ImmutableArray<string> right = [.. ids.Where((_, n) => parts[n][0] == '+')];
        return right.IsEmpty || parts.Select(part => part[1..].Trim()).Distinct().Count() < parts.Length
            ? null
            : new QuestionKey.OneKey(ids, right);
    }

    [GeneratedRegex(@"\[([^\[\]]{1,500})\]", RegexOptions.CultureInvariant)]
    private static partial Regex Gap();
}
