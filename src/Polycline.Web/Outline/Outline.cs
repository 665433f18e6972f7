using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline.Items;
using Polycline.Web.Outline.Lessons;
using Polycline.Web.Outline.Units;

namespace Polycline.Web.Outline;

/// <summary>Outline: what is the course?</summary>
public static class OutlineRoutes
{
    public static void MapOutline(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/outline", ReadOutline.Handle).WithName("outline").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/items/{item:long}", ReadItem.Handle).WithName("item").For(May.Team);
        routes.MapCommand<AddUnit, AddUnitRequest, EditionPlan>();
        routes.MapCommand<AddLesson, AddLessonRequest, EditionPlan>();
        routes.MapCommand<AddItem, AddItemRequest, EditionPlan>();
        routes.MapCommand<ChangeCourse, ChangeCourseRequest, EditionPlan>();
        routes.MapCommand<ChangeUnit, ChangeUnitRequest, EditionPlan>();
        routes.MapCommand<DescribeItem, DescribeItemRequest, EditionPlan>();
        routes.MapCommand<ChangeLesson, ChangeLessonRequest, EditionPlan>();
        routes.MapCommand<RenameItem, RenameItemRequest, EditionPlan>();
        routes.MapCommand<MoveUnit, MoveUnitRequest, EditionPlan>();
        routes.MapCommand<MoveLesson, MoveLessonRequest, MoveLessonPlan>();
        routes.MapCommand<MoveItem, MoveItemRequest, EditionPlan>();
        routes.MapCommand<RemoveUnit, RemoveUnitRequest, EditionPlan>();
        routes.MapCommand<RemoveLesson, RemoveLessonRequest, EditionPlan>();
        routes.MapCommand<RemoveItem, RemoveItemRequest, EditionPlan>();
        routes.MapCommand<PublishItem, PublishItemRequest, EditionPlan>();
        routes.MapCommand<PublishItems, PublishItemsRequest, EditionPlan>();
        routes.MapCommand<WriteItem, WriteItemRequest, EditionPlan>();
        routes.MapCommand<TimeItem, TimeItemRequest, EditionPlan>();
        routes.MapCommand<ConditionItem, ConditionItemRequest, EditionPlan>();
    }
}
