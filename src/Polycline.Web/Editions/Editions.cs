using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Editions;

/// <summary>Editions: next term, last term.</summary>
public static class EditionRoutes
{
    public static void MapEditions(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/editions", ReadEditions.Handle).WithName("editions").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/plan.json", ExportCourse.HandlePlan).WithName("plan-file").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/course.zip", ExportCourse.HandlePackage).WithName("package").For(May.Team);
        routes.MapWork<RollOver, RollOverRequest, RollOverAnswer>();
        routes.MapWork<TakeBackRollOver, TakeBackRollOverRequest, TakenBackAnswer>();
        routes.MapWork<EndEdition, EndEditionRequest, EndEditionAnswer>();
        routes.MapWork<ResumeEdition, ResumeEditionRequest, DoneAnswer>();
        routes.MapWork<TakeInCourse, TakeInRequest, TakeInAnswer>();
        routes.MapWork<MakeCourse, MakeCourseRequest, MakeCourseAnswer>();
        routes.MapWork<TakeBackCourse, TakeBackCourseRequest, DoneAnswer>();
    }
}
