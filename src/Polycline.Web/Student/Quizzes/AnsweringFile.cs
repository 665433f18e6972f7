using System.Text.Json;
using Polycline.Core;
using Polycline.Data.Files;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Student.Quizzes;

/// <summary>A question that is answered with a file: its answer is the file's name.</summary>
internal static class AnsweringFile
{
    /// <summary>Keeps what was sent as a file of somebody's work.</summary>
    /// <param name="answer">An object that names the <c>upload</c>.</param>
    /// <exception cref="ProblemException">It names none, or not one of theirs.</exception>
    public static async Task<(JsonElement? Answer, Id<WorkFileRow>? File)> Keep(WorkContext work, JsonElement answer)
    {
        if (
            answer.ValueKind != JsonValueKind.Object
            || !answer.TryGetProperty("upload", out var named)
            || named.ValueKind != JsonValueKind.String
            || !named.TryGetGuid(out var upload)
        )
            throw Problem.Field("answer", "This question is answered with a file. Choose one.");
        var sent = (await UploadStore.Sent(work.Connection, [upload])).SingleOrDefault(file => file.Person == work.Access.Person.Id)
            ?? throw Problem.Unknown("answer.upload");
        var kept = await WorkFileStore.Keep(work.Connection, [sent], [null], work.Viewpoint.At);
        return (JsonSerializer.SerializeToElement(sent.Name), kept[0]);
    }
}
