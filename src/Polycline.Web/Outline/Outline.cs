using Polycline.Data.Courses;
using Polycline.Web.Foundation;

namespace Polycline.Web.Outline;

/// <summary>Outline: what is the course?</summary>
public static class OutlineRoutes
{
    public static void MapOutline(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/outline", ReadOutline.Handle).WithName("outline").For(May.Team);
        routes.MapCommand<RenameItem, RenameItemRequest, EditionPlan>();
    }
}
