using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>A piece that waits to be read. Source: the computation, chapter 13.7.</summary>
/// <param name="Since">Since when it stands to be read: early work may wait for the due.</param>
/// <param name="Frees">How many things giving it back opens.</param>
public sealed record QueuedPiece(Ref<Student> Student, MarkedItem Item, int? Attempt, Instant HandedIn, Instant Since, int Frees)
{
    /// <summary>In the order that frees most.</summary>
    /// <param name="frees">How many things giving a piece back opens.</param>
    public static IReadOnlyList<QueuedPiece> Of(MarkedCourse course, Func<Ref<Student>, Ref<Item>, int> frees)
    {
        var names = course.Book.Students.ToDictionary(student => student.Student, student => student.Name);
        var places = course.Items.Select((place, n) => (place.Item.Item, n)).ToDictionary(pair => pair.Item, pair => pair.n);
        return
        [
            .. course
                .Pieces.SelectMany(piece => piece.Waiting(course.Now))
                .Select(waiting => Of(course, waiting, frees(waiting.Piece.Student, waiting.Piece.Item.Item)))
                .OrderByDescending(queued => queued.Frees)
                .ThenByDescending(queued => queued.Overdue(course.Now))
                .ThenBy(queued => queued.HandedIn)
                .ThenBy(queued => places[queued.Item.Item])
                .ThenBy(queued => names[queued.Student], CodePoints.Order)
                .ThenBy(queued => queued.Student)
                .ThenBy(queued => queued.Attempt),
        ];
    }

    /// <summary>For how long it has stood to be read.</summary>
    public Duration Overdue(Instant now) => now > Since ? now - Since : Duration.Zero;

    private static QueuedPiece Of(MarkedCourse course, PieceToRead waiting, int frees)
    {
        var (student, item) = (waiting.Piece.Student, waiting.Piece.Item);
        var since = course.Due(student, item.Item) is { } due && due > waiting.HandedIn ? due : waiting.HandedIn;
        return new(student, item, waiting.Attempt, waiting.HandedIn, since, frees);
    }
}
