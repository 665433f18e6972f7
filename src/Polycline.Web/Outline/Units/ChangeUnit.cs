using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Units;

/// <param name="Title">1 to 200 characters; spaces around it are dropped.</param>
/// <param name="Published">Whether students may know of it and of what is in it.</param>
/// <param name="Before">What students see of its items before they open: <c>listed</c> or <c>unseen</c>; null: as the course says.</param>
/// <param name="Welcome">Whether it is the welcome unit, which is always open.</param>
/// <param name="Version">The version of the unit that was read.</param>
public sealed record ChangeUnitRequest(Id<Unit> Unit, string Title, bool Published, string? Before, bool Welcome, long Version);

/// <summary>
/// Gives a unit another title, publishes it or takes it back, says what of it is seen beforehand: in every section at once.
/// </summary>
public sealed class ChangeUnit : IPlanningCommand<EditionPlan, ChangeUnitRequest>
{
    public static string Name => "change-unit";

    public static IValidator<ChangeUnitRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ChangeUnitRequest request, Viewpoint viewpoint)
    {
        var row = plan.Needed(request.Unit, "unit");
        var unit = plan.UnitOf(row);
        if (row.Section is not null && (!request.Published || request.Before is not null))
            throw Problem.Field(
                "published",
                $"What belongs to one section is published, and seen beforehand, through its {plan.Edition.Levels.Item.Many}. Change those."
            );
        if (request.Welcome && row.Section is not null)
            throw Problem.Field("welcome", $"What belongs to one section can’t be the welcome {plan.Edition.Levels.Unit.One}.");
        var title = request.Title.Trim();
        var decision = new Settings()
            .Set(Tables.Units.Title, unit.Title, title, $"renamed “{unit.Title}” to “{title}”")
            .Set(
                Tables.Units.Published,
                unit.Published,
                request.Published,
                $"{(request.Published ? "published" : "unpublished")} “{title}”"
            )
            .Set(Tables.Units.Before, BeforeWords.Of(unit.Before), request.Before, $"had “{title}” {BeforeWords.InWords(request.Before)}")
            .Set(
                Tables.Units.Welcome,
                unit.Welcome,
                request.Welcome,
                request.Welcome
                    ? $"made “{title}” the welcome {plan.Edition.Levels.Unit.One}, always open"
                    : $"had “{title}” open as any other"
            )
            .Set(Tables.Units.Gate, unit.Gate, request.Welcome ? null : unit.Gate, $"took the condition of “{title}” away")
            .Of(Tables.Units.Table, request.Unit, request.Version, unit.Title);
        return request.Welcome && !unit.Welcome ? decision with { Changes = Opening(plan, unit, decision.Changes) } : decision;
    }

    // What is always open has no opening, no end and no condition; all of it comes back when this is undone.
    private static List<Change> Opening(EditionPlan plan, Unit unit, IReadOnlyList<Change> changes)
    {
        List<Change> all = [.. changes];
        foreach (var lesson in unit.Lessons.Where(lesson => lesson.Gate is not null))
        {
            var of = plan.Row(lesson.Ref);
            all.Add(Change.Set(Tables.Lessons.Table, of.As<Lesson>(), of.Version, Tables.Lessons.Gate.Turns(lesson.Gate, null)));
        }
        foreach (var item in unit.InReadingOrder())
        {
            Turn[] turns =
            [
                Tables.Items.Opens.Turns(item.Opens, null),
                Tables.Items.Closes.Turns(item.Closes, null),
                Tables.Items.Gate.Turns(item.Gate, null),
                Tables.Items.ForWhom.Turns(item.For, null),
            ];
            var of = plan.Row(item.Ref);
            if (of.Section is null && turns.Any(turn => turn.Changes))
                all.Add(Change.Set(Tables.Items.Table, of.As<Item>(), of.Version, [.. turns.Where(turn => turn.Changes)]));
        }
        return all;
    }

    private sealed class Rules : AbstractValidator<ChangeUnitRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Title).IsTitle();
            RuleFor(request => request.Before).Must(before => BeforeWords.All.Contains(before)).WithMessage(BeforeWords.Choice);
        }
    }
}
