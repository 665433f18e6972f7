using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Rubrics;

/// <param name="Where">The course, its edition and the item it was used for last.</param>
/// <param name="Items">How many items have it, in all these courses.</param>
public sealed record KnownRubric(RubricForm Rubric, string Where, int Items);

/// <summary>The rubrics of all courses that whoever asks is in the team of: those used last come first.</summary>
public static class ReadRubrics
{
    public static async Task<IReadOnlyList<KnownRubric>> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The rubrics of your courses");
        var rows = await database.Read(connection => RubricStore.OfTeams(connection, access.Person.Id), stop);
        return [.. rows.Select(row => new KnownRubric(RubricForm.Of(row.Rubric)!, row.Where, row.Items))];
    }
}
