using System.Text.Json;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Gate">In the plan file's form; null: no condition.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record ConditionItemRequest(Id<Item> Item, JsonElement? Gate, long Version);

/// <summary>Says what must be met before an item opens.</summary>
public sealed class ConditionItem : IPlanningCommand<EditionPlan, ConditionItemRequest>
{
    public static string Name => "condition-item";

    public static CommandDecision Decide(EditionPlan plan, ConditionItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var gate = plan.ConditionOf(plan.Needed(request.Item, "item"), request.Gate, "gate");
        var turn = Tables.Items.Gate.Turns(item.Gate, gate);
        if (!turn.Changes)
            return new($"left “{item.Title}” as it is", []);
        return new(
            gate is null
                ? $"took the condition off “{item.Title}”"
                : $"set a condition on “{item.Title}”: when {plan.GateWords().Of(gate.Root)}",
            [Change.Set(Tables.Items.Table, request.Item, request.Version, turn)]
        );
    }
}
