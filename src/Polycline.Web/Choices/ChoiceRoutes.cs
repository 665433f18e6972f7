using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Choices;

/// <summary>Choices: what is offered, what students pick, and for whom a teacher picks.</summary>
public static class ChoiceRoutes
{
    public static void MapChoices(this IEndpointRouteBuilder routes)
    {
        const string item = "/api/sections/{section:long}/items/{item:long}";
        routes.MapEditionCommand<OfferOptions, OptionsInUse, OfferOptionsRequest>();
        routes
            .MapGet($"{item}/offer", ReadOffer.Handle)
            .WithName("offer")
            .For(May.SectionStudent | May.SectionTeacher)
            .ProducesProblems(404);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/picks", ReadPicks.Handle)
            .WithName("picks")
            .For(May.Team)
            .ProducesProblems(404);
        routes.MapWork<PickOptions, PickOptionsRequest, PickingStudents, PickedAnswer>();
        routes.MapWork<PickForStudent, PickForStudentRequest, EditionPlan, PickedAnswer>();
    }
}
