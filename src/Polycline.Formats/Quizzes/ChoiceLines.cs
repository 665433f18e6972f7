using System.Collections.Immutable;
using Polycline.Core.Marking;

namespace Polycline.Formats.Quizzes;

/// <summary>The answers of a question to choose from, one a line, with what is said to whoever chooses one.</summary>
internal sealed class ChoiceLines
{
    private const int MostAnswers = 50;

    private readonly List<(string Words, bool IsRight, string? Reply)> options = [];

    /// <summary>How many there are.</summary>
    public int Count => options.Count;

    /// <summary>A line <c>+ …</c> or <c>- …</c>.</summary>
    /// <returns>What is wrong with it; null: nothing.</returns>
    public string? Add(string words, bool isRight)
    {
        if (options.Any(option => option.Words == words))
            return "This answer is here twice.";
        if (options.Count == MostAnswers || words.Length > QuestionBlock.LongestWords)
            return $"There can be up to {MostAnswers} answers of up to {QuestionBlock.LongestWords:N0} characters.";
        options.Add((words, isRight, null));
        return null;
    }

    /// <summary>A line <c>&gt; …</c> below an answer.</summary>
    /// <returns>What is wrong with it; null: nothing.</returns>
    public string? Reply(string words)
    {
        if (words.Length is 0 or > QuestionBlock.LongestWords)
            return $"Write what is said to whoever chooses this, up to {QuestionBlock.LongestWords:N0} characters.";
        if (options[^1].Reply is not null)
            return "Something is said of this answer already.";
        options[^1] = options[^1] with { Reply = words };
        return null;
    }

    /// <returns>Null: none is right, though one must be.</returns>
    public QuestionKey? Key(PaperWords words, bool isAnyNumber, bool isAll, out ImmutableDictionary<string, string> replies)
    {
        var ids = words.Add(options.Select(option => option.Words));
        ImmutableArray<string> right = [.. ids.Where((_, n) => options[n].IsRight)];
        replies = ids.Zip(options)
            .Where(pair => pair.Second.Reply is not null)
            .ToImmutableDictionary(pair => pair.First, pair => pair.Second.Reply!);
        return isAnyNumber || right.Length > 1 ? new QuestionKey.ManyKey(ids, right, isAll)
            : right.Length == 1 ? new QuestionKey.OneKey(ids, right)
            : null;
    }
}
