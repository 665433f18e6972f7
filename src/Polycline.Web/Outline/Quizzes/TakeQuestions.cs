using System.Text.RegularExpressions;
using Polycline.Data.Files;
using Polycline.Formats;
using Polycline.Formats.Files;
using Polycline.Formats.Quizzes;
using Polycline.Formats.Quizzes.Qti;
using Polycline.Web.Editions;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Quizzes;

/// <param name="Upload">The package: a file that was sent.</param>
public sealed record TakeQuestionsRequest(Guid Upload);

/// <param name="Text">The questions in our own form, to be looked at and saved; pictures in them are uploads of whoever asks.</param>
/// <param name="Limit">Minutes that the package gives; null: it says none.</param>
/// <param name="LeftOut">What of the package does not fit, in words.</param>
public sealed record TakenQuestions(
    string Title,
    string Text,
    IReadOnlyList<QuizLine> Lines,
    IReadOnlyList<QuestionForm>? Rows,
    int? Limit,
    IReadOnlyList<string> LeftOut
) : IAnswer<TakenQuestions>
{
    public TakenQuestions AsPreview() => this;
}

/// <summary>Reads the questions of a package of QTI 2. Nothing of a quiz is changed until they are saved.</summary>
public sealed partial class TakeQuestions : IWorkCommand<TakeQuestionsRequest, TakenQuestions>
{
    public static string Name => "take-questions";

    public static WorkPlace Place => WorkPlace.Edition;

    public static async Task<TakenQuestions> Do(WorkContext work, TakeQuestionsRequest request)
    {
        var sent = (await UploadStore.Sent(work.Connection, [request.Upload])).SingleOrDefault(file => file.Person == work.Access.Person.Id)
            ?? throw Problem.Unknown("upload");
        QtiQuiz quiz;
        try
        {
            await using var bytes = await PackageFiles.ForAWhile(StoredStream.Of(work.Connection, sent.Stored));
            quiz = await QtiReader.Read(bytes);
        }
        catch (PackageException fault)
        {
            throw Problem.Field("upload", fault.Message);
        }
        if (quiz.Text.Length > QuizText.LongestText)
            throw Problem.Field("upload", $"These questions are too long for one quiz: {QuizText.LongestText:N0} characters at most.");
        var files = await PackageFiles.Store(
            work,
            request.Upload,
            [.. quiz.Files.Select((file, at) => (FileNames.Fault(file.Name) is null ? file.Name : $"file {at + 1}", file.Bytes))],
            "upload"
        );
        var text = InPackage()
            .Replace(quiz.Text, match =>
                int.TryParse(match.Groups[1].Value, out var at) && at < files.Count ? $"src=\"/api/me/uploads/{files[at].Id}/bytes\"" : ""
            );
        var read = QuizText.Read(text);
        return new(
            quiz.Title,
            text,
            read.Lines,
            read.Questions is { } questions ? QuestionForm.Of(questions, read.Draws) : null,
            quiz.Limit,
            quiz.LeftOut
        );
    }

    [GeneratedRegex("src=\"package:([0-9]{1,4})\"", RegexOptions.CultureInvariant)]
    private static partial Regex InPackage();
}
