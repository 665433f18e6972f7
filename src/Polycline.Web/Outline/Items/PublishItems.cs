using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Unit">The unit they are in; it is published with them.</param>
/// <param name="Items">1 to 500, each of them once.</param>
/// <param name="Version">The version of the unit that was read.</param>
public sealed record PublishItemsRequest(Id<Unit> Unit, IReadOnlyList<PublishedItem> Items, long Version);

/// <param name="Opens">When it is to open, in the plan file's form; null: as soon as it is published.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record PublishedItem(Id<Item> Item, JsonElement? Opens, long Version);

/// <summary>Publishes several items of a unit together, each with its moment, and the unit where it is not published yet.</summary>
public sealed class PublishItems : IPlanningCommand<EditionPlan, PublishItemsRequest>
{
    public static string Name => "publish-items";

    public static IValidator<PublishItemsRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, PublishItemsRequest request, Viewpoint viewpoint)
    {
        var unit = plan.Needed(request.Unit, "unit");
        var changes = new List<Change>();
        if (!plan.UnitOf(unit).Published)
            changes.Add(Change.Set(Tables.Units.Table, request.Unit, request.Version, Tables.Units.Published.Turns(false, true)));
        for (var n = 0; n < request.Items.Count; n++)
        {
            var asked = request.Items[n];
            var row = plan.Needed(asked.Item, $"items[{n}].item");
            if (row.Unit != request.Unit)
                throw Problem.Unknown($"items[{n}].item");
            var item = plan.Schedule.Item(new(row.Lineage));
            var opens = plan.AnchorOf(asked.Opens, $"items[{n}].opens", row);
            TimeItem.NotOnItself(opens, DateField.Opens, $"items[{n}].opens");
            if (item.Published && opens == item.Opens)
                continue;
            changes.Add(
                Change.Set(
                    Tables.Items.Table,
                    asked.Item,
                    asked.Version,
                    Tables.Items.Published.Turns(item.Published, true),
                    Tables.Items.Opens.Turns(item.Opens, opens)
                )
            );
        }
        var count = plan.Edition.Levels.Item.Counted(changes.Count(change => change.Table == Tables.Items.Table));
        return changes.Count == 0
            ? new($"left “{plan.TitleOf(unit.Lineage)}” as it is", [])
            : new($"published {count} of “{plan.TitleOf(unit.Lineage)}”", changes)
            {
                Act = $"Publish {count} in {plan.Where(unit.Section)}",
            };
    }

    private sealed class Rules : AbstractValidator<PublishItemsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Items)
                .Must(items => items.Count is > 0 and <= 500)
                .WithMessage("Choose from 1 to 500 to publish at once.");
            RuleFor(request => request.Items)
                .Must(items => items.DistinctBy(item => item.Item).Count() == items.Count)
                .WithMessage("One is chosen twice.");
        }
    }
}
