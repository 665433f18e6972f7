using Polycline.Core;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Groups;

/// <summary>Groups: for whom parts of a course are.</summary>
public static class GroupRoutes
{
    public static void MapGroups(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/groups", ReadGroups.Handle).WithName("groups").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/draw-groups", DrawGroups.Handle).WithName("draw-groups").For(May.Team);
        routes.MapEditionCommand<AddGroup, AddGroupRequest>();
        routes.MapEditionCommand<RemoveGroup, RemoveGroupRequest>();
        routes.MapEditionCommand<PutInGroup, PutInGroupRequest>();
        routes.MapEditionCommand<GroupStudents, IReadOnlyList<Id<GroupRow>>, GroupStudentsRequest>();
        routes.MapEditionCommand<ItemForWhom, ItemForWhomRequest>();
    }
}
