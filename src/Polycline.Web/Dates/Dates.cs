using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Dates;

/// <summary>Dates: when does what open and fall due, where?</summary>
public static class DatesRoutes
{
    public static void MapDates(this IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/editions/{edition:long}/dates.csv", ReadDates.HandleCsv)
            .WithName("dates-csv")
            .For(May.Team)
            .Produces(200, contentType: "text/csv");
        routes.MapGet("/api/editions/{edition:long}/dates", ReadDates.Handle).WithName("dates").For(May.Team);
    }
}
