using System.Text.Json;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline;

/// <summary>Where conditions stand, and what may be set there.</summary>
internal static class ConditionPlaces
{
    /// <summary>Null: there is nothing of that id.</summary>
    public static TreeRow? PlaceOf(this EditionPlan plan, Level of, long id) =>
        (
            of switch
            {
                Level.Unit => plan.Row(new Id<Unit>(id)),
                Level.Lesson => plan.Row(new Id<Lesson>(id)),
                _ => plan.Row(new Id<Item>(id)),
            }
        )
            is { } row
        && plan.IsHere(row)
            ? row
            : null;

    /// <summary>Conditions in words, items by their codes.</summary>
    public static GateWords GateWords(this EditionPlan plan) =>
        new(named => plan.Schedule.CodeOf[named], plan.TitleOf, plan.Edition.Levels, plan.OptionOf);

    /// <summary>A condition in the plan file's form; null: none.</summary>
    public static JsonElement? Stored(this Gate? gate) =>
        gate is null ? null : JsonSerializer.Deserialize<JsonElement>(PlanParts.Json(gate));

    /// <summary>Reads a condition that is to be set somewhere.</summary>
    /// <exception cref="ProblemException">It has not the form of one, names nothing here, or could not be met there.</exception>
    public static Gate? ConditionOf(this EditionPlan plan, TreeRow row, JsonElement? json, string field)
    {
        var gate = plan.GateOf(json, field, row);
        if (gate is null)
            return null;
        var levels = plan.Edition.Levels;
        if (row.Level != Level.Item && row.Section is not null)
            throw Problem.Field(field, $"What belongs to one section has conditions on its {levels.Item.Many} only. Set it on those.");
        if (plan.Row(row.Unit) is { Section: null } unit && plan.UnitOf(unit).Welcome)
            throw Problem.Field(field, $"The welcome {levels.Unit.One} is always open. Nothing in it can wait for a condition.");
        if (row.Level == Level.Item)
        {
            if (gate.Root.Leaves().Any(leaf => leaf.ItemOf?.Name == row.Lineage))
                throw Problem.Field(field, "It cannot wait for itself. Choose another one.");
            return gate;
        }
        // Nobody could do what is shut in behind the condition that asks for it.
        foreach (var named in gate.Root.Leaves().Select(leaf => leaf.ItemOf).OfType<Ref<Item>>())
            if (plan.Row(named) is var inside && (row.Level == Level.Unit ? inside.Unit == row.Unit : inside.Lesson == row.Lesson))
                throw Problem.Field(
                    field,
                    $"“{plan.TitleOf(named.Name)}” is in this {levels.Of(row.Level).One} itself and would wait with it. "
                        + "Choose one outside it."
                );
        return gate;
    }
}
