using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Release;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student.Quizzes;

public sealed record StudentQuizAnswer
{
    /// <summary>0: there are none yet, or they are not to be seen.</summary>
    public required int Questions { get; init; }

    /// <summary>What there is to reach, such as <c>12</c>.</summary>
    public required string OutOf { get; init; }

    /// <summary>Minutes an attempt may take, with the student's own extra time; null: as long as one likes.</summary>
    public required double? Minutes { get; init; }

    /// <summary>How many attempts may still be begun; null: any number.</summary>
    public required int? Left { get; init; }

    /// <summary>Which attempt counts: <c>best</c>, <c>latest</c> or <c>mean</c>.</summary>
    public required string Using { get; init; }

    /// <summary>When it is shown how answers were marked: <c>at-once</c>, <c>after-due</c> or <c>never</c>.</summary>
    public required string Shown { get; init; }

    public required bool MayBegin { get; init; }

    /// <summary>The attempt that runs; null: none does.</summary>
    public required RunningAttempt? Running { get; init; }

    /// <summary>What is over, the latest first.</summary>
    public required IReadOnlyList<DoneAttempt> Done { get; init; }

    /// <summary>What counts, such as <c>7 of 10</c>; null: nothing yet, or it is not shown.</summary>
    public required string? Score { get; init; }
}

/// <param name="Bell">When its time is up; null: never.</param>
/// <param name="SecondsLeft">Until then; null: there is no end.</param>
public sealed record RunningAttempt(int N, Moment BeganAt, Moment? Bell, double? SecondsLeft, IReadOnlyList<PutQuestion> Questions);

/// <param name="ByClock">Whether its time was up before it was handed in.</param>
/// <param name="Late">How many answers came after that; they are kept, and do not count unless a teacher says so.</param>
/// <param name="Score">Such as <c>7 of 10</c>; null: it is not shown.</param>
/// <param name="ToRead">How many answers are still to be read; the score leaves them out.</param>
/// <param name="Questions">How each was marked; null: it is not shown.</param>
public sealed record DoneAttempt(
    int N,
    Moment BeganAt,
    Moment EndedAt,
    bool ByClock,
    int Late,
    string? Score,
    int ToRead,
    IReadOnlyList<MarkedAnswerLine>? Questions
);

/// <param name="Points">Such as <c>1 of 2</c>; null: somebody has still to read it.</param>
/// <param name="Right">What is right, in words.</param>
/// <param name="Note">Why a right number does not have full points; null: it has, or is wrong.</param>
/// <param name="Said">What whoever read it says of it; null: nothing.</param>
public sealed record MarkedAnswerLine(
    PutQuestion Question,
    string? Points,
    bool IsFull,
    string Right,
    string? After,
    string? Note,
    string? Said
)
{
    /// <summary>Whether the question turned out faulty: everyone it was put to has its points.</summary>
    public required bool IsFaulty { get; init; }

    /// <summary>What is said of the answers that were chosen; mostly nothing.</summary>
    public required IReadOnlyList<string> Replies { get; init; }

    /// <summary>The questions of an attempt in its order, with how each was marked.</summary>
    /// <param name="marks">What was given by whoever read answers, in the order of time.</param>
    internal static IReadOnlyList<MarkedAnswerLine> Of(
        QuizPaper put,
        string lot,
        PutPlace place,
        AttemptResult result,
        IReadOnlyList<AnswerMarkRow> marks
    )
    {
        var known = result.Questions.ToDictionary(marked => marked.Question.Id, StringComparer.Ordinal);
        return
        [
            .. put.PutTo(lot)
                .Where(placed => known.ContainsKey(placed.Asked.Question.Id))
                .Select(placed => Of(placed, lot, put.MixesOptions, place, known[placed.Asked.Question.Id], marks)),
        ];
    }

    private static MarkedAnswerLine Of(
        PlacedQuestion placed,
        string lot,
        bool mixes,
        PutPlace place,
        MarkedQuestion marked,
        IReadOnlyList<AnswerMarkRow> marks
    ) =>
        new(
            PutQuestion.Of(placed, lot, mixes, place, marked.Answer),
            marked.Points is { } points ? ScoreWords.PointsOf(points, marked.Question.Points) : null,
            marked.Points >= marked.Question.Points,
            KeyWords.Of(marked.Question.Key, placed.Asked.Words),
            placed.Asked.After,
            marked.Note is { } note ? KeyWords.Of(note) : null,
            marks.LastOrDefault(mark => mark.Question == placed.Asked.Question.Id) is { Words: { Length: > 0 } said } ? said : null
        )
        {
            IsFaulty = marked.Question.Voided == Voided.Full,
            Replies = placed.Asked.RepliesTo(marked.Answer),
        };
}

/// <summary>A quiz as a student may see it: what is put to them, what they answered, and how it was marked where that is shown.</summary>
public static class ReadQuiz
{
    public static async Task<StudentQuizAnswer> Handle(
        long section,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop, new(item));
        var sight = course.See(new Id<Item>(item));
        if (sight.Kind != ItemKind.Quiz)
            throw Problem.Unknown();
        var (quiz, files) = await database.Read(
            async connection =>
            {
                var quiz = await StudentQuiz.Read(connection, course.TermsOf(sight), new(item), course.Student, course.At);
                var withFiles = quiz.Attempts.Where(attempt =>
                    attempt.Put.Questions.Any(question => question.Question.Key is QuestionKey.FileKey)
                );
                return (
                    quiz,
                    withFiles.Any() ? await AnswerFiles.Read(connection, withFiles.Select(attempt => attempt.Row.Id)) : AnswerFiles.None
                );
            },
            stop
        );
        return Answer(quiz, sight, course, new($"/api/sections/{section}/items/{item}", files));
    }

    private static StudentQuizAnswer Answer(StudentQuiz quiz, Sight sight, StudentCourse course, PutPlace place)
    {
        var isShown = quiz.Paper is { } put && course.IsShown(put, sight);
        var isScoreShown = quiz.Paper is { } scored && course.IsScoreShown(scored, sight);
        return new()
        {
            Questions = quiz.Paper?.Asks ?? 0,
            OutOf = quiz.Paper?.Worth.PointsShown() ?? "0",
            Minutes = AttemptMarking.Allowed(quiz.Paper?.Limit, quiz.Terms.Extra)?.TotalMinutes,
            Left = quiz.Left,
            Using = EnumNames.Of(quiz.Paper?.Using ?? AttemptsUsed.Best),
            Shown = EnumNames.Of(quiz.Paper?.Shown ?? AnswersShown.AtOnce),
            MayBegin = course.Student is not null && MayBegin(quiz, sight),
            Running = quiz.Running is { } running ? Running(running, course, place with { Attempt = running.Row.Id }) : null,
            Done =
            [
                .. quiz
                    .Finished.Reverse()
                    .Select(attempt => Done(attempt, course, place with { Attempt = attempt.Row.Id }, isShown, isScoreShown)),
            ],
            Score = isScoreShown && quiz.Score is { Share: not null } score ? Words(score.Points!.Value, score.OutOf) : null,
        };
    }

    /// <summary>Whether another attempt can begin now.</summary>
    public static bool MayBegin(StudentQuiz quiz, Sight sight) =>
        quiz is { Paper: not null, Running: null, Left: null or > 0 }
        && sight.State is ReleaseState.Open or ReleaseState.Overdue
        && sight.MayRead;

    private static RunningAttempt Running(TakenAttempt attempt, StudentCourse course, PutPlace place)
    {
        var given = attempt.Result(course.At).Questions.ToDictionary(marked => marked.Question.Id, marked => marked.Answer);
        return new(
            attempt.Row.N,
            Moment.Of(attempt.Row.BeganAt, course.Zone),
            Moment.Of(attempt.Marking.Bell, course.Zone),
            attempt.Marking.Bell is { } bell ? Math.Max(0, (bell - course.At).TotalSeconds) : null,
            [
                .. attempt.Asked.Select(placed =>
                    PutQuestion.Of(
                        placed,
                        attempt.Row.Lot,
                        attempt.Put.MixesOptions,
                        place,
                        given.GetValueOrDefault(placed.Asked.Question.Id)
                    )
                ),
            ]
        );
    }

    private static DoneAttempt Done(TakenAttempt attempt, StudentCourse course, PutPlace place, bool isShown, bool isScoreShown)
    {
        var result = attempt.Result(course.At);
        return new(
            attempt.Row.N,
            Moment.Of(attempt.Row.BeganAt, course.Zone),
            Moment.Of(attempt.Marking.Finish!.Value, course.Zone),
            !attempt.Marking.IsEndedByStudent,
            attempt.Marking.AfterStop(course.At),
            isScoreShown ? Words(result.Points, result.OutOf) : null,
            result.Waiting.Count(),
            isShown ? MarkedAnswerLine.Of(attempt.Put, attempt.Row.Lot, place, result, attempt.Marks) : null
        );
    }

    private static string Words(Fraction points, Fraction outOf) => $"{points.PointsShown()} of {outOf.PointsShown()}";
}
