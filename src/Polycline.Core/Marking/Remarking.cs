using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <param name="Before">Points so far.</param>
public sealed record RemarkedAttempt(int Number, Fraction Before, Fraction After);

/// <param name="Before">The score that stood; null: none.</param>
public sealed record RemarkedStudent(Ref<Student> Student, IReadOnlyList<RemarkedAttempt> Attempts, Fraction? Before, Fraction? After)
{
    /// <summary>In percentage points; null: there was or is no score.</summary>
    public Fraction? By => (After - Before) * 100;
}

/// <summary>What a corrected key does to whom. Source: the computation, chapter 13.4.</summary>
/// <param name="Same">How many with a finished attempt neither rise nor fall.</param>
public sealed record Remarking(Ref<Item> Item, Instant At, int Rises, int Falls, int Same, IReadOnlyList<RemarkedStudent> Changes)
{
    /// <summary>All corrections up to now, by moment and then in their order.</summary>
    public static IReadOnlyList<Remarking> Of(MarkedCourse course)
    {
        var next = course.Keys.ToDictionary(pair => pair.Key, pair => new Queue<Remarking>(Of(course, pair.Value)));
        return
        [
            .. course
                .Book.Corrections.Where(correction => correction.At <= course.Now)
                .OrderBy(correction => correction.At)
                .Select(correction => next[correction.Item].Dequeue()),
        ];
    }

    /// <summary>Those of one quiz.</summary>
    public static IEnumerable<Remarking> Of(MarkedCourse course, QuizKeys keys)
    {
        var pieces = course.Book.Students.Select(student => course.PieceOf(student.Student, keys.Quiz.Item)).OfType<QuizPiece>().ToList();
        return keys.Corrections(course.Now)
            .Select(correction => Of(pieces, keys.Quiz.Item, correction.At, correction.Before, correction.After));
    }

    /// <summary>What a change of the key at some moment does.</summary>
    public static Remarking Of(
        IReadOnlyList<QuizPiece> pieces,
        Ref<Item> item,
        Instant at,
        IReadOnlyList<QuizQuestion> before,
        IReadOnlyList<QuizQuestion> after
    )
    {
        var finished = pieces.Where(piece => piece.IsBegun(at)).ToList();
        var changes = finished.Select(piece => Of(piece, at, before, after)).OfType<RemarkedStudent>().ToList();
        var (rises, falls) = (changes.Count(one => one.By > 0), changes.Count(one => one.By < 0));
        return new(item, at, rises, falls, finished.Count - rises - falls, changes);
    }

    private static RemarkedStudent? Of(QuizPiece piece, Instant at, IReadOnlyList<QuizQuestion> before, IReadOnlyList<QuizQuestion> after)
    {
        var attempts = piece
            .Finished(at)
            .Select(attempt => (attempt.Attempt.Number, Before: attempt.At(at, before), After: attempt.At(at, after)))
            .Where(one => one.Before.Points != one.After.Points || one.Before.Share != one.After.Share)
            .Select(one => new RemarkedAttempt(one.Number, one.Before.Points, one.After.Points))
            .ToList();
        var (was, becomes) = (piece.Score(at, before)?.Share, piece.Score(at, after)?.Share);
        return attempts.Count == 0 && was == becomes ? null : new(piece.Student, attempts, was, becomes);
    }
}
