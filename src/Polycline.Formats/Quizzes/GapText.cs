using System.Collections.Immutable;
using System.Globalization;
using System.Net;
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

/// <summary>Gaps in what is asked, in square brackets: in its text, never in a formula or in what an element says of itself.</summary>
internal static partial class GapText
{
    /// <summary>What stands in each, in their order.</summary>
    public static IReadOnlyList<string> Find(string html)
    {
        var found = new List<string>();
        Replace(html, gap =>
        {
            found.Add(WebUtility.HtmlDecode(gap).Trim());
            return "";
        });
        return found;
    }

    /// <summary>What is asked, with numbers in its gaps.</summary>
    public static string Numbered(string html)
    {
        var n = 0;
        return Replace(html, _ => $"{++n}");
    }

    /// <summary>What is asked, with what belongs into its numbered gaps.</summary>
    /// <param name="parts">In plain text.</param>
    public static string Filled(string html, IReadOnlyList<string> parts) =>
        Replace(html, gap =>
            int.TryParse(gap, NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n > 0 && n <= parts.Count
                ? Encoded(parts[n - 1])
                : gap
        );

    /// <summary>Plain text in HTML, in the one form in which texts are kept.</summary>
    public static string Encoded(string text) =>
        text.Replace("&", "&amp;", StringComparison.Ordinal)
            .Replace("<", "&lt;", StringComparison.Ordinal)
            .Replace(">", "&gt;", StringComparison.Ordinal)
            .Replace("\u00a0", "&nbsp;", StringComparison.Ordinal);

    // In words only: nothing inside a formula or a tag is taken for a gap.
    private static string Replace(string html, Func<string, string> by) =>
        string.Concat(
            HtmlPieces
                .Of(html)
                .Select(piece =>
                    piece.Kind == HtmlPieceKind.Text ? Gap().Replace(piece.Text, gap => $"[{by(gap.Groups[1].Value)}]") : piece.Text
                )
        );

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
