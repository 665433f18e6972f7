using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Data.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student.Quizzes;

/// <param name="N">Which attempt it is of.</param>
/// <param name="Answer">
/// In the form that its kind of question takes, of a file the <c>upload</c> it was sent as; null: cleared again.
/// </param>
public sealed record AnswerQuizRequest(Id<Item> Item, int N, string Question, JsonElement? Answer);

/// <param name="Counts">False: it came after the end, is kept, and does not count unless a teacher says so.</param>
public sealed record AnsweredAnswer(bool Counts) : IAnswer<AnsweredAnswer>
{
    public AnsweredAnswer AsPreview() => this;
}

/// <summary>Keeps an answer to a question. What comes after the end is kept too, and shown.</summary>
public sealed class AnswerQuiz : IWorkCommand<AnswerQuizRequest, CourseOfStudents, AnsweredAnswer>
{
    private const int Longest = 20_000;

    // All of them are kept, so there is an end to them.
    private const int MostAnswers = 5_000;

    public static string Name => "answer-quiz";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<AnswerQuizRequest> Validator { get; } = new Rules();

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, AnswerQuizRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<AnsweredAnswer> Do(WorkContext work, CourseOfStudents students, AnswerQuizRequest request)
    {
        var (_, _, quiz) = await QuizInHand.Of(work, students, request.Item);
        var attempt = quiz.Attempts.FirstOrDefault(one => one.Row.N == request.N) ?? throw Problem.Unknown("n");
        if (attempt.Marking.IsEndedByStudent && attempt.Row.EndedAt is not null)
            throw Problem.NotOpen("You have handed this in already.");
        if (attempt.Marking.Attempt.Answers.Length >= MostAnswers)
            throw Problem.Field(
                "answer",
                $"You have changed your answers {MostAnswers:N0} times, and no more changes can be saved. Hand the quiz in."
            );
        var question = attempt.Asked.FirstOrDefault(one => one.Asked.Question.Id == request.Question)?.Asked
            ?? throw Problem.Unknown("question");
        var (sent, file) =
            question.Question.Key is QuestionKey.FileKey && request.Answer is { ValueKind: not JsonValueKind.Null } named
                ? await AnsweringFile.Keep(work, named)
                : (request.Answer, null);
        var json = sent is { } given ? new PutNames(question, attempt.Row.Lot).Meant(question.Question.Key, given) : "null";
        try
        {
            QuizPaperFile.Answer(question.Question.Key, json);
        }
        catch (FileRefusedException refused)
        {
            throw Problem.Field("answer" + refused.Path[1..], "That doesn’t fit this question. Reload the page and answer it again.");
        }
        await QuizStore.Answer(work.Connection, attempt.Row.Id, request.Question, json, file, work.Viewpoint.At);
        return new(!attempt.Marking.IsFinished(work.Viewpoint.At));
    }

    private sealed class Rules : AbstractValidator<AnswerQuizRequest>
    {
        public Rules() =>
            RuleFor(request => request.Answer)
                .Must(answer => answer is null || answer.Value.GetRawText().Length <= Longest)
                .WithMessage($"This is too long: {Longest:N0} characters at most. Make it shorter.");
    }
}
