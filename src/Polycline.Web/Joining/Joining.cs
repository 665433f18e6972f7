using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Joining;

/// <param name="Sections">Sections of the edition’s term that the viewer teaches and that could follow it.</param>
public sealed record JoinableAnswer(IReadOnlyList<JoinableSection> Sections);

/// <param name="Version">To be named when it joins.</param>
/// <param name="Holds">The course of its own; null: none.</param>
public sealed record JoinableSection(Id<Section> Section, string Name, string Letter, long Version, string? Holds);

/// <summary>Joining: sections that start to follow a course, and stop.</summary>
public static class JoiningRoutes
{
    public static void MapJoining(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/joinable", Handle).WithName("joinable").For(May.Team);
        routes
            .MapGet("/api/editions/{edition:long}/join-check", ReadJoinCheck.Handle)
            .WithName("join-check")
            .For(May.Team)
            .ProducesProblems(404, 409, 422);
        routes.MapEditionCommand<JoinSection, JoiningSection?, JoinSectionRequest>();
        routes.MapEditionCommand<StopFollowing, StoppingSection, StopFollowingRequest>();
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
        var rows = await database.Read(
            connection => SectionStore.Joinable(connection, access.Term!.Value, access.Person.Id, access.Edition!.Value),
            stop
        );
        return new([.. rows.Select(row => new JoinableSection(row.Id, row.Name, row.Letter, row.Version, row.Holds))]);
    }
}
