using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Texts;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Texts;

/// <summary>A text as one goes on writing it.</summary>
/// <param name="Base">What is to be named when it is saved: what one began with. Empty: there was no text.</param>
/// <param name="Writing">It has been written on and is not in place yet; null: it is as students read it.</param>
public sealed record TextAnswer(string Base, string Html, WritingLine? Writing);

/// <param name="By">Who wrote in it last.</param>
public sealed record WritingLine(string By, Moment At);

/// <summary>Reads a text that the team is writing: as it was saved last, or as it stands in the item.</summary>
public static class ReadText
{
    public static async Task<TextAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("This text");
        var found = (await compiled.Edition(access)).Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        var address = $"/api/editions/{edition}/items/{item}";
        return await database.Read(
            async connection =>
            {
                if (await TextDraftStore.Of(connection, new(item)) is { } draft)
                    return new TextAnswer(
                        draft.Hash,
                        Pictures.Shown(draft.Html, address)!,
                        new(draft.By, Moment.Of(draft.At, access.Zone))
                    );
                var html = TextBlocks.Named(await BodyStore.Read(connection, found.Body) ?? "");
                return new(found.Body ?? "", Pictures.Shown(html, address)!, null);
            },
            stop
        );
    }
}
