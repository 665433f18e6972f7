using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.LinkChecks;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Links;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Items;

/// <summary>Tries where a link leads, now.</summary>
public static class CheckLink
{
    public static async Task<LinkAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        LinkChecks links,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Where this leads");
        if (!viewpoint.TakesCommands)
            throw viewpoint.ReadsOnly ? Problem.ReadsOnly() : Problem.NotNow();
        var plan = await compiled.Edition(access);
        var address = plan.Item(new Polycline.Core.Id<Item>(item))?.Address ?? throw Problem.Unknown("item");
        await links.Check(address, stop);
        var row = await database.Read(connection => LinkCheckStore.Of(connection, new(item)), stop);
        return LinkAnswer.Of(row, access.Zone) ?? throw Problem.Unknown("item");
    }
}
