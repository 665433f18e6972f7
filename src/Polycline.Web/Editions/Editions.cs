using Polycline.Web.Foundation;

namespace Polycline.Web.Editions;

/// <summary>Editions: next term, last term.</summary>
public static class EditionRoutes
{
    public static void MapEditions(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/editions", ReadEditions.Handle).WithName("editions").For(May.Team);
        routes.MapPost("/api/editions/{edition:long}/roll-over", RollOver.Handle).WithName("roll-over").For(May.Team).ProducesProblems(403, 404, 409, 422);
        routes.MapPost("/api/editions/{edition:long}/take-back-roll-over", TakeBackRollOver.Handle).WithName("take-back-roll-over").For(May.Team).ProducesProblems(403, 404, 409);
    }
}
