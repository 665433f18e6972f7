using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Student;

/// <summary>What students see and do. Whoever looks through a student's eyes gets the very same.</summary>
public static class StudentRoutes
{
    public static void MapStudent(this IEndpointRouteBuilder routes)
    {
        const May Readers = May.SectionStudent | May.SectionTeacher;
        routes.MapGet("/api/sections/{section:long}/now", ReadNow.Handle).WithName("now").For(Readers);
        routes.MapGet("/api/sections/{section:long}/items/{item:long}", ReadItem.Handle).WithName("student-item").For(Readers);
        routes
            .MapPost("/api/sections/{section:long}/items/{item:long}/opened", RecordOpened.Handle)
            .WithName("opened")
            .For(May.SectionStudent)
            .ProducesProblems(404);
        routes
            .MapPost("/api/sections/{section:long}/items/{item:long}/draft", SaveDraft.Handle)
            .WithName("draft")
            .For(May.SectionStudent)
            .ProducesProblems(404, 409, 422);
        routes
            .MapPost("/api/sections/{section:long}/items/{item:long}/hand-in", HandIn.Handle)
            .WithName("hand-in")
            .For(May.SectionStudent)
            .ProducesProblems(404, 409, 422);
    }
}
