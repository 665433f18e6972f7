using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>The keys of a quiz, one after another, as they were corrected. Source: the computation, chapter 13.4.</summary>
public sealed class QuizKeys
{
    private readonly List<(Instant At, IReadOnlyList<QuizQuestion> Questions)> corrected = [];
    private readonly IReadOnlyList<QuizQuestion> first;

    /// <param name="corrections">Of this quiz, in any order; of two at one moment the one later in the list is the later.</param>
    public QuizKeys(MarkedItem.MarkedQuiz quiz, IEnumerable<KeyCorrection> corrections)
    {
        Quiz = quiz;
        first = quiz.Questions;
        var questions = first;
        foreach (var correction in corrections.OrderBy(correction => correction.At))
        {
            var anew = correction.Questions.ToDictionary(question => question.Id);
            questions = [.. questions.Select(question => anew.GetValueOrDefault(question.Id, question))];
            corrected.Add((correction.At, questions));
        }
    }

    public MarkedItem.MarkedQuiz Quiz { get; }

    public IEnumerable<Instant> Moments => corrected.Select(correction => correction.At);

    /// <summary>The key that holds at a moment.</summary>
    public IReadOnlyList<QuizQuestion> At(Instant at)
    {
        var holds = first;
        foreach (var (from, questions) in corrected)
            if (from <= at)
                holds = questions;
        return holds;
    }

    /// <summary>Each correction up to a moment, with the key before and after it.</summary>
    public IEnumerable<(Instant At, IReadOnlyList<QuizQuestion> Before, IReadOnlyList<QuizQuestion> After)> Corrections(Instant until)
    {
        var before = first;
        foreach (var (at, after) in corrected)
        {
            if (at <= until)
                yield return (at, before, after);
            before = after;
        }
    }

    /// <summary>What the quiz is worth.</summary>
    public Fraction OutOf(IReadOnlyList<QuizQuestion> questions) =>
        Quiz.OutOf ?? Fraction.Sum(questions.Where(question => question.CountsInFull).Select(question => question.Points));
}

/// <summary>A student's attempts at a quiz. Source: the computation, chapter 13.2.</summary>
/// <param name="attempts">Those of this student, lowest number first.</param>
public sealed class QuizPiece(Ref<Student> student, QuizKeys keys, IReadOnlyList<AttemptMarking> attempts) : Piece(student, keys.Quiz)
{
    public QuizKeys Keys { get; } = keys;

    public IReadOnlyList<AttemptMarking> Attempts { get; } = attempts;

    public override StandingScore? Score(Instant at) => Score(at, Keys.At(at));

    /// <summary>What stands at a moment by some key.</summary>
    public StandingScore? Score(Instant at, IReadOnlyList<QuizQuestion> questions) =>
        QuizScore.Of(
            Keys.Quiz.Using,
            Keys.OutOf(questions),
            [.. Finished(at).Select(attempt => (attempt.Attempt.Number, attempt.At(at, questions)))]
        );

    public override bool IsBegun(Instant at) => Finished(at).Any();

    public override IEnumerable<PieceToRead> Waiting(Instant at) =>
        Finished(at)
            .Where(attempt => attempt.At(at, Keys.At(at)).Waits)
            .Select(attempt => new PieceToRead(this, attempt.Attempt.Number, attempt.Finish!.Value));

    /// <summary>Those finished by then, lowest number first.</summary>
    public IEnumerable<AttemptMarking> Finished(Instant at) =>
        Attempts.Where(attempt => attempt.Attempt.Began <= at && attempt.IsFinished(at));
}
