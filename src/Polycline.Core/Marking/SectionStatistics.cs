using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>A frequent answer without full points.</summary>
public sealed record WrongAnswer(string Answer, int Students);

/// <summary>How one question went. Source: the computation, chapter 13.6.</summary>
/// <param name="Students">Those whose first finished attempt was asked it and is final.</param>
/// <param name="Right">How many of them have at least full points.</param>
/// <param name="Mean">The mean share; null: nobody.</param>
/// <param name="Discrimination">How much better the best of the attempts did in it than the weakest; null: fewer than six.</param>
public sealed record QuestionStatistics(
    QuizQuestion Question,
    int Students,
    int Right,
    Fraction? Mean,
    Fraction? Discrimination,
    IReadOnlyList<WrongAnswer> Wrong
);

/// <summary>How one item went in a section. Source: the computation, chapter 13.6.</summary>
/// <param name="Students">Those for whom a share stands.</param>
/// <param name="Low">The median of the lower half, the middle one in neither; null, as the others: nobody.</param>
/// <param name="Questions">Of a quiz.</param>
public sealed record ItemStatistics(
    MarkedItem Item,
    int Students,
    Fraction? Median,
    Fraction? Low,
    Fraction? High,
    IReadOnlyList<QuestionStatistics>? Questions
)
{
    private const int EnoughToTellApart = 6;
    private const int MostWrongAnswers = 3;

    /// <summary>All that a section does not skip.</summary>
    public static IEnumerable<ItemStatistics> Of(MarkedCourse course, MarkedSection section)
    {
        foreach (var (_, item) in course.Items)
        {
            if (section.Skips.Contains(item.Item))
                continue;
            var students = Scored(course, section, item);
            var shares = students.Select(one => one.Share).Order().ToList();
            var half = shares.Count / 2;
            var isOne = shares.Count == 1;
            yield return new(
                item,
                shares.Count,
                MedianOf(shares),
                isOne ? shares[0] : MedianOf(shares[..half]),
                isOne ? shares[0] : MedianOf(shares[^half..]),
                item is MarkedItem.MarkedQuiz quiz ? EachQuestion(course, quiz, students.Select(one => one.Student)) : null
            );
        }
    }

    /// <summary>The students of a section whom an item concerns and for whom a share stands.</summary>
    public static IReadOnlyList<(Ref<Student> Student, Fraction Share)> Scored(
        MarkedCourse course,
        MarkedSection section,
        MarkedItem item
    ) =>
        [
            .. section
                .Students.Where(student => course.NotTheirs(student.Student, item) is null)
                .Select(student => (student.Student, course.Score(student.Student, item.Item)?.Share))
                .Where(one => one.Share is not null)
                .Select(one => (one.Student, one.Share!.Value)),
        ];

    private static Fraction? MedianOf(List<Fraction> sorted) =>
        sorted.Count == 0 ? null : (sorted[(sorted.Count - 1) / 2] + sorted[sorted.Count / 2]) / 2;

    private static List<QuestionStatistics> EachQuestion(
        MarkedCourse course,
        MarkedItem.MarkedQuiz quiz,
        IEnumerable<Ref<Student>> students
    )
    {
        var questions = course.Keys[quiz.Item].At(course.Now);
        // The first attempt only: who tries again has seen the answers.
        var firsts = students
            .Select(student => course.PieceOf(student, quiz.Item) as QuizPiece)
            .Select(piece => piece?.Finished(course.Now).FirstOrDefault()?.At(course.Now, questions))
            .OfType<AttemptResult>()
            .Where(result => result.Share is not null)
            .ToList();
        return [.. questions.Where(question => question.Voided == Voided.No).Select(question => Of(question, firsts))];
    }

    private static QuestionStatistics Of(QuizQuestion question, List<AttemptResult> firsts)
    {
        var asked = firsts
            .Select(result => (result.Share, Marked: result.Questions.FirstOrDefault(one => one.Question == question)))
            .Where(one => one.Marked is not null)
            .Select(one => (Attempt: one.Share!.Value, Own: one.Marked!.Points!.Value / question.Points, one.Marked.Answer))
            .ToList();
        var wrong = asked
            .Where(one => one.Own < 1 && !Answer.IsBlank(one.Answer))
            .Select(one => QuestionMarking.Told(question.Key, one.Answer!))
            .OfType<string>()
            .CountBy(answer => answer)
            .Select(pair => new WrongAnswer(pair.Key, pair.Value))
            .OrderByDescending(one => one.Students)
            .ThenBy(one => one.Answer, CodePoints.Order);
        return new(
            question,
            asked.Count,
            asked.Count(one => one.Own >= 1),
            asked.Count == 0 ? null : Fraction.Sum(asked.Select(one => one.Own)) / asked.Count,
            asked.Count < EnoughToTellApart ? null : Discrimination([.. asked.Select(one => (one.Attempt, one.Own))]),
            [.. wrong.Take(MostWrongAnswers)]
        );
    }

    private static Fraction Discrimination(List<(Fraction Attempt, Fraction Own)> asked)
    {
        var each = ((27 * asked.Count) + 99) / 100;
        var rising = asked.OrderBy(one => one.Attempt).ToList();
        return MeanOfFirst(Enumerable.Reverse(rising).ToList(), each) - MeanOfFirst(rising, each);
    }

    // Where several tie on the border, each counts for its part of the places left, so that order decides nothing.
    private static Fraction MeanOfFirst(List<(Fraction Attempt, Fraction Own)> sorted, int count)
    {
        var border = sorted[count - 1].Attempt;
        var within = sorted.TakeWhile(one => one.Attempt != border).ToList();
        var tied = sorted.Where(one => one.Attempt == border).ToList();
        var part = new Fraction(count - within.Count, tied.Count);
        return (Fraction.Sum(within.Select(one => one.Own)) + (part * Fraction.Sum(tied.Select(one => one.Own)))) / count;
    }
}

/// <summary>Texts by their code points.</summary>
internal sealed class CodePoints : IComparer<string>
{
    public static readonly CodePoints Order = new();

    public int Compare(string? x, string? y) =>
        (x ?? "").EnumerateRunes().Zip((y ?? "").EnumerateRunes(), (one, other) => one.CompareTo(other)).FirstOrDefault(order => order != 0)
            is not 0
                and var first
            ? first
            : (x?.Length ?? 0).CompareTo(y?.Length ?? 0);
}
