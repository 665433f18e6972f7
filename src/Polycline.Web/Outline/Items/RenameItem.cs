using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Title">1 to 200 characters; spaces around it are dropped.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record RenameItemRequest(Id<Item> Item, string Title, long Version);

/// <summary>Gives an item another title, in every section at once.</summary>
public sealed class RenameItem : IPlanningCommand<EditionPlan, RenameItemRequest>
{
    public static string Name => "rename-item";

    public static IValidator<RenameItemRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, RenameItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var title = request.Title.Trim();
        return item.Title == title
            ? new($"left {item.Title} as it is", [])
            : new(
                $"renamed “{item.Title}” to “{title}”",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Title.Turns(item.Title, title))]
            );
    }

    private sealed class Rules : AbstractValidator<RenameItemRequest>
    {
        public Rules() => RuleFor(request => request.Title).IsTitle();
    }
}
