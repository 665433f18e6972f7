using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Sections;

/// <param name="Place">Its place among the section's units, from 1; null: where the course has it.</param>
/// <param name="Version">The version of the change of its place that was read; 0: there was none.</param>
public sealed record OrderUnitRequest(Id<Section> Section, Id<Unit> Unit, int? Place, long Version);

/// <summary>Takes a unit at another place in one section, or where the course has it again.</summary>
public sealed class OrderUnit : IPlanningCommand<EditionPlan, OrderUnitRequest>
{
    public static string Name => "order-unit";

    public static IValidator<OrderUnitRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, OrderUnitRequest request, Viewpoint viewpoint)
    {
        var section = plan.Following(request.Section) ?? throw Problem.Unknown("section");
        var unit = plan.Needed(request.Unit, "unit");
        var units = plan.Schedule.Section(section.Section.Ref).Course.Units.Length;
        if (request.Place is not { } place)
            return Ordering.Decide(plan, section, unit, null, "", request.Version);
        if (place > units)
            throw Problem.Field(
                "place",
                $"{section.Name} has {plan.Edition.Levels.Unit.Counted(units)}: choose a place from 1 to {units}."
            );
        return Ordering.Decide(
            plan,
            section,
            unit,
            new() { ["order"] = place },
            $"made “{plan.TitleOf(unit.Lineage)}” the {Counting.Nth(place)} {plan.Edition.Levels.Unit.One}",
            request.Version
        );
    }

    private sealed class Rules : AbstractValidator<OrderUnitRequest>
    {
        public Rules() => RuleFor(request => request.Place).Must(place => place is null or >= 1).WithMessage("Places are counted from 1.");
    }
}
