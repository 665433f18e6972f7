using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Published">Whether students may know of it at all.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record PublishItemRequest(Id<Item> Item, bool Published, long Version);

/// <summary>Publishes an item, or takes it back to the team. Published is not open: when it opens is its timing's matter.</summary>
public sealed class PublishItem : IPlanningCommand<EditionPlan, PublishItemRequest>
{
    public static string Name => "publish-item";

    public static CommandDecision Decide(EditionPlan plan, PublishItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        return item.Published == request.Published
            ? new($"left “{item.Title}” as it is", [])
            : new(
                $"{(request.Published ? "published" : "unpublished")} “{item.Title}”",
                [
                    Change.Set(
                        Tables.Items.Table,
                        request.Item,
                        request.Version,
                        Tables.Items.Published.Turns(item.Published, request.Published)
                    ),
                ]
            )
            {
                Act = $"{(request.Published ? "Publish" : "Unpublish")} in {plan.Where(plan.Row(request.Item)!.Section)}",
            };
    }
}
