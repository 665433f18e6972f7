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
    public abstract IEnumerable<WaitingPiece> Waiting(NodaTime.Instant at);
}

/// <param name="Attempt">Of a quiz.</param>
public sealed record WaitingPiece(Piece Piece, int? Attempt, NodaTime.Instant HandedIn);
