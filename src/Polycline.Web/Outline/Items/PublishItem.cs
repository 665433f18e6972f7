using FluentValidation;
using Npgsql;
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
public sealed class PublishItem : IEditionCommand<PublishItemRequest, EditionPlan>
{
    public static string Name => "publish-item";

    public static May May => May.Team;

    public static IValidator<PublishItemRequest> Validator { get; } = new InlineValidator<PublishItemRequest>();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, PublishItemRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, PublishItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        return item.Published == request.Published
            ? new($"left “{item.Title}” as it is", [])
            : new(
                $"{(request.Published ? "published" : "unpublished")} “{item.Title}”",
                [
                    Change.Of(
                        "item",
                        request.Item,
                        request.Version,
                        new() { ["published"] = item.Published },
                        new() { ["published"] = request.Published }
                    ),
                ]
            )
            {
                Act = $"{(request.Published ? "Publish" : "Unpublish")} in {plan.Where(plan.Row(request.Item)!.Section)}",
            };
    }
}
