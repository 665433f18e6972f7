using System.Text.Json;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Groups;
using Polycline.Web.Outline.Lessons;

namespace Polycline.Web.Outline.Items;

/// <summary>What is to become of several rows of the outline. Exactly one thing is asked for; the others are left out.</summary>
public sealed record ChangeItemsRequest
{
    /// <summary>At most 500, each of them once.</summary>
    public required IReadOnlyList<ChosenItem> Items { get; init; }

    /// <summary>Lessons chosen whole: they are published, moved or removed themselves, and what is in them goes along.</summary>
    public IReadOnlyList<ChosenLesson>? Lessons { get; init; }

    /// <summary>Units chosen whole, likewise.</summary>
    public IReadOnlyList<ChosenUnit>? Units { get; init; }

    public bool? Published { get; init; }

    /// <summary><c>to-read</c>, <c>practice</c> or <c>for-marks</c>.</summary>
    public string? Purpose { get; init; }

    public ItemsDate? Date { get; init; }

    public ItemsCondition? Condition { get; init; }

    public ItemsForWhom? ForWhom { get; init; }

    /// <summary>Where items go, in the order in which they stand now.</summary>
    public ItemsPlace? Place { get; init; }

    /// <summary>Where whole lessons go.</summary>
    public LessonsPlace? LessonsPlace { get; init; }

    /// <summary>Where whole units go.</summary>
    public UnitsPlace? UnitsPlace { get; init; }

    public bool? Remove { get; init; }
}

/// <param name="Version">The version of the item that was read.</param>
public sealed record ChosenItem(Id<Item> Item, long Version);

/// <param name="Version">The version of the lesson that was read.</param>
public sealed record ChosenLesson(Id<Lesson> Lesson, long Version);

/// <param name="Version">The version of the unit that was read.</param>
public sealed record ChosenUnit(Id<Unit> Unit, long Version);

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

/// <param name="After">The lesson of that unit they then come after; null: first.</param>
public sealed record LessonsPlace(Id<Unit> Unit, Id<Lesson>? After);

/// <param name="After">The unit they then come after; null: first.</param>
public sealed record UnitsPlace(Id<Unit>? After);

/// <summary>
/// Makes one change to several items, lessons and units, each as by the command for one: all of them or none, undone together.
/// </summary>
public sealed class ChangeItems : IPlanningCommand<EditionPlan, RemovedItems, ChangeItemsRequest>
{
    public static string Name => "change-items";

    public static IValidator<ChangeItemsRequest> Validator { get; } = new Rules();

    public static async Task<RemovedItems> Read(NpgsqlConnection connection, EditionPlan plan, ChangeItemsRequest request) =>
        new(
            await EditionStore.RemovedFrom(
                connection,
                request.LessonsPlace is null ? [] : [.. (request.Lessons ?? []).Select(chosen => chosen.Lesson)]
            )
        );

    public static CommandDecision Decide(EditionPlan plan, RemovedItems removed, ChangeItemsRequest request, Viewpoint viewpoint)
    {
        var chosen = ChosenRows.Of(plan, request);
        if (request.Remove is true)
            return Removing.Decide(plan, chosen.Outermost, chosen.Version, viewpoint);
        if ((request.Place ?? request.LessonsPlace ?? (object?)request.UnitsPlace) is not null)
            return chosen.Move(request, removed);
        var rows = request.Published is null ? chosen.Items : chosen.All;
        var changes = rows.SelectMany(row => One(plan, request, row, chosen.Version(row), viewpoint).Changes).ToList();
        var changed = changes.Select(change => change.Table).ToList();
        var what = plan.CountedRows(
            changed.Count(table => table == Tables.Units.Table),
            changed.Count(table => table == Tables.Lessons.Table),
            changed.Count(table => table == Tables.Items.Table)
        );
        var (done, act) = Words(request, what);
        return changes.Count == 0 ? new("left them as they are", []) : new(done, changes) { Act = $"{act} in {plan.Where(rows)}" };
    }

    // Each as by the command that does it to one.
    private static CommandDecision One(EditionPlan plan, ChangeItemsRequest request, TreeRow row, long version, Viewpoint viewpoint)
    {
        if (row.Level != Level.Item)
            return Published(plan, row, request.Published is true, version);
        var item = row.As<Item>();
        return request switch
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
    }

    // What is of one section only is published through its items.
    private static CommandDecision Published(EditionPlan plan, TreeRow row, bool published, long version)
    {
        var now = row.Level == Level.Unit ? plan.UnitOf(row).Published : plan.LessonOf(row).Published;
        if (row.Section is not null || now == published)
            return new("", []);
        var change =
            row.Level == Level.Unit
                ? Change.Set(Tables.Units.Table, row.As<Unit>(), version, Tables.Units.Published.Turns(now, published))
                : Change.Set(Tables.Lessons.Table, row.As<Lesson>(), version, Tables.Lessons.Published.Turns(now, published));
        return new("", [change]);
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
            _ => ($"changed who gets {what}", $"Change who gets {what}"),
        };

    private static string Verb(DateField field) => field == DateField.Opens ? "open" : "close";

    private sealed class Rules : AbstractValidator<ChangeItemsRequest>
    {
        private static readonly string[] Purposes = [.. Enum.GetValues<Purpose>().Select(EnumNames.Of)];

        public Rules()
        {
            RuleFor(request => request.Items)
                .Must((request, items) => items.Count + Whole(request) is > 0 and <= 500)
                .WithMessage("Choose from 1 to 500 to change at once.");
            RuleFor(request => request.Items)
                .Must((request, items) => items.Count > 0 || TakesWhole(request))
                .WithMessage("Only items can be changed like this. Choose at least one.");
            RuleFor(request => request.Items)
                .Must(items => items.DistinctBy(item => item.Item).Count() == items.Count)
                .WithMessage("One is chosen twice.");
            RuleFor(request => request.Lessons)
                .Must(lessons => lessons is null || lessons.DistinctBy(lesson => lesson.Lesson).Count() == lessons.Count)
                .WithMessage("One is chosen twice.");
            RuleFor(request => request.Units)
                .Must(units => units is null || units.DistinctBy(unit => unit.Unit).Count() == units.Count)
                .WithMessage("One is chosen twice.");
            RuleFor(request => request.Items)
                .Must((request, _) => Asked(request) == 1)
                .WithMessage("Change one thing at a time: published, purpose, date, condition, forWhom, a place or remove.");
            RuleFor(request => request.Purpose)
                .Must(purpose => purpose is null || Purposes.Contains(purpose))
                .WithMessage($"Choose a purpose: {string.Join(", ", Purposes)}.");
        }

        private static int Whole(ChangeItemsRequest request) => (request.Lessons?.Count ?? 0) + (request.Units?.Count ?? 0);

        private static bool TakesWhole(ChangeItemsRequest request) =>
            Whole(request) > 0
            && (
                request.Published is not null
                || request.Remove is true
                || request.LessonsPlace is not null
                || request.UnitsPlace is not null
            );

        private static int Asked(ChangeItemsRequest request) =>
            new object?[]
            {
                request.Published,
                request.Purpose,
                request.Date,
                request.Condition,
                request.ForWhom,
                request.Place,
                request.LessonsPlace,
                request.UnitsPlace,
                request.Remove is true ? true : null,
            }.Count(part => part is not null);
    }
}
