namespace Polycline.Core.Marking;

/// <summary>A mark made with another rubric than its item has now. Source: the computation, chapter 13.3.</summary>
/// <param name="Made">The rubric it keeps.</param>
/// <param name="Would">Its share by the present one; null: what was marked has no place there, or not all is marked.</param>
public sealed record OtherRubric(Piece Piece, PointRubric Made, Fraction? Share, Fraction? Would)
{
    public static IEnumerable<OtherRubric> Of(MarkedCourse course) =>
        course.Pieces.OfType<TaskPiece>().Select(piece => Of(course, piece)).OfType<OtherRubric>();

    private static OtherRubric? Of(MarkedCourse course, TaskPiece piece)
    {
        if (
            piece.Score(course.Now) is not { Mark.Rubric: { } made } score
            || piece.Item is not MarkedItem.MarkedTask { Rubric: { } present }
            || (made.Rubric.Id == present.Id && made.Rubric.Version == present.Version)
        )
            return null;
        return new(piece, made.Rubric, score.Share, present.Takes(made.Levels) ? present.Share(made.Levels, out _) : null);
    }
}
