using Polycline.Core;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.OneStudent;

/// <summary>One student of a course: where they are listed, what is different for them, and what comes of joining late or moving.</summary>
public static class OneStudentRoutes
{
    public static void MapOneStudent(this IEndpointRouteBuilder routes)
    {
        const string student = "/api/editions/{edition:long}/students/{student:long}";
        routes.MapGet("/api/editions/{edition:long}/class-lists", ReadClassLists.Handle).WithName("class-lists").For(May.Team);
        routes.MapGet(student, ReadOneStudent.Handle).WithName("one-student").For(May.Team).ProducesProblems(404);
        routes.MapGet($"{student}/catch-up", ReadCatchUp.Handle).WithName("catch-up").For(May.Team).ProducesProblems(404, 422);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/date-path/{section:long}", ReadDatePath.Handle)
            .WithName("date-path")
            .For(May.Team)
            .ProducesProblems(404);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/who-can", ReadWhoCan.Handle)
            .WithName("who-can")
            .For(May.Team)
            .ProducesProblems(404);
        routes.MapGet($"{student}/items/{{item:long}}/why", ReadWhy.Handle).WithName("why").For(May.Team).ProducesProblems(404);
        routes.MapGet($"{student}/move", ReadMove.Handle).WithName("move").For(May.Team).ProducesProblems(400, 404, 422);
        routes.MapEditionCommand<ForStudents, ForStudentsRequest>();
        routes.MapEditionCommand<Arrange, ArrangeRequest>();
        routes.MapEditionCommand<SetHome, SetHomeRequest>();
        routes.MapEditionCommand<JoinStudents, IReadOnlyList<KnownPerson>, JoinStudentsRequest>();
        routes.MapEditionCommand<LeaveSection, LeaveSectionRequest>();
        routes.MapEditionCommand<MoveStudents, IReadOnlyDictionary<Id<Person>, StudentRecord>, MoveStudentsRequest>();
        routes.MapEditionCommand<AcceptCatchUp, AcceptCatchUpRequest>();
    }
}
