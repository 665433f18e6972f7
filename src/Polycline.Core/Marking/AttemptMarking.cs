using NodaTime;

namespace Polycline.Core.Marking;

/// <summary>One question of an attempt, marked.</summary>
/// <param name="Answer">The one that counts; null: none.</param>
/// <param name="Points">Null: it waits for a person.</param>
public sealed record MarkedQuestion(QuizQuestion Question, Answer? Answer, Fraction? Points, NumberNote? Note);

/// <summary>An attempt, marked as at some moment. Source: the computation, chapter 13.2.</summary>
/// <param name="Questions">Those that were put and are not out.</param>
/// <param name="Points">So far: what waits for a person left aside.</param>
/// <param name="Share">Null: something waits, or nothing can be reached.</param>
public sealed record AttemptResult(IReadOnlyList<MarkedQuestion> Questions, Fraction Points, Fraction OutOf, Fraction? Share)
{
    public IEnumerable<string> Waiting => Questions.Where(marked => marked.Points is null).Select(marked => marked.Question.Id);

    public bool Waits => Questions.Any(marked => marked.Points is null);
}

/// <summary>One attempt with its clock: its end, which answers count, what they are worth. Source: the computation, chapter 13.</summary>
public sealed class AttemptMarking
{
    private readonly IReadOnlyList<Mark> marks;
    private readonly DecimalMark decimalMark;

    /// <param name="closes">When the quiz closes for this student.</param>
    /// <param name="marks">Of this attempt, in the order of time.</param>
    public AttemptMarking(
        MarkedItem.MarkedQuiz quiz,
        QuizAttempt attempt,
        ExtraTime extra,
        Instant? closes,
        IReadOnlyList<Mark> marks,
        DecimalMark decimalMark
    )
    {
        Attempt = attempt;
        this.marks = marks;
        this.decimalMark = decimalMark;
        Bell = BellOf(attempt.Began, Allowed(quiz.Limit, extra), closes);
        Stop = Bell?.Plus(Duration.FromSeconds(quiz.Grace));
        IsEndedByStudent = attempt.Ended is { } ended && !(ended > Stop);
        Finish = IsEndedByStudent ? attempt.Ended : Stop;
    }

    public QuizAttempt Attempt { get; }

    /// <summary>When time is up; null: never.</summary>
    public Instant? Bell { get; }

    /// <summary>The last moment at which answers count: the bell and the grace after it.</summary>
    public Instant? Stop { get; }

    /// <summary>When it is finished, whether or not that has come; null: not yet known.</summary>
    public Instant? Finish { get; }

    /// <summary>Whether it is handed in in time; else the clock ends it.</summary>
    public bool IsEndedByStudent { get; }

    /// <summary>The moments at which its marks can change, beside corrections of its quiz.</summary>
    public IEnumerable<Instant> Moments =>
        Finish is not { } finish
            ? []
            : marks
                .Select(mark => mark.At)
                .Append(finish)
                .Concat(Attempt.LateAllowed is { } allowed ? [allowed] : [])
                .Where(moment => moment >= finish);

    /// <summary>How long an attempt may take.</summary>
    /// <param name="limit">Minutes; null: as long as one likes.</param>
    public static Duration? Allowed(int? limit, ExtraTime extra)
    {
        if (limit is not { } minutes)
            return null;
        var seconds = ((minutes * (1 + (extra.Percent / 100))) + extra.Minutes) * 60;
        return Duration.FromSeconds((long)seconds.Ceiling());
    }

    public bool IsFinished(Instant at) => Finish <= at;

    /// <summary>How many answers came after the bell and still count.</summary>
    public int InGrace(Instant at) => Attempt.Answers.Count(answer => answer.At <= at && answer.At > Bell && answer.At <= Stop);

    /// <summary>How many answers came after the stop; they are kept.</summary>
    public int AfterStop(Instant at) => Attempt.Answers.Count(answer => answer.At <= at && answer.At > Stop);

    /// <summary>What it comes to.</summary>
    /// <param name="at">What is later counts as not there.</param>
    /// <param name="questions">The quiz's, with the key that holds.</param>
    public AttemptResult At(Instant at, IReadOnlyList<QuizQuestion> questions)
    {
        var answers = new Dictionary<string, Answer?>(StringComparer.Ordinal);
        foreach (var answer in Attempt.Answers)
            if (Counts(answer, at))
                answers[answer.Question] = answer.Answer;
        var given = new Dictionary<string, Fraction>(StringComparer.Ordinal);
        foreach (var mark in marks)
            if (mark.At <= at)
                given[mark.Question!] = mark.Points!.Value;
        var marked = Asked(questions)
            .Where(question => question.Voided != Voided.Out)
            .Select(question => Marked(question, answers.GetValueOrDefault(question.Id), given))
            .ToList();
        var points = Fraction.Sum(marked.Select(one => one.Points ?? 0));
        var outOf = OutOf(questions);
        var waits = marked.Any(one => one.Points is null);
        return new(marked, points, outOf, waits || outOf.Sign == 0 ? null : points / outOf);
    }

    /// <summary>What there is to reach in what was put.</summary>
    public Fraction OutOf(IReadOnlyList<QuizQuestion> questions) =>
        Fraction.Sum(Asked(questions).Where(question => question.CountsInFull).Select(question => question.Points));

    private static Instant? BellOf(Instant began, Duration? allowed, Instant? closes)
    {
        var bell = allowed is { } duration ? began + duration : closes;
        if (closes < bell)
            bell = closes;
        return bell < began ? began : bell;
    }

    private IEnumerable<QuizQuestion> Asked(IReadOnlyList<QuizQuestion> questions)
    {
        IEnumerable<QuizQuestion> by = Attempt.Keys is { } own ? own : questions;
        return Attempt.Asked is not { } asked ? by : by.Where(question => asked.Contains(question.Id));
    }

    private bool Counts(GivenAnswer answer, Instant at) =>
        answer.At <= at && (!(answer.At > Stop) || (Attempt.LateAllowed is { } allowed && allowed <= at && answer.At <= allowed));

    private MarkedQuestion Marked(QuizQuestion question, Answer? answer, Dictionary<string, Fraction> given)
    {
        if (question.Voided == Voided.Full)
            return new(question, answer, question.Points, null);
        if (given.TryGetValue(question.Id, out var points))
            return new(question, answer, points, null);
        var marked = QuestionMarking.Of(question.Key, answer, decimalMark);
        return new(question, answer, marked.Share * question.Points, marked.Note);
    }
}
