using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="Sections">Those that follow the edition, in their order.</param>
public sealed record HandedInAnswer(IReadOnlyList<Id<Section>> Sections, IReadOnlyList<HandedInRow> Items);

/// <param name="Students">How many of each section have handed it in, in the order of the sections.</param>
public sealed record HandedInRow(Id<Item> Item, IReadOnlyList<int> Students);

/// <summary>Counts for each item how many students of each section have handed it in. Items nobody has handed in are left out.</summary>
public static class ReadHandedIn
{
    public static async Task<HandedInAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("How many have handed in");
        var plan = await compiled.Edition(access);
        var counts = await database.Read(connection => WorkStore.CountHandedIn(connection, plan.Id, viewpoint.At), stop);
        var known = counts.ToDictionary(row => (row.Item, row.Section), row => row.Students);
        return new(
            [.. plan.Sections.Select(section => section.Id)],
            [
                .. counts
                    .Select(row => row.Item)
                    .Distinct()
                    .Select(item => new HandedInRow(
                        item,
                        [.. plan.Sections.Select(section => known.GetValueOrDefault((item, section.Id)))]
                    )),
            ]
        );
    }
}
