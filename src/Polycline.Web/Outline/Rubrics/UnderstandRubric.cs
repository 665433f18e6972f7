using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking.Papers;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Formats.Rubrics;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Rubrics;

/// <param name="Item">The item it is for: what it has already keeps its place.</param>
/// <param name="Text">Comma-separated text, or cells copied from a spreadsheet.</param>
public sealed record UnderstandRubricRequest(Id<Item> Item, string Text);

/// <param name="Criteria">Null: something is at fault.</param>
public sealed record UnderstoodRubric(IReadOnlyList<CriterionForm>? Criteria, IReadOnlyList<RubricFault> Faults);

/// <summary>Reads a rubric from a table and says what is at fault, by row and column. Nothing is written.</summary>
public static class UnderstandRubric
{
    public static async Task<UnderstoodRubric> Handle(
        long edition,
        UnderstandRubricRequest request,
        Access access,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var plan = await compiled.Edition(access);
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        if (request.Text.Length > RubricTable.LongestText)
            throw Problem.Field("text", $"This is too long: {RubricTable.LongestText:N0} characters at most.");
        var read = RubricTable.Read(request.Text);
        if (read.Criteria is not { } criteria)
            return new(null, read.Faults);
        var earlier = await database.Read(connection => BodyStore.Rubric(connection, item.Rubric), stop);
        return new(RubricForm.Of(new WrittenRubric("", [.. criteria]).KeepingIds(earlier))!.Criteria, []);
    }
}
