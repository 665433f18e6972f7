using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Groups;

namespace Polycline.Web.Outline.Items;

/// <summary>What is to become of several items. Exactly one thing is asked for; the others are left out.</summary>
public sealed record ChangeItemsRequest
{
    /// <summary>1 to 500, each of them once.</summary>
    public required IReadOnlyList<ChosenItem> Items { get; init; }

    public bool? Published { get; init; }

    /// <summary><c>to-read</c>, <c>practice</c> or <c>for-marks</c>.</summary>
    public string? Purpose { get; init; }

    public ItemsDate? Date { get; init; }

    public ItemsCondition? Condition { get; init; }

    public ItemsForWhom? ForWhom { get; init; }

    /// <summary>Where they go, in the order in which they stand now.</summary>
    public ItemsPlace? Place { get; init; }

    public bool? Remove { get; init; }
}

/// <param name="Version">The version of the item that was read.</param>
public sealed record ChosenItem(Id<Item> Item, long Version);

/// <param name="Anchor">In the plan file's form; null: none.</param>
public sealed record ItemsDate(DateField Field, JsonElement? Anchor);

/// <param name="Gate">In the plan file's form; null: no condition.</param>
public sealed record ItemsCondition(JsonElement? Gate);

/// <param name="Groups">Only for students in one of these groups; null: for everyone.</param>
/// <param name="Except">But not for those in one of these.</param>
public sealed record ItemsForWhom(IReadOnlyList<string>? Groups, IReadOnlyList<string> Except);

/// <param name="Lesson">The lesson of that unit they are then on; null: on the unit itself.</param>
/// <param name="After">The item they then come after; null: first.</param>
public sealed record ItemsPlace(Id<Unit> Unit, Id<Lesson>? Lesson, Id<Item>? After);

/// <summary>Makes one change to several items, each as by the command for one: all of them or none, undone together.</summary>
public sealed class ChangeItems : IPlanningCommand<EditionPlan, ChangeItemsRequest>
{
    public static string Name => "change-items";

    public static IValidator<ChangeItemsRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ChangeItemsRequest request, Viewpoint viewpoint)
    {
        var versions = request.Items.ToDictionary(one => one.Item, one => one.Version);
        for (var n = 0; n < request.Items.Count; n++)
            plan.Needed(request.Items[n].Item, $"items[{n}].item");
        // In reading order, whatever the order in which they were chosen.
        var rows = plan.ItemsByUnit().SelectMany(unit => unit.Items).Where(row => versions.ContainsKey(row.As<Item>())).ToList();
        if (request.Remove is true)
            return Removing.Decide(plan, rows, row => versions[row.As<Item>()], viewpoint);
        var changes = request.Place is { } place
            ? Moved(plan, rows, versions, place)
            : rows.SelectMany(row => One(plan, request, row.As<Item>(), versions[row.As<Item>()], viewpoint).Changes).ToList();
        var what = plan.Edition.Levels.Item.Counted(changes.Count);
        var where = rows.Select(row => row.Section).Distinct().ToList() is [var only] ? plan.Where(only) : plan.Where(null);
        var (done, act) = Words(request, what);
        return changes.Count == 0 ? new("left them as they are", []) : new(done, changes) { Act = $"{act} in {where}" };
    }

    // Each as by the command that does it to one.
    private static CommandDecision One(EditionPlan plan, ChangeItemsRequest request, Id<Item> item, long version, Viewpoint viewpoint) =>
        request switch
        {
            { Published: { } published } => PublishItem.Decide(plan, new(item, published, version), viewpoint),
            { Purpose: { } purpose } => DescribeItem.Decide(
                plan,
                new(item, purpose, BeforeWords.Of(plan.Item(item)!.Before), version),
                viewpoint
            ),
            { Date: { } date } => TimeItem.Decide(plan, new(item, date.Field, date.Anchor, version), viewpoint),
            { Condition: { } condition } => ConditionItem.Decide(plan, new(item, condition.Gate, version), viewpoint),
            { ForWhom: { } whom } => ItemForWhom.Decide(plan, new(item, whom.Groups, whom.Except, version), viewpoint),
            _ => throw Problem.Malformed("items", "Say what to change."),
        };

    private static List<Change> Moved(EditionPlan plan, IReadOnlyList<TreeRow> rows, Dictionary<Id<Item>, long> versions, ItemsPlace place)
    {
        var unit = plan.Needed(place.Unit, "place.unit");
        var lesson = place.Lesson is { } on ? plan.Needed(on, "place.lesson") : null;
        if (lesson is not null && lesson.Unit != unit.Unit)
            throw Problem.Unknown("place.lesson");
        if (place.After is { } follows && versions.ContainsKey(follows))
            throw Problem.Field("place.after", "Items cannot be moved after one of themselves. Choose another place.");
        var moved = rows.Select(row => row.Id).ToHashSet();
        var others = plan.Siblings(Level.Item, place.Unit, place.Lesson).Where(row => !moved.Contains(row.Id)).ToList();
        var at = place.After is null ? -1 : others.FindIndex(row => row.Id == place.After?.Value);
        if (place.After is not null && at < 0)
            throw Problem.Unknown("place.after");
        var (before, next) = (at < 0 ? null : others[at].Rank, at + 1 < others.Count ? others[at + 1].Rank : null);
        var changes = new List<Change>();
        foreach (var row in rows)
        {
            plan.MayStandIn(row.Section, unit);
            plan.MayStandIn(row.Section, lesson);
            before = Rank.Between(before, next);
            changes.Add(
                row.Move(
                    before,
                    versions[row.As<Item>()],
                    [Tables.Items.Unit.Turns(row.Unit, place.Unit), Tables.Items.Lesson.Turns(row.Lesson, place.Lesson)]
                )
            );
        }
        return changes;
    }

    private static (string Done, string Act) Words(ChangeItemsRequest request, string what) =>
        request switch
        {
            { Published: true } => ($"published {what}", $"Publish {what}"),
            { Published: false } => ($"unpublished {what}", $"Unpublish {what}"),
            { Purpose: { } purpose } => ($"set {what} as {purpose.Replace('-', ' ')}", $"Change {what}"),
            { Date.Field: var field } => ($"set when {what} {(field == DateField.Due ? "are due" : Verb(field))}", $"Change {what}"),
            { Condition.Gate: null } => ($"took the conditions off {what}", $"Take the conditions off {what}"),
            { Condition: not null } => ($"set a condition on {what}", $"Set the condition on {what}"),
            { ForWhom: not null } => ($"changed who gets {what}", $"Change who gets {what}"),
            _ => ($"moved {what}", $"Move {what}"),
        };

    private static string Verb(DateField field) => field == DateField.Opens ? "open" : "close";

    private sealed class Rules : AbstractValidator<ChangeItemsRequest>
    {
        private static readonly string[] Purposes = [.. Enum.GetValues<Purpose>().Select(EnumNames.Of)];

        public Rules()
        {
            RuleFor(request => request.Items)
                .Must(items => items.Count is > 0 and <= 500)
                .WithMessage("Choose from 1 to 500 to change at once.");
            RuleFor(request => request.Items)
                .Must(items => items.DistinctBy(item => item.Item).Count() == items.Count)
                .WithMessage("One is chosen twice.");
            RuleFor(request => request.Items)
                .Must((request, _) => Asked(request) == 1)
                .WithMessage("Change one thing at a time: published, purpose, date, condition, forWhom, place or remove.");
            RuleFor(request => request.Purpose)
                .Must(purpose => purpose is null || Purposes.Contains(purpose))
                .WithMessage($"Choose a purpose: {string.Join(", ", Purposes)}.");
        }

        private static int Asked(ChangeItemsRequest request) =>
            new object?[]
            {
                request.Published,
                request.Purpose,
                request.Date,
                request.Condition,
                request.ForWhom,
                request.Place,
                request.Remove is true ? true : null,
            }.Count(part => part is not null);
    }
}
