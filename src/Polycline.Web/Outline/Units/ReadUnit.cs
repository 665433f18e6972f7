using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Units;

/// <summary>A unit at a glance, for its team: students read the same of what is published.</summary>
/// <param name="Contents">How much of what: <c>3 pages, 2 tasks and 1 quiz</c>; empty: nothing yet.</param>
/// <param name="Unpublished">How many of these students do not see yet.</param>
/// <param name="Outcomes">What students should be able to do at its end.</param>
public sealed record UnitAnswer(string Contents, int Unpublished, IReadOnlyList<UnitOutcome> Outcomes);

/// <summary>Reads what is in a unit, and what its items are tied to.</summary>
public static class ReadUnit
{
    public static async Task<UnitAnswer> Handle(
        long edition,
        long unit,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("This unit");
        var plan = await compiled.Teaching(access, viewpoint);
        var (_, rows) = plan.ItemsByUnit().FirstOrDefault(pair => pair.Unit.Unit == new Id<Unit>(unit));
        if (rows is null)
            throw Problem.Unknown();
        var items = rows.Select(row => plan.Schedule.Item(new(row.Lineage))).ToList();
        return new(
            UnitContents.Of(items.Select(item => item.Kind)),
            items.Count(item => !item.Published),
            await UnitContents.Outcomes(
                database,
                items.Select(item => ((IReadOnlyList<string>)item.Outcomes, plan.Schedule.CodeOf[item.Ref], false)),
                stop
            )
        );
    }
}
