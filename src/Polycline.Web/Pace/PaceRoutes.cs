using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Pace;

/// <summary>Pace: where is everybody?</summary>
public static class PaceRoutes
{
    public static void MapPace(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/pace", ReadPace.Handle).WithName("pace").For(May.Team);
        routes.MapEditionCommand<ConfirmTaught, ConfirmTaughtRequest>();
        routes.MapEditionCommand<ChangeClasses, ChangeClassesRequest>();
    }
}
