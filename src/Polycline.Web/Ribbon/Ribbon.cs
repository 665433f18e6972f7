using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Ribbon;

/// <summary>The ribbon: the term as a strip of weeks, and the moment on it.</summary>
public static class RibbonRoutes
{
    public static void MapRibbon(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/editions/{edition:long}/ribbon", ReadRibbon.Handle).WithName("ribbon").For(May.Team);
}
