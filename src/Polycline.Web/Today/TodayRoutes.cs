using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Today;

/// <summary>Today: what needs me?</summary>
public static class TodayRoutes
{
    public static void MapToday(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/today", ReadToday.Handle).WithName("today").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/checks", ReadChecks.Handle).WithName("checks").For(May.Team);
        routes.MapWork<SettleCannotOpen, SettleCannotOpenRequest, DoneAnswer>();
        routes.MapWork<MarkChangesSeen, ChangesSeenRequest, DoneAnswer>();
    }
}
