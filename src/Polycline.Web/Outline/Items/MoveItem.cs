using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
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
public sealed class MoveItem : IPlanningCommand<EditionPlan, MoveItemRequest>
{
    public static string Name => "move-item";

    public static CommandDecision Decide(EditionPlan plan, MoveItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Needed(request.Item, "item");
        var unit = plan.Needed(request.Unit, "unit");
        if (request.Lesson is { } lesson && plan.Needed(lesson, "lesson").Unit != unit.Unit)
            throw Problem.Unknown("lesson");
        plan.MayStandIn(item.Section, unit);
        plan.MayStandIn(item.Section, request.Lesson is { } on ? plan.Needed(on, "lesson") : null);
        return Moving.Decide(
            plan,
            item,
            request.Version,
            [Tables.Items.Unit.Turns(item.Unit, unit.Unit), Tables.Items.Lesson.Turns(item.Lesson, request.Lesson)],
            plan.Siblings(Level.Item, unit.Unit, request.Lesson),
            request.After?.Value
        );
    }
}
