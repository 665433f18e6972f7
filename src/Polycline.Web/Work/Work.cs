using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Work;

/// <summary>Work: what is there to read?</summary>
public static class WorkRoutes
{
    public static void MapWork(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/work", ReadWork.Handle).WithName("work").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/handed-in", ReadHandedIn.Handle).WithName("handed-in").For(May.Team);
        routes
            .MapGet("/api/sections/{section:long}/work-files/{file:long}", ReadPieceFile.Handle)
            .WithName("piece-file")
            .SendsBytes()
            .For(May.SectionTeacher);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/students/{student:long}/versions", ReadVersions.Handle)
            .WithName("versions")
            .For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/items/{item:long}/remarks", ReadRemarks.Handle).WithName("remarks").For(May.Team);
        routes.MapGet("/api/sections/{section:long}/missing", ReadMissing.Handle).WithName("missing").For(May.SectionTeacher);
        routes.MapWork<RemindStudents, RemindStudentsRequest, EditionPlan, RemindedAnswer>();
        routes.MapWork<MarkAnswers, MarkAnswersRequest, EditionPlan, MarkAnswersAnswer>();
        routes.MapWork<TakeToRead, TakeToReadRequest, EditionPlan, TakenToRead>();
        routes.MapWork<ReadyMark, GiveBackRequest, EditionPlan, ReadyAnswer>();
        routes.MapWork<GiveBackReady, GiveBackReadyRequest, EditionPlan, GivenBackReady>();
        routes.MapWork<GiveBack, GiveBackRequest, EditionPlan, GiveBackAnswer>();
    }
}
