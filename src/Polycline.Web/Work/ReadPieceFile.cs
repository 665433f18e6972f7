using Polycline.Data.Files;
using Polycline.Data.Quizzes;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Work;

/// <summary>A file that a student of the section handed in, for those who read the section's work.</summary>
public static class ReadPieceFile
{
    public static async Task<IResult> Handle(long section, long file, [AsParameters] FileAsked asked)
    {
        asked.Viewpoint.NeedsTeam("Students’ work");
        var here = asked.Access.Section ?? throw Problem.Unknown();
        var found = await asked.Read(async connection =>
            await WorkFileStore.OfSection(connection, here, new(file)) ?? await AnswerFiles.OfSection(connection, here, new(file))
        );
        return asked.Answer(found?.Name, found?.Stored);
    }
}
