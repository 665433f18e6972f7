using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Groups;

/// <summary>Groups: for whom parts of a course are.</summary>
public static class GroupRoutes
{
    public static void MapGroups(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/groups", ReadGroups.Handle).WithName("groups").For(May.Team);
        routes.MapCommand<AddGroup, AddGroupRequest, EditionPlan>();
        routes.MapCommand<RemoveGroup, RemoveGroupRequest, EditionPlan>();
        routes.MapCommand<PutInGroup, PutInGroupRequest, GroupPlan>();
        routes.MapCommand<ItemForWhom, ItemForWhomRequest, EditionPlan>();
    }
}
