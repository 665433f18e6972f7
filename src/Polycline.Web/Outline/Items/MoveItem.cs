using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Unit">The unit it then stands in.</param>
/// <param name="Lesson">The lesson of that unit it is then on; null: on the unit itself.</param>
/// <param name="After">The item it then comes after; null: first.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record MoveItemRequest(Id<Item> Item, Id<Unit> Unit, Id<Lesson>? Lesson, Id<Item>? After, long Version);

/// <summary>Puts an item at another place, or on another lesson.</summary>
public sealed class MoveItem : IEditionCommand<MoveItemRequest, EditionPlan>
{
    public static string Name => "move-item";

    public static May May => May.Team;

    public static IValidator<MoveItemRequest> Validator { get; } = new InlineValidator<MoveItemRequest>();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, MoveItemRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, MoveItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Needed(request.Item, "item");
        var unit = plan.Needed(request.Unit, "unit");
        if (request.Lesson is { } lesson && plan.Needed(lesson, "lesson").Unit != unit.Id)
            throw Problem.Unknown("lesson");
        plan.MayStandIn(item.Section, unit);
        plan.MayStandIn(item.Section, request.Lesson is { } on ? plan.Needed(on, "lesson") : null);
        return Moving.Decide(
            plan,
            item,
            request.Version,
            new() { ["unit"] = (item.Unit, unit.Id), ["lesson"] = (item.Lesson, request.Lesson?.Value) },
            plan.Siblings("item", unit.Id, request.Lesson?.Value),
            request.After?.Value
        );
    }
}
