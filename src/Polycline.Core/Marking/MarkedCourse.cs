using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>
/// A course with all that was answered, handed in and marked, ready to be asked. Everything is as at <see cref="Now"/>; what is later
/// counts as not there. Source: the computation, chapter 13.
/// </summary>
public sealed class MarkedCourse
{
    private readonly Dictionary<Ref<Student>, (MarkedSection Section, Instant? From)> homes = [];
    private readonly Dictionary<(Ref<Student>, Ref<Item>), DifferentFor> exceptions = [];
    private readonly Dictionary<(Ref<Student>, Ref<Item>), Piece> pieces = [];

    public MarkedCourse(MarkingBook book, Instant now)
    {
        Book = book;
        Now = now;
        Items = [.. book.Units.SelectMany(unit => unit.Items.Select(item => (unit, item)))];
        Keys = Items
            .Select(place => place.Item)
            .OfType<MarkedItem.MarkedQuiz>()
            .ToDictionary(quiz => quiz.Item, quiz => new QuizKeys(quiz, book.Corrections.Where(one => one.Item == quiz.Item)));
        foreach (var section in book.Sections)
        foreach (var student in section.Students)
            homes[student.Student] = (section, student.From);
        foreach (var exception in book.Exceptions)
        {
            var key = (exception.Student, exception.Item);
            exceptions[key] = exceptions.TryGetValue(key, out var earlier) ? Later(earlier, exception) : exception;
        }
        AddPieces();
    }

    public MarkingBook Book { get; }

    public Instant Now { get; }

    /// <summary>In the order of the course.</summary>
    public ImmutableArray<(MarkedUnit Unit, MarkedItem Item)> Items { get; }

    public IReadOnlyDictionary<Ref<Item>, QuizKeys> Keys { get; }

    /// <summary>Null: nothing was answered, handed in or marked.</summary>
    public Piece? PieceOf(Ref<Student> student, Ref<Item> item) => pieces.GetValueOrDefault((student, item));

    /// <summary>In the order of students, then items.</summary>
    public IEnumerable<Piece> Pieces =>
        Book.Students.SelectMany(student => Items.Select(place => PieceOf(student.Student, place.Item.Item)).OfType<Piece>());

    /// <summary>What stands for a student in an item.</summary>
    public StandingScore? Score(Ref<Student> student, Ref<Item> item) => PieceOf(student, item)?.Score(Now);

    /// <summary>The section a student is in; null: none.</summary>
    public MarkedSection? SectionOf(Ref<Student> student) => homes.TryGetValue(student, out var home) ? home.Section : null;

    /// <summary>What is different for a student with an item.</summary>
    public DifferentFor ExceptionOf(Ref<Student> student, Ref<Item> item) =>
        exceptions.GetValueOrDefault((student, item)) ?? new(student, item);

    /// <summary>When an item is due for a student; null: never.</summary>
    public Instant? Due(Ref<Student> student, Ref<Item> item) =>
        ExceptionOf(student, item).Due is { Is: true, Value: var due } ? due : SectionDates(student, item)?.Due;

    /// <summary>Why an item is none of a student's: excused, not for them, or due before they joined; null: it is theirs.</summary>
    public LeftOut? NotTheirs(Ref<Student> student, MarkedItem item)
    {
        var exception = ExceptionOf(student, item.Item);
        var isIncluded = exception.Include == true;
        if (exception.Excused == true)
            return LeftOut.Excused;
        if (!isIncluded && (exception.Exclude == true || item.For is { } those && !those.Contains(student)))
            return LeftOut.NotAssigned;
        return !isIncluded && homes.TryGetValue(student, out var home) && Due(student, item.Item) < home.From
            ? LeftOut.BeforeJoining
            : null;
    }

    private MarkingDates? SectionDates(Ref<Student> student, Ref<Item> item) => SectionOf(student)?.Dates.GetValueOrDefault(item);

    private Instant? Closes(Ref<Student> student, Ref<Item> item) =>
        ExceptionOf(student, item).Closes is { Is: true, Value: var closes } ? closes : SectionDates(student, item)?.Closes;

    private void AddPieces()
    {
        var work = Book.Work.ToLookup(one => (one.Student, one.Item), one => one.At);
        // Sorting keeps the order of those at one moment.
        var marks = Book.Marks.OrderBy(mark => mark.At).ToLookup(mark => (mark.Student, mark.Item));
        var attempts = Book.Attempts.ToLookup(attempt => (attempt.Student, attempt.Item));
        var extra = Book.Students.ToDictionary(student => student.Student, student => student.Extra);
        var items = Items.ToDictionary(place => place.Item.Item, place => place.Item);
        foreach (
            var key in work.Select(group => group.Key).Union(marks.Select(group => group.Key)).Union(attempts.Select(group => group.Key))
        )
        {
            var (student, item) = key;
            pieces[key] = items[item] switch
            {
                MarkedItem.MarkedTask task => new TaskPiece(student, task, [.. work[key]], [.. marks[key]]),
                MarkedItem.MarkedQuiz quiz => new QuizPiece(
                    student,
                    Keys[item],
                    [
                        .. attempts[key]
                            .OrderBy(attempt => attempt.Number)
                            .Select(attempt => new AttemptMarking(
                                quiz,
                                attempt,
                                ExceptionOf(student, item).Extra ?? extra[student],
                                Closes(student, item),
                                [.. marks[key].Where(mark => mark.Attempt == attempt.Number)],
                                Book.DecimalMark
                            )),
                    ]
                ),
                _ => throw new InvalidOperationException("Such an item is not marked."),
            };
        }
    }

    // Field by field, the later stands.
    private static DifferentFor Later(DifferentFor earlier, DifferentFor later) =>
        later with
        {
            Excused = later.Excused ?? earlier.Excused,
            Include = later.Include ?? earlier.Include,
            Exclude = later.Exclude ?? earlier.Exclude,
            Due = later.Due.Or(earlier.Due),
            Closes = later.Closes.Or(earlier.Closes),
            Extra = later.Extra ?? earlier.Extra,
        };
}
