using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;

namespace Polycline.Formats.Quizzes;

/// <summary>What stands between questions: where a page begins, and from how many of them an attempt gets some.</summary>
internal sealed partial class QuizParts
{
    private sealed record Pool(int At, int Draw, int Size)
    {
        public List<(int At, PaperQuestion? Question)> Questions { get; } = [];
    }

    private readonly List<Pool> pools = [];
    private readonly Dictionary<int, string> faults = [];
    private readonly List<int> pages = [];
    private bool beginsPage;

    public ImmutableArray<int> Draws => [.. pools.Select(pool => pool.Draw)];

    private Pool? Current => pools.LastOrDefault() is { } pool && pool.Questions.Count < pool.Size ? pool : null;

    /// <summary>Whether a line that stands by itself is one of these; then it is kept.</summary>
    public bool Take(int at, string line)
    {
        var text = line.Trim();
        if (text.Equals("page", StringComparison.OrdinalIgnoreCase))
        {
            pages.Add(at);
            if (Current is not null)
                faults[at] = "A page can’t begin among questions from which some are drawn.";
            beginsPage = true;
            return true;
        }
        if (Draw().Match(text) is not { Success: true } match)
            return false;
        var (draw, size) = (Number(match.Groups[1].Value), Number(match.Groups[2].Value));
        if (Current is { } before)
            faults[at] =
                $"The draw above takes {before.Size} questions, and only "
                + $"{Counting.Counted(before.Questions.Count, "comes", "come")} before this one.";
        else if (draw < 1 || size > QuizPaper.MostQuestions || draw > size)
            faults[at] = $"Write it like this: 4 of the next 9. The second number can be up to {QuizPaper.MostQuestions}.";
        pools.Add(new(at, draw, size));
        return true;
    }

    /// <param name="question">Null: it is not understood.</param>
    /// <returns>The question where it belongs.</returns>
    public PaperQuestion? Place(int at, PaperQuestion? question)
    {
        var pool = Current;
        if (pool is not null)
        {
            if (question?.Question.IsExtra == true)
                faults[at] = "A question that is drawn can’t be a bonus.";
            else if (question is { Question.Voided: not Voided.No })
                faults[at] = "A question that is drawn can’t be marked as faulty. Correct its answer, or let every answer be right.";
            else if (
                pool.Questions.FirstOrDefault(one => one.Question is not null).Question is { } first
                && question is not null
                && question.Question.Points != first.Question.Points
            )
                faults[at] = "The questions in a draw must all be worth the same, so that everybody can get as many points.";
            pool.Questions.Add((at, question));
        }
        var placed = question is null ? null : question with { Pool = pool is null ? 0 : pools.Count, BeginsPage = beginsPage };
        beginsPage = false;
        return placed;
    }

    /// <summary>What is understood of these lines, and of the first lines of questions that do not fit them.</summary>
    public IEnumerable<(int At, QuizLine Line)> Lines(string[] lines)
    {
        foreach (var pool in pools.Where(pool => pool.Questions.Count < pool.Size && !faults.ContainsKey(pool.At)))
            faults[pool.At] =
                pool.Questions.Count == 0
                    ? "No question follows."
                    : $"Only {Counting.Counted(pool.Questions.Count, "question follows", "questions follow")}.";
        foreach (var at in pages.Where(at => !faults.ContainsKey(at)))
            yield return (at, new(lines[at], "a new page", false));
        foreach (var pool in pools.Where(pool => !faults.ContainsKey(pool.At)))
            yield return (
                pool.At,
                new(lines[pool.At], $"each attempt gets {pool.Draw} of these {pool.Size} questions, drawn by lot", false)
            );
        foreach (var (at, words) in faults)
            yield return (at, new(lines[at], words, true));
    }

    /// <summary>What is written before a question.</summary>
    /// <param name="poolBefore">The pool of the question before it; 0: none.</param>
    public static IEnumerable<string> Before(PaperQuestion question, int poolBefore, QuizPaper paper)
    {
        if (question.BeginsPage)
            yield return "page";
        if (question.Pool > 0 && question.Pool != poolBefore)
            yield return $"{paper.Draws[question.Pool - 1]} of the next {paper.Questions.Count(one => one.Pool == question.Pool)}";
    }

    private static int Number(string digits) => int.Parse(digits, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(\d{1,3}) of the next (\d{1,3})$", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex Draw();
}
