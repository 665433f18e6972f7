using Microsoft.AspNetCore.Mvc;
using Polycline.Data;
using Polycline.Data.Rosters;
using Polycline.Formats.Rosters;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Rosters;

/// <param name="Imports">The latest first, at most 20.</param>
public sealed record RostersAnswer(IReadOnlyList<RosterImport> Imports);

/// <param name="Words">Who imported what and when.</param>
/// <param name="TakenBack">It was taken back again.</param>
public sealed record RosterImport(long Import, string Words, string Sentence, bool TakenBack);

/// <summary>Rosters: who is in which section, from a file of somebody else's.</summary>
public static class RosterRoutes
{
    public static void MapRosters(this IEndpointRouteBuilder routes)
    {
        routes
            .MapPost("/api/school/roster-columns", FindColumns.Handle)
            .WithName("roster-columns")
            .For(May.School)
            .ProducesProblems(422)
            .WithMetadata(new RequestSizeLimitAttribute(RosterFile.LargestRequest));
        routes.MapWork<ImportRoster, ImportRosterRequest, Roster, ImportRosterAnswer>();
        routes.MapWork<TakeBackRoster, TakeBackRosterRequest, TakeBackRosterAnswer>();
        routes.MapWork<SetAsideRoster, SetAsideRosterRequest, DoneAnswer>();
        routes.MapGet("/api/terms/{term:long}/roster-feed", FetchedRoster.Read).WithName("roster-feed").For(May.Office);
        routes.MapGet("/api/terms/{term:long}/roster-feed/{fetch:long}", FetchedRoster.File).WithName("fetched-roster").For(May.Office);
        routes
            .MapPost("/api/terms/{term:long}/fetch-roster", FetchedRoster.Fetch)
            .WithName("fetch-roster")
            .For(May.Office)
            .ProducesProblems(404);
        routes.MapGet("/api/terms/{term:long}/rosters", Imports).WithName("rosters").For(May.Office);
    }

    private static async Task<RostersAnswer> Imports(long term, Access access, Database database, CancellationToken stop) =>
        new([
            .. (await database.Read(connection => RosterStore.Imports(connection, access.Term!.Value), stop)).Select(
                row => new RosterImport(
                    row.Id,
                    $"{row.By} imported {row.File} on {Moment.Of(row.At, access.Zone).Words}",
                    row.Sentence,
                    row.TakenBack
                )
            ),
        ]);
}
