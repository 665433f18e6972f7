using System.Collections.Immutable;
using Polycline.Core.Marking;

namespace Polycline.Formats.Quizzes;

/// <summary>What belongs to what in a question of matching, one pair a line; and what nothing belongs to.</summary>
internal sealed class PairLines
{
    private const int MostPairs = 50;

    private readonly List<(string? Left, string Right)> pairs = [];

    /// <summary>How many lines there are.</summary>
    public int Count => pairs.Count;

    /// <summary>A line <c>left = right</c>, or <c>= right</c> for what matches nothing.</summary>
    /// <returns>What is wrong with it; null: nothing.</returns>
    public string? Add(string left, string right)
    {
        if (left.Length > 0 && pairs.Any(pair => pair.Left == left))
            return "This already has a match.";
        if (pairs.Count == MostPairs)
            return $"There can be up to {MostPairs} pairs.";
        pairs.Add((left.Length == 0 ? null : left, right));
        return null;
    }

    /// <returns>Null: there is nothing to match.</returns>
    public QuestionKey? Key(PaperWords words, bool isAll)
    {
        var lefts = pairs.Where(pair => pair.Left is not null).ToList();
        if (lefts.Count == 0)
            return null;
        var rights = pairs.Select(pair => pair.Right).Distinct().ToList();
        var left = words.Add(lefts.Select(pair => pair.Left!));
        var right = words.Add(rights);
        ImmutableArray<MatchPair> matched = [.. lefts.Select((pair, n) => new MatchPair(left[n], right[rights.IndexOf(pair.Right)]))];
        return new QuestionKey.MatchKey(matched, [.. right.Where(id => matched.All(pair => pair.Right != id))], isAll);
    }
}
