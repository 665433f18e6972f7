using System.Security.Cryptography;
using System.Text;

namespace Polycline.Core.Marking.Papers;

/// <summary>A question where an attempt has it.</summary>
/// <param name="Page">From 1.</param>
public sealed record PlacedQuestion(PaperQuestion Asked, int Page);

/// <summary>What of a quiz is put to one attempt, and in which order: by lot, and the same whenever it is asked.</summary>
public static class QuizDraw
{
    /// <summary>The questions of an attempt in the order in which they are put.</summary>
    /// <param name="lot">What the attempt alone has: another gives another draw.</param>
    public static IReadOnlyList<PlacedQuestion> PutTo(this QuizPaper paper, string lot)
    {
        // One that turned out faulty before the attempt began is not put to it.
        var sound = paper.Questions.Where(question => question.Question.Voided != Voided.Out).ToList();
        var drawn = sound
            .Where(question => question.Pool > 0)
            .GroupBy(question => question.Pool)
            .SelectMany(pool =>
                pool.OrderBy(question => Lot($"{lot} draw {question.Question.Id}"), StringComparer.Ordinal).Take(paper.Draws[pool.Key - 1])
            )
            .ToHashSet();
        var page = 1;
        var placed = new List<PlacedQuestion>();
        foreach (var question in sound)
        {
            // A page that nothing is drawn for is none.
            if (question.BeginsPage && placed.Count > 0 && placed[^1].Page == page)
                page++;
            if (question.Pool == 0 || drawn.Contains(question))
                placed.Add(new(question, page));
        }
        return paper.MixesQuestions
            ? [.. placed.OrderBy(one => one.Page).ThenBy(one => Lot($"{lot} {one.Asked.Question.Id}"), StringComparer.Ordinal)]
            : placed;
    }

    /// <summary>Things in an order that is the lot's own.</summary>
    public static IEnumerable<string> Mixed(IEnumerable<string> ids, string lot) =>
        ids.OrderBy(id => Lot($"{lot} {id}"), StringComparer.Ordinal);

    private static string Lot(string words) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(words)));
}
