using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Ready;

/// <summary>Is it ready? What a section lacks before its students come to it.</summary>
public static class ReadyRoutes
{
    public static void MapReady(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/editions/{edition:long}/ready/{section:long}", ReadReady.Handle)
            .WithName("readiness")
            .For(May.Team)
            .ProducesProblems(404, 422);
}
