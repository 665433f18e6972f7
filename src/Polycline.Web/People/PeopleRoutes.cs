using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.People;

/// <summary>People: everybody with an account, for the school's office.</summary>
public static class PeopleRoutes
{
    public static void MapPeople(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/people", ReadPeople.Handle).WithName("people").For(May.School);
        routes.MapGet("/api/people/record", ReadRecord.Handle).WithName("record").For(May.School).ProducesProblems(400);
        routes
            .MapGet("/api/people/{person:long}/data", ReadPersonData.Handle)
            .WithName("person-data")
            .For(May.School)
            .ProducesProblems(404);
        routes.MapWork<ErasePerson, ErasePersonRequest, ErasedAnswer>();
        routes.MapWork<JoinPeople, JoinPeopleRequest, JoinedAnswer>();
        routes.MapWork<SeparatePeople, PersonRequest, DoneAnswer>();
        routes.MapWork<RenameSchool, RenameSchoolRequest, DoneAnswer>();
        routes.MapWork<AddPeople, AddPeopleRequest, AddPeopleAnswer>();
        routes.MapWork<InvitePeople, InvitePeopleRequest, InvitedAnswer>();
        routes.MapWork<DeactivatePerson, PersonRequest, DoneAnswer>();
        routes.MapWork<ReactivatePerson, PersonRequest, DoneAnswer>();
        routes.MapWork<EndSessions, PersonRequest, DoneAnswer>();
        routes.MapWork<SetRole, SetRoleRequest, DoneAnswer>();
        var welcome = $"/api/welcome/{{token:length({OneTimeToken.Length})}}";
        routes.MapGet(welcome, Welcome.Read).WithName("welcome").For(May.Anyone).ProducesProblems(404);
        routes.MapPost(welcome, Welcome.SetPassword).WithName("set-password").For(May.Anyone).ProducesProblems(404, 422);
    }
}
