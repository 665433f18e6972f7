namespace Polycline.Core.Marking;

/// <summary>The score that stands for a student in an item. Source: the computation, chapters 13.2 and 13.3.</summary>
/// <param name="Share">Of full points; null: a level without percent.</param>
/// <param name="OutOf">What the item is worth.</param>
/// <param name="IsFinal">Whether nothing waits.</param>
public sealed record StandingScore(Fraction? Share, Fraction OutOf, bool IsFinal)
{
    public string? Level { get; init; }

    /// <summary>The attempt that gives it; null: a task, or a mean of several.</summary>
    public int? Attempt { get; init; }

    /// <summary>The mark that gives it, of a task.</summary>
    public Mark? Mark { get; init; }

    public Fraction? Points => Share * OutOf;
}

/// <summary>One student's dealings with one item, as far as marks go.</summary>
public abstract class Piece(Ref<Courses.Student> student, MarkedItem item)
{
    public Ref<Courses.Student> Student { get; } = student;

    public MarkedItem Item { get; } = item;

    /// <summary>What stands at a moment; null: nothing.</summary>
    public abstract StandingScore? Score(NodaTime.Instant at);

    /// <summary>Whether something was handed in, finished or marked.</summary>
    public abstract bool IsBegun(NodaTime.Instant at);

    /// <summary>What waits to be read.</summary>
    public abstract IEnumerable<PieceToRead> Waiting(NodaTime.Instant at);
}

/// <param name="Attempt">Of a quiz.</param>
public sealed record PieceToRead(Piece Piece, int? Attempt, NodaTime.Instant HandedIn);

/// <summary>What several attempts at a quiz come to. Source: the computation, chapter 13.2.</summary>
public static class QuizScore
{
    /// <param name="outOf">What the quiz is worth.</param>
    /// <param name="finished">Those that are finished, lowest number first.</param>
    /// <returns>Null: none is final.</returns>
    public static StandingScore? Of(AttemptsUsed used, Fraction outOf, IReadOnlyList<(int Number, AttemptResult Result)> finished)
    {
        var final = finished.Where(one => one.Result.Share is not null).ToList();
        if (final.Count == 0)
            return null;
        switch (used)
        {
            case AttemptsUsed.Mean:
                var mean = Fraction.Sum(final.Select(one => one.Result.Share!.Value)) / final.Count;
                return new(mean, outOf, !finished.Any(one => one.Result.Waits));
            case AttemptsUsed.Latest:
                var latest = final[^1];
                return new(latest.Result.Share, outOf, !finished[^1].Result.Waits) { Attempt = latest.Number };
            default:
                // Of equal ones the earliest: the order stays.
                var best = final.OrderByDescending(one => one.Result.Share!.Value).First();
                return new(best.Result.Share, outOf, !finished.Any(one => one.Result.Waits)) { Attempt = best.Number };
        }
    }
}
