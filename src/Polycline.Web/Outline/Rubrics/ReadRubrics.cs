using Polycline.Core;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Rubrics;

/// <param name="Where">The course, its edition and the item it was used for last; since when it is on the shelf.</param>
/// <param name="Items">How many items have it, in all these courses; 0 for one on the shelf.</param>
/// <param name="Kept">Its place on the shelf of whoever asks; null: it is not there.</param>
public sealed record KnownRubric(RubricForm Rubric, string Where, int Items, Id<KeptRubric>? Kept = null);

/// <summary>
/// The rubrics on the shelf of whoever asks, and those of all courses that they are in the team of: those kept or used last come first.
/// </summary>
public static class ReadRubrics
{
    public static async Task<IReadOnlyList<KnownRubric>> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The rubrics of your courses");
        var term = (await compiled.Edition(access)).Term;
        return await database.Read<IReadOnlyList<KnownRubric>>(
            async connection =>
            {
                var kept = await KeptRubrics.Of(connection, access.Person.Id);
                var used = await RubricStore.OfTeams(connection, access.Person.Id);
                return
                [
                    .. kept.Select(one => new KnownRubric(
                        RubricForm.Of(one.Rubric)!,
                        $"on your shelf since {Moment.InWords(term.Local(one.At).Date, term.Local(viewpoint.Now).Date)}",
                        0,
                        one.Id
                    )),
                    .. used.Select(row => new KnownRubric(RubricForm.Of(row.Rubric)!, row.Where, row.Items)),
                ];
            },
            stop
        );
    }
}
