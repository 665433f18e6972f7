using System.Text.Json;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;
using Polycline.Data.Quizzes;
using Polycline.Formats.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Student.Quizzes;

namespace Polycline.Web.Outline.Quizzes;

/// <param name="Text">The questions as plain text, saved or not.</param>
/// <param name="Lot">By which questions are drawn and mixed, up to 40 characters: another lot is another student.</param>
/// <param name="Answers">By question; null: nothing is answered.</param>
/// <param name="IsDone">Whether it is handed in, and so marked.</param>
/// <param name="Item">The quiz, for the pictures in its questions; null: they are not shown.</param>
public sealed record TryQuizRequest(
    string Text,
    bool MixesQuestions,
    bool MixesOptions,
    string Lot,
    IReadOnlyDictionary<string, JsonElement>? Answers = null,
    bool IsDone = false,
    Id<Item>? Item = null
);

/// <param name="OutOf">What there is to reach, such as <c>12</c>.</param>
/// <param name="Score">Such as <c>7 of 10</c>; null: it is not handed in.</param>
/// <param name="ToRead">How many answers somebody would have to read; the score leaves them out.</param>
/// <param name="Marked">How each answer is marked; null: it is not handed in.</param>
public sealed record TriedQuiz(
    IReadOnlyList<PutQuestion> Questions,
    string OutOf,
    string? Score,
    int ToRead,
    IReadOnlyList<MarkedAnswerLine>? Marked
);

/// <summary>
/// Puts a quiz to its own team as a student would have it, and marks what they answer. Nothing is kept, and it counts nowhere.
/// </summary>
public static class TryQuiz
{
    private const int LongestLot = 40;
    private static readonly Instant Now = NodaConstants.UnixEpoch;

    public static TriedQuiz Handle(long edition, TryQuizRequest request, Access access)
    {
        if (request.Text.Length > QuizText.LongestText)
            throw Problem.Field("text", $"This is too long: {QuizText.LongestText:N0} characters at most.");
        if (request.Lot.Length > LongestLot)
            throw Problem.Field("lot", $"This is too long: {LongestLot} characters at most.");
        var place = new PutPlace($"/api/editions/{edition}/items/{request.Item}", AnswerFiles.None);
        var paper = WriteQuiz.PaperOf(
            request.Text,
            WriteQuiz.UsualRules with
            {
                MixesQuestions = request.MixesQuestions,
                MixesOptions = request.MixesOptions,
            },
            (_, source) => source
        );
        var attempt = new QuizAttempt
        {
            Student = new("tried"),
            Item = new("tried"),
            Number = 1,
            Began = Now,
            Ended = Now,
            Asked = [.. paper.PutTo(request.Lot).Select(one => one.Asked.Question.Id)],
            Answers = [.. Answers(paper, request)],
        };
        var result = PaperMarking.Of(paper, attempt, ExtraTime.None, null).At(Now, PaperMarking.Keys(paper, paper));
        var given = attempt.Answers.ToDictionary(answer => answer.Question, answer => answer.Answer);
        return new(
            [
                .. paper
                    .PutTo(request.Lot)
                    .Select(placed =>
                        PutQuestion.Of(placed, request.Lot, paper.MixesOptions, place, given.GetValueOrDefault(placed.Asked.Question.Id))
                    ),
            ],
            paper.Worth.PointsShown(),
            request.IsDone ? ScoreWords.PointsOf(result.Points, result.OutOf) : null,
            result.Waiting.Count(),
            request.IsDone ? MarkedAnswerLine.Of(paper, request.Lot, place, result, []) : null
        );
    }

    // Of what is not put, or does not fit any more because the text was changed meanwhile, nothing is taken.
    private static IEnumerable<GivenAnswer> Answers(QuizPaper paper, TryQuizRequest request)
    {
        foreach (var asked in paper.PutTo(request.Lot).Select(placed => placed.Asked))
            if (request.Answers?.TryGetValue(asked.Question.Id, out var given) == true)
            {
                var question = asked.Question;
                Answer? answer;
                // A file is not sent to be tried: its name will do.
                var meant =
                    question.Key is QuestionKey.FileKey
                    && given.ValueKind == JsonValueKind.Object
                    && given.TryGetProperty("name", out var name)
                        ? name
                        : given;
                try
                {
                    answer = QuizPaperFile.Answer(question.Key, new PutNames(asked, request.Lot).Meant(question.Key, meant));
                }
                catch (FileRefusedException)
                {
                    continue;
                }
                yield return new(question.Id, Now, answer);
            }
    }
}
