using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation;
using Polycline.Web.Outline;

namespace Polycline.Web.Dates;

/// <param name="Changes">1 to 2,000 cells, each of them once.</param>
public sealed record AdjustDatesRequest(IReadOnlyList<DateChange> Changes);

/// <param name="Field"><c>opens</c>, <c>due</c> or <c>closes</c>.</param>
/// <param name="PutBack">True: as the course has it again; the anchor is then left out.</param>
/// <param name="Anchor">In the plan file's form; null: none there.</param>
/// <param name="Version">The version of the difference that was read; 0: there was none.</param>
public sealed record DateChange(Id<Section> Section, Id<Item> Item, string Field, bool PutBack, JsonElement? Anchor, long Version);

/// <summary>Gives items other dates in one, some or all sections, or puts them back.</summary>
public sealed class AdjustDates : IEditionCommand<AdjustDatesRequest, EditionPlan>
{
    public static string Name => "adjust-dates";

    public static May May => May.Team;

    public static IValidator<AdjustDatesRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, AdjustDatesRequest request) => OutlineRules.Load(connection, edition);

    public static Decision Decide(EditionPlan plan, AdjustDatesRequest request, Viewpoint viewpoint)
    {
        var changes = request.Changes.Select(change => Decide(plan, change)).OfType<Change>().ToList();
        return changes.Count == 0 ? new("left the dates as they are", []) : new(InWords(plan, request), changes);
    }

    // Null: it is so already.
    private static Change? Decide(EditionPlan plan, DateChange change)
    {
        var section = plan.Following(change.Section) ?? throw Problem.Unknown("section");
        var item = plan.Item(change.Item) ?? throw Problem.Unknown("item");
        var anchor = plan.AnchorOf(change.Anchor, "anchor");
        var present = plan.Adjustments.FirstOrDefault(row => row.Section == section.Id && row.Target == item.Ref.Name && row.Field == change.Field);
        JsonObject key = new() { ["section"] = section.Id, ["target"] = item.Ref.Name, ["field"] = change.Field };
        var before = present is null ? null : new JsonObject { ["value"] = present.Value is null ? null : JsonNode.Parse(present.Value) };
        var after = change.PutBack ? null : new JsonObject { ["value"] = TimeItem.Node(anchor) };
        if ((before is null && after is null) || (before is not null && after is not null && JsonNode.DeepEquals(before, after)))
            return null;
        // What somebody else has put there, or put back, meanwhile is told.
        var asked = new Change("adjustment", key, before, after, change.Version);
        if ((present?.Version ?? 0) != change.Version)
            throw new StaleChangeException(asked, present is null ? null : new() { ["value"] = before!["value"]?.DeepClone(), ["version"] = present.Version });
        return asked with { Version = present?.Version };
    }

    private static string InWords(EditionPlan plan, AdjustDatesRequest request)
    {
        var items = request.Changes.Select(change => plan.Item(change.Item)!.Title).Distinct().ToList();
        var sections = request.Changes.Select(change => plan.Following(change.Section)!.Name).Distinct().ToList();
        var what = items.Count == 1 ? $"“{items[0]}”" : $"{items.Count} items";
        return request.Changes.All(change => change.PutBack)
            ? $"put back {what} in {Counting.Joined(sections, "and")}"
            : $"changed dates of {what} in {Counting.Joined(sections, "and")}";
    }

    private sealed class Rules : AbstractValidator<AdjustDatesRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Changes).Must(changes => changes.Count is > 0 and <= 2_000).WithMessage("Change from 1 to 2,000 cells at once.");
            RuleFor(request => request.Changes).Must(changes => changes.DistinctBy(change => (change.Section, change.Item, change.Field)).Count() == changes.Count)
                .WithMessage("One cell is named twice.");
            RuleForEach(request => request.Changes).Must(change => TimeItem.Fields.Contains(change.Field)).WithMessage("Name one of: opens, due, closes.");
        }
    }
}
