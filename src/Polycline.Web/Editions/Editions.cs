using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Editions;

/// <summary>Editions: next term, last term.</summary>
public static class EditionRoutes
{
    public static void MapEditions(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/editions", ReadEditions.Handle).WithName("editions").For(May.Team);
        routes
            .MapPost("/api/editions/{edition:long}/roll-over", RollOver.Handle)
            .WithName("roll-over")
            .For(May.Team)
            .ProducesProblems(403, 404, 409, 422);
        routes.MapGet("/api/editions/{edition:long}/plan.json", ExportCourse.HandlePlan).WithName("plan-file").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/course.zip", ExportCourse.HandlePackage).WithName("package").For(May.Team);
        routes
            .MapPost("/api/editions/{edition:long}/take-in", TakeInCourse.Handle)
            .WithName("take-in")
            .For(May.Team)
            .ProducesProblems(404, 409, 422);
        routes
            .MapPost("/api/editions/{edition:long}/take-back-course", TakeBackCourse.Handle)
            .WithName("take-back-course")
            .For(May.Team)
            .ProducesProblems(403, 404, 409);
        routes
            .MapPost("/api/editions/{edition:long}/end", EndEdition.Handle)
            .WithName("end-edition")
            .For(May.Team)
            .ProducesProblems(403, 409, 422);
        routes
            .MapPost("/api/editions/{edition:long}/resume", EndEdition.HandleResume)
            .WithName("resume-edition")
            .For(May.Team)
            .ProducesProblems(403, 409);
        routes
            .MapPost("/api/editions/{edition:long}/take-back-roll-over", TakeBackRollOver.Handle)
            .WithName("take-back-roll-over")
            .For(May.Team)
            .ProducesProblems(403, 404, 409);
    }
}
