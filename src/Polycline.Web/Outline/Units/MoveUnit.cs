using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Units;

/// <param name="After">The unit it then comes after; null: first.</param>
/// <param name="Version">The version of the unit that was read.</param>
public sealed record MoveUnitRequest(Id<Unit> Unit, Id<Unit>? After, long Version);

/// <summary>Puts a unit, with all it holds, at another place.</summary>
public sealed class MoveUnit : IPlanningCommand<EditionPlan, MoveUnitRequest>
{
    public static string Name => "move-unit";

    public static CommandDecision Decide(EditionPlan plan, MoveUnitRequest request, Viewpoint viewpoint) =>
        Moving.Decide(
            plan,
            plan.Needed(request.Unit, "unit"),
            request.Version,
            [],
            plan.Siblings(Level.Unit, null, null),
            request.After?.Value
        );
}
