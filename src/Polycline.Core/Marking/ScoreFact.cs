using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>A fact that somebody has a score: what conditions are decided on. Source: the computation, chapter 13.4.</summary>
/// <param name="Percent">Cut down, not rounded, to four decimals.</param>
/// <param name="Attempt">1 for a task, and for the mean of several attempts.</param>
public sealed record ScoreFact(Ref<Student> Student, Ref<Item> Item, Instant At, decimal Percent, int Attempt)
{
    private const int Decimals = 4;

    /// <summary>The percentage that a fact gives for a share: cut to four decimals, not rounded.</summary>
    public static decimal PercentOf(Fraction share) => (share * 100).Cut(Decimals);

    /// <summary>
    /// All that there are. A score put right or a key corrected leaves the earlier fact where it was and adds one; an attempt of which a
    /// part waits gives none.
    /// </summary>
    /// <returns>By moment, then in the order of students, items and attempts.</returns>
    public static IReadOnlyList<ScoreFact> Of(MarkedCourse course)
    {
        var facts = new List<ScoreFact>();
        foreach (var piece in course.Pieces)
            facts.AddRange(Of(piece, course.Now));
        // Sorting keeps the order of those at one moment.
        return [.. facts.OrderBy(fact => fact.At)];
    }

    /// <summary>Those of one piece.</summary>
    public static IEnumerable<ScoreFact> Of(Piece piece, Instant now) =>
        piece switch
        {
            TaskPiece task => Changes(piece, task.Moments, now, 1, at => task.Score(at)?.Share),
            QuizPiece { Keys.Quiz.Using: AttemptsUsed.Mean } quiz => Changes(
                piece,
                quiz.Attempts.SelectMany(attempt => attempt.Moments).Concat(quiz.Keys.Moments),
                now,
                1,
                at => quiz.Score(at)?.Share
            ),
            QuizPiece quiz => quiz.Attempts.SelectMany(attempt =>
                Changes(piece, attempt.Moments.Concat(quiz.Keys.Moments), now, attempt.Attempt.Number, at =>
                    attempt.Attempt.Began <= at && attempt.IsFinished(at) ? attempt.At(at, quiz.Keys.At(at)).Share : null
                )
            ),
            _ => [],
        };

    private static IEnumerable<ScoreFact> Changes(
        Piece piece,
        IEnumerable<Instant> moments,
        Instant now,
        int attempt,
        Func<Instant, Fraction?> share
    )
    {
        Fraction? last = null;
        foreach (var at in moments.Where(moment => moment <= now).Distinct().Order())
        {
            if (share(at) is not { } stands || stands == last)
                continue;
            last = stands;
            yield return new(piece.Student, piece.Item.Item, at, PercentOf(stands), attempt);
        }
    }
}
