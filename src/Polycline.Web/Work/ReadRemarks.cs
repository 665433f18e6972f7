using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <summary>
/// What the viewer has remarked before, to be said again: nobody else's, since what a colleague said may name a student of theirs.
/// </summary>
public static class ReadRemarks
{
    /// <returns>At most 300: what was said about the same item first, in any course, then what was said most often.</returns>
    public static async Task<IReadOnlyList<RemarkMade>> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Remarks made before");
        var plan = await compiled.Edition(access);
        var about = new Id<Item>(item);
        if (plan.Row(about) is null)
            throw Problem.Unknown();
        return await database.Read(connection => WorkStore.RemarksMade(connection, access.Person.Id, about, viewpoint.At), stop);
    }
}
