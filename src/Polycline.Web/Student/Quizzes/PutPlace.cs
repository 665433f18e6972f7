using Polycline.Core;
using Polycline.Core.Marking;
using Polycline.Data.Quizzes;
using Polycline.Web.Foundation.Files;

namespace Polycline.Web.Student.Quizzes;

/// <summary>Where a question is put: what it shows, and what was sent as an answer, is read from there.</summary>
/// <param name="Address">Of the item.</param>
/// <param name="Attempt">In which attempt; null: it is only tried.</param>
internal sealed record PutPlace(string Address, AnswerFiles Files, Id<AttemptRow>? Attempt = null)
{
    public FileAnswer? FileOf(string question, Answer? answer) =>
        Attempt is { } attempt && answer is Answer.Typed { Text: var name } && Files.Of(attempt, question, name) is { } file
            ? FileAnswer.Of(file.Id.Value, file.Name, file.Stored, $"{Address}/work-files/{file.Id}")
            : null;
}
