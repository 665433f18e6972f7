using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Units;

/// <param name="Section">The only section it is to be of; null: of the course.</param>
/// <param name="After">The unit it comes after; null: first.</param>
public sealed record AddUnitRequest(string Title, Id<Unit>? After, Id<Section>? Section);

/// <summary>Adds a unit, unpublished; one of a section only is published with its items.</summary>
public sealed class AddUnit : IEditionCommand<AddUnitRequest, EditionPlan>
{
    public static string Name => "add-unit";

    public static May May => May.Team;

    public static IValidator<AddUnitRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, AddUnitRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, AddUnitRequest request, Viewpoint viewpoint)
    {
        var title = request.Title.Trim();
        var owner = plan.OwnerOf(request.Section);
        return new(
            $"added the {plan.Edition.Levels.Unit.One} “{title}”{plan.OnlyIn(owner)}",
            [
                new(
                    "unit",
                    [],
                    null,
                    new()
                    {
                        ["edition"] = plan.Id.Value,
                        ["lineage"] = plan.NewLineage($"unit {title}"),
                        ["title"] = title,
                        ["rank"] = OutlineRules.RankAfter(plan.Siblings("unit", null, null), request.After?.Value, null),
                        ["published"] = owner is not null,
                        ["section"] = owner,
                    },
                    null
                ),
            ]
        );
    }

    private sealed class Rules : AbstractValidator<AddUnitRequest>
    {
        public Rules() => RuleFor(request => request.Title).IsTitle();
    }
}
