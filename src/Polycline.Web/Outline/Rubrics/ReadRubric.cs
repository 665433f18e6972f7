using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Formats;
using Polycline.Formats.Rubrics;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Rubrics;

/// <param name="Rubric">Null: the item has none.</param>
/// <param name="Version">The version of the item.</param>
public sealed record ItemRubricAnswer(RubricForm? Rubric, long Version);

/// <summary>The rubric of an item, for its team.</summary>
public static class ReadRubric
{
    public static async Task<ItemRubricAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("A rubric");
        var plan = await compiled.Edition(access);
        var found = plan.Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        return new(
            RubricForm.Of(await database.Read(connection => BodyStore.Rubric(connection, found.Rubric), stop)),
            plan.Row(found.Ref).Version
        );
    }

    /// <summary>The same as a table for a spreadsheet.</summary>
    public static async Task<IResult> HandleCsv(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("A rubric");
        var plan = await compiled.Edition(access);
        var found = plan.Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        return await database.Read(connection => BodyStore.Rubric(connection, found.Rubric), stop) is { } rubric
            ? Results.File(Csv.Write(RubricTable.Write(rubric)), "text/csv; charset=utf-8", "rubric.csv")
            : throw Problem.Unknown();
    }
}
