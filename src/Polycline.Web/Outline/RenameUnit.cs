using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation;

namespace Polycline.Web.Outline;

/// <param name="Title">1 to 200 characters; spaces around it are dropped.</param>
/// <param name="Version">The version of the unit that was read.</param>
public sealed record RenameUnitRequest(Id<Unit> Unit, string Title, long Version);

/// <summary>Gives a unit another title, in every section at once.</summary>
public sealed class RenameUnit : IEditionCommand<RenameUnitRequest, EditionPlan>
{
    public static string Name => "rename-unit";

    public static May May => May.Team;

    public static IValidator<RenameUnitRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, RenameUnitRequest request) => OutlineRules.Load(connection, edition);

    public static Decision Decide(EditionPlan plan, RenameUnitRequest request, Viewpoint viewpoint)
    {
        var old = plan.TitleOf(plan.Needed(request.Unit, "unit").Lineage);
        var title = request.Title.Trim();
        return old == title
            ? new($"left {old} as it is", [])
            : new($"renamed “{old}” to “{title}”", [Change.Of("unit", request.Unit, request.Version, new() { ["title"] = old }, new() { ["title"] = title })]);
    }

    private sealed class Rules : AbstractValidator<RenameUnitRequest>
    {
        public Rules() => RuleFor(request => request.Title).IsTitle();
    }
}
