using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking.Papers;

/// <summary>Marking what was put to students as papers. Source: the computation, chapters 13.2 and 13.4.</summary>
public static class PaperMarking
{
    /// <summary>
    /// The questions that an attempt is marked by: those that were put to it, with the key they have by now. A question that takes other
    /// answers by now, or is gone, keeps the key it had.
    /// </summary>
    /// <param name="put">The paper as it was when the attempt began.</param>
    /// <param name="now">As it is now; null: there is none any more.</param>
    public static IReadOnlyList<QuizQuestion> Keys(QuizPaper put, QuizPaper? now)
    {
        var known = (now?.Questions ?? []).ToDictionary(question => question.Question.Id, StringComparer.Ordinal);
        return
        [
            .. put.Questions.Select(question =>
                known.TryGetValue(question.Question.Id, out var anew) && anew.IsAnsweredLike(question) ? anew.Question : question.Question
            ),
        ];
    }

    /// <summary>A paper as the computation has it.</summary>
    public static MarkedItem.MarkedQuiz AsItem(this QuizPaper paper, Ref<Item> item) =>
        new()
        {
            Item = item,
            Questions = [.. paper.Questions.Select(question => question.Question)],
            // Of a pool only so many are put to anybody.
            OutOf = paper.Draws.IsEmpty ? paper.OutOf : paper.Worth,
            Using = paper.Using,
            Limit = paper.Limit,
            Grace = paper.Grace,
        };

    /// <summary>An attempt with its clock.</summary>
    /// <param name="paper">As it is now: its limit and grace hold.</param>
    /// <param name="closes">When the quiz closes for the student; null: never.</param>
    /// <param name="marks">What was given for answers of it that somebody read, in the order of time.</param>
    public static AttemptMarking Of(
        QuizPaper paper,
        QuizAttempt attempt,
        ExtraTime extra,
        Instant? closes,
        params IReadOnlyList<Mark> marks
    ) => new(paper.AsItem(attempt.Item), attempt, extra, closes, marks, DecimalMark.Point);
}
