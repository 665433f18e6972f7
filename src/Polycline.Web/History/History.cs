using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.History;

/// <summary>What was changed, by whom, and taking it back.</summary>
public static class HistoryRoutes
{
    public static void MapHistory(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/history", ReadHistory.Handle).WithName("history").For(May.Team);
        routes.MapGet("/api/terms/{term:long}/history", ReadHistory.HandleTerm).WithName("term-history").For(May.Office);
        routes.MapTermCommand<Undo, UndoneBatch, UndoRequest>();
        routes.MapEditionCommand<Undo, UndoneBatch, UndoRequest>();
    }
}
