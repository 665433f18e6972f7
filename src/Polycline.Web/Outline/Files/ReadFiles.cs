using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Choices;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.Texts;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Files;

/// <summary>The files and pictures of items, for their team.</summary>
public static class ReadFiles
{
    /// <summary>A file of an item, including one that was replaced or removed.</summary>
    public static async Task<IResult> HandleFile(long edition, long item, long file, [AsParameters] FileAsked asked)
    {
        await Needed(item, asked);
        var found = (await asked.Read(connection => ItemFileStore.Of(connection, new(item)))).FirstOrDefault(one => one.Id.Value == file);
        return asked.Answer(found?.Name, found?.Stored);
    }

    /// <summary>A picture in an item's text, quiz or choice, as it stands or as the team is writing it.</summary>
    public static async Task<IResult> HandlePicture(long edition, long item, string picture, [AsParameters] FileAsked asked)
    {
        var found = await Needed(item, asked);
        return asked.AnswerPicture(
            await asked.Read(async connection =>
                await Pictures.Of(connection, found.Body, picture)
                ?? await Pictures.Of(connection, found.Quiz, picture)
                ?? await Pictures.Of(connection, OptionPictures.Kept(found.Offered)?.Hash, picture)
                ?? await Pictures.Of(connection, (await TextDraftStore.Of(connection, new(item)))?.Hash, picture)
                ?? await Pictures.Put(connection, new(item), null, picture)
            )
        );
    }

    private static async Task<Item> Needed(long item, FileAsked asked)
    {
        asked.Viewpoint.NeedsTeam("This file");
        return (await asked.Compiled.Edition(asked.Access)).Item(new Id<Item>(item)) ?? throw Problem.Unknown();
    }
}
