using Polycline.Formats.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Quizzes;

public sealed record UnderstandQuizRequest(string Text);

/// <param name="Questions">How many there are; null: something is not understood.</param>
/// <param name="Text">The same as it would be written; null: something is not understood.</param>
/// <param name="Rows">The same, field by field; null: something is not understood.</param>
public sealed record UnderstoodQuiz(IReadOnlyList<QuizLine> Lines, int? Questions, string? Text, IReadOnlyList<QuestionForm>? Rows);

/// <summary>Says line by line what is understood of a quiz in plain text. Nothing is written.</summary>
public static class UnderstandQuiz
{
    public static UnderstoodQuiz Handle(long edition, UnderstandQuizRequest request, Access access)
    {
        if (request.Text.Length > QuizText.LongestText)
            throw Problem.Field("text", $"This is too long: {QuizText.LongestText:N0} characters at most.");
        var read = QuizText.Read(request.Text);
        return read.Questions is { } questions
            ? new(
                read.Lines,
                questions.Length,
                QuizText.Write(new() { Questions = questions, Draws = read.Draws }),
                QuestionForm.Of(questions, read.Draws)
            )
            : new(read.Lines, null, null, null);
    }
}
