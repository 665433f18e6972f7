using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>What a student handed in for a task, and its marks. Source: the computation, chapter 13.3.</summary>
/// <param name="work">When something was handed in.</param>
/// <param name="marks">In the order of time; of two at one moment the later of the list last.</param>
public sealed class TaskPiece(Ref<Student> student, MarkedItem.MarkedTask task, IReadOnlyList<Instant> work, IReadOnlyList<Mark> marks)
    : Piece(student, task)
{
    /// <summary>The moments at which what stands can change.</summary>
    public IEnumerable<Instant> Moments => marks.Select(mark => mark.At);

    public override StandingScore? Score(Instant at)
    {
        var complete = Complete(at).ToList();
        if (complete.LastOrDefault(mark => !mark.IsAgain) is not { } mark)
            return null;
        var share = ShareOf(mark);
        if (share is null && mark.Level is null)
            return null;
        return new(share, task.OutOf, ReferenceEquals(mark, complete[^1]) && !Waits(at)) { Level = mark.Level, Mark = mark };
    }

    public override bool IsBegun(Instant at) => work.Any(moment => moment <= at) || marks.Any(mark => mark.At <= at);

    public override IEnumerable<PieceToRead> Waiting(Instant at) =>
        Waits(at) ? [new(this, null, work.Where(moment => moment <= at).Max())] : [];

    private bool Waits(Instant at)
    {
        var handedIn = work.Where(moment => moment <= at).ToList();
        return handedIn.Count > 0 && handedIn.Max() is var latest && !Complete(at).Any(mark => mark.At >= latest);
    }

    // One that leaves out a criterion gives no score, and the piece still waits.
    private IEnumerable<Mark> Complete(Instant at) => marks.Where(mark => mark.At <= at && IsComplete(mark));

    private static bool IsComplete(Mark mark)
    {
        if (mark.Rubric is not { } made)
            return true;
        made.Rubric.Share(made.Levels, out var isComplete);
        return isComplete;
    }

    private Fraction? ShareOf(Mark mark) =>
        mark switch
        {
            { Points: { } points } => points / task.OutOf,
            { Share: { } share } => share,
            { Level: { } level } when (mark.Scale ?? task.Scale) is { } scale => scale.Levels[scale.PlaceOf(level)].Share,
            { Rubric: { } made } => made.Rubric.Share(made.Levels, out _),
            _ => null,
        };
}
