using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
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
public sealed class ConditionItem : IEditionCommand<ConditionItemRequest, EditionPlan>
{
    public static string Name => "condition-item";

    public static May May => May.Team;

    public static IValidator<ConditionItemRequest> Validator { get; } = new InlineValidator<ConditionItemRequest>();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, ConditionItemRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, ConditionItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var gate = plan.GateOf(request.Gate, "gate", plan.Needed(request.Item, "item"));
        if (gate is not null && gate.Root.Leaves().Any(leaf => leaf.ItemOf == item.Ref))
            throw Problem.Field("gate", "It cannot wait for itself: name another one.");
        var (before, after) = (item.Gate is null ? null : PlanParts.Json(item.Gate), gate is null ? null : PlanParts.Json(gate));
        if (before == after)
            return new($"left “{item.Title}” as it is", []);
        var words = new GateWords(named => plan.Schedule.CodeOf[named], plan.TitleOf, plan.Edition.Levels);
        return new(
            gate is null ? $"took the condition off “{item.Title}”" : $"set a condition on “{item.Title}”: when {words.Of(gate.Root)}",
            [Change.Of("item", request.Item, request.Version, new() { ["gate"] = Node(before) }, new() { ["gate"] = Node(after) })]
        );
    }

    private static JsonNode? Node(string? json) => json is null ? null : JsonNode.Parse(json);
}
