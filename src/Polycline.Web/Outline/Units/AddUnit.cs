using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Units;

/// <param name="Section">The only section it is to be of; null: of the course.</param>
/// <param name="After">The unit it comes after; null: first.</param>
public sealed record AddUnitRequest(string Title, Id<Unit>? After, Id<Section>? Section);

/// <summary>Adds a unit, unpublished; one of a section only is published with its items.</summary>
public sealed class AddUnit : IPlanningCommand<EditionPlan, AddUnitRequest>
{
    public static string Name => "add-unit";

    public static IValidator<AddUnitRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, AddUnitRequest request, Viewpoint viewpoint)
    {
        var title = request.Title.Trim();
        var owner = plan.OwnerOf(request.Section);
        return new(
            $"added the {plan.Edition.Levels.Unit.One} “{title}”{plan.OnlyIn(owner)}",
            [
                Change.Add(
                    Tables.Units.Edition.Is(plan.Id),
                    Tables.Units.Lineage.Is(plan.NewLineage($"unit {title}")),
                    Tables.Units.Title.Is(title),
                    Tables.Units.Rank.Is(OutlineRules.RankAfter(plan.Siblings(Level.Unit, null, null), request.After?.Value, null)),
                    Tables.Units.Published.Is(owner is not null),
                    Tables.Units.Section.Is(owner)
                ),
            ]
        );
    }

    private sealed class Rules : AbstractValidator<AddUnitRequest>
    {
        public Rules() => RuleFor(request => request.Title).IsTitle();
    }
}
