using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Joining;

/// <param name="Sections">Those of the edition's term that the viewer teaches and that follow no course.</param>
public sealed record JoinableAnswer(IReadOnlyList<JoinableSection> Sections);

/// <param name="Version">To be named when it joins.</param>
public sealed record JoinableSection(Id<Section> Section, string Name, string Letter, long Version);

/// <summary>Joining: sections that start to follow a course.</summary>
public static class JoiningRoutes
{
    public static void MapJoining(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/joinable", Handle).WithName("joinable").For(May.Team);
        routes.MapEditionCommand<JoinSection, Data.Sections.JoiningSection?, JoinSectionRequest>();
    }

    public static async Task<JoinableAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        if (!viewpoint.TakesCommands || access.EditionState == EditionState.Resting)
            return new([]);
        var rows = await database.Read(connection => SectionStore.Joinable(connection, access.Term!.Value, access.Person.Id), stop);
        return new([.. rows.Select(row => new JoinableSection(row.Id, row.Name, row.Letter, row.Version))]);
    }
}
