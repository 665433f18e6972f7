using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <summary>Everything that a student has handed in for an item, the latest first, for whoever reads their work.</summary>
public static class ReadVersions
{
    public static async Task<IReadOnlyList<HandedIn>> Handle(
        long edition,
        long item,
        long student,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Students’ work");
        var plan = await compiled.Edition(access);
        var (who, what) = (new Id<Person>(student), new Id<Item>(item));
        if (plan.Row(what) is null)
            throw Problem.Unknown();
        var (section, work, feedback) = await database.Read(
            connection => WorkStore.WithFeedback(connection, who, what, viewpoint.At),
            stop
        );
        // To whoever does not read that section's work, none of it is there.
        if (section is not { } here || plan.Following(here) is null || !(access.IsLead || access.Teaches.Contains(here)))
            throw Problem.Unknown();
        return
        [
            .. work.Versions.Select(version =>
                HandedIn.Of(
                    version,
                    [
                        .. work.Listed(version.Files)
                            .Select(file =>
                                FileAnswer.Of(file.Id.Value, file.Name, file.Stored, $"/api/sections/{here}/work-files/{file.Id}")
                            ),
                    ],
                    feedback,
                    plan.Term.Zone
                )
            ),
        ];
    }
}
