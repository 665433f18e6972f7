using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Conditions;

/// <param name="Conditions">From 1 to 500, each place at most once.</param>
public sealed record SetConditionsRequest(IReadOnlyList<PlaceCondition> Conditions);

/// <summary>A condition and where it stands: on exactly one unit, lesson or item.</summary>
/// <param name="Gate">In the plan file's form; null: no condition.</param>
/// <param name="Version">The version of the unit, lesson or item that was read.</param>
public sealed record PlaceCondition(
    JsonElement? Gate,
    long Version,
    Id<Unit>? Unit = null,
    Id<Lesson>? Lesson = null,
    Id<Item>? Item = null
);

/// <summary>
/// Says what must be met before units, lessons and items open: one after another as steps, by score or by choice, or the same for
/// several. All of them or none, undone together.
/// </summary>
public sealed class SetConditions : IPlanningCommand<EditionPlan, SetConditionsRequest>
{
    private const int Most = 500;

    public static string Name => "set-conditions";

    public static IValidator<SetConditionsRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, SetConditionsRequest request, Viewpoint viewpoint)
    {
        var changes = new List<Change>();
        var set = new List<(TreeRow Row, Gate? Gate)>();
        foreach (var (n, asked) in request.Conditions.Index())
        {
            var row = PlaceOf(plan, asked, $"conditions[{n}]");
            var gate = plan.ConditionOf(row, asked.Gate, $"conditions[{n}].gate");
            var turn = row.Level switch
            {
                Level.Unit => Tables.Units.Gate.Turns(plan.UnitOf(row).Gate, gate),
                Level.Lesson => Tables.Lessons.Gate.Turns(plan.LessonOf(row).Gate, gate),
                _ => Tables.Items.Gate.Turns(plan.Item(row.As<Item>())!.Gate, gate),
            };
            if (!turn.Changes)
                continue;
            set.Add((row, gate));
            changes.Add(
                row.Level switch
                {
                    Level.Unit => Change.Set(Tables.Units.Table, row.As<Unit>(), asked.Version, turn),
                    Level.Lesson => Change.Set(Tables.Lessons.Table, row.As<Lesson>(), asked.Version, turn),
                    _ => Change.Set(Tables.Items.Table, row.As<Item>(), asked.Version, turn),
                }
            );
        }
        if (set.Count == 0)
            return new("left the conditions as they are", []);
        var all = set.Select(one => one.Row).ToList();
        if (set is [var (place, condition)])
        {
            var title = plan.TitleOf(place.Lineage);
            return condition is null
                ? new($"took the condition off “{title}”", changes)
                : new($"set a condition on “{title}”: when {plan.GateWords().Of(condition.Root)}", changes);
        }
        var what = plan.CountedRows(
            all.Count(row => row.Level == Level.Unit),
            all.Count(row => row.Level == Level.Lesson),
            all.Count(row => row.Level == Level.Item)
        );
        return set.TrueForAll(one => one.Gate is null)
            ? new($"took the conditions off {what}", changes) { Act = $"Take the conditions off {what}" }
            : new($"set conditions on {what}", changes) { Act = $"Set conditions on {what}" };
    }

    private static TreeRow PlaceOf(EditionPlan plan, PlaceCondition asked, string at)
    {
        List<TreeRow> named = [];
        if (asked.Unit is { } unit)
            named.Add(plan.Needed(unit, $"{at}.unit"));
        if (asked.Lesson is { } lesson)
            named.Add(plan.Needed(lesson, $"{at}.lesson"));
        if (asked.Item is { } item)
            named.Add(plan.Needed(item, $"{at}.item"));
        return named is [var only] ? only : throw Problem.Field(at, "Name one place for each condition: a unit, a lesson or an item.");
    }

    private sealed class Rules : AbstractValidator<SetConditionsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Conditions)
                .Must(conditions => conditions.Count is > 0 and <= Most)
                .WithMessage($"Set from 1 to {Most} conditions at once.");
            RuleFor(request => request.Conditions)
                .Must(conditions => conditions.DistinctBy(one => (one.Unit, one.Lesson, one.Item)).Count() == conditions.Count)
                .WithMessage("One place is given twice. Give each only once.");
        }
    }
}
