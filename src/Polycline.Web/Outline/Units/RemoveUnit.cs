using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Units;

/// <param name="Version">The version of the unit that was read.</param>
public sealed record RemoveUnitRequest(Id<Unit> Unit, long Version);

/// <summary>Takes a unit, with all it holds, out of the course. Undo brings it back; work in it is kept.</summary>
public sealed class RemoveUnit : IPlanningCommand<EditionPlan, RemoveUnitRequest>
{
    public static string Name => "remove-unit";

    public static CommandDecision Decide(EditionPlan plan, RemoveUnitRequest request, Viewpoint viewpoint) =>
        Removing.Decide(plan, plan.Needed(request.Unit, "unit"), request.Version, viewpoint);
}
