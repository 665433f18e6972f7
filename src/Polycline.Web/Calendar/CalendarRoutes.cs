using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Calendar;

/// <summary>When there is school: the office's.</summary>
public static class CalendarRoutes
{
    public static void MapCalendar(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/terms/{term:long}/calendar", ReadCalendar.Handle).WithName("term-calendar").For(May.Office);
        routes
            .MapPost("/api/terms/{term:long}/closures-of-file", FindClosures.Handle)
            .WithName("closures-of-file")
            .For(May.Office)
            .ProducesProblems(422);
        routes.MapGet("/api/terms/{term:long}/ahead", ProposeTerm.Handle).WithName("term-ahead").For(May.Office).ProducesProblems(422);
        routes.MapWork<MakeTerm, MakeTermRequest, MakeTermAnswer>();
        routes.MapWork<RemoveTerm, RemoveTermRequest, DoneAnswer>();
        routes.MapTermCommand<MarkDays, MarkDaysRequest>();
        routes.MapWork<MakeSections, MakeSectionsRequest, MakeSectionsAnswer>();
        routes.MapTermCommand<ChangeSection, ChangeSectionRequest>();
        routes.MapTermCommand<EndSection, EndSectionRequest>();
        routes.MapWork<RemoveSection, RemoveSectionRequest, DoneAnswer>();
        routes.MapTermCommand<SetTerm, SetTermRequest>();
    }
}
