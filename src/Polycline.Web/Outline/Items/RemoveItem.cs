using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Items;

/// <param name="Version">The version of the item that was read.</param>
public sealed record RemoveItemRequest(Id<Item> Item, long Version);

/// <summary>Takes an item out of the course.</summary>
public sealed class RemoveItem : IPlanningCommand<EditionPlan, RemoveItemRequest>
{
    public static string Name => "remove-item";

    public static CommandDecision Decide(EditionPlan plan, RemoveItemRequest request, Viewpoint viewpoint) =>
        Removing.Decide(plan, plan.Needed(request.Item, "item"), request.Version, viewpoint);
}
