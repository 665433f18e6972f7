using Polycline.Web.Foundation;

namespace Polycline.Web.History;

/// <summary>What was changed, by whom, and taking it back.</summary>
public static class HistoryRoutes
{
    public static void MapHistory(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/history", ReadHistory.Handle).WithName("history").For(May.Team);
        routes.MapCommand<Undo, UndoRequest, UndoPlan>();
    }
}
