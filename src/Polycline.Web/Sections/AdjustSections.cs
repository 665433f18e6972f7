using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;
using Polycline.Web.Outline.Items;

namespace Polycline.Web.Sections;

/// <param name="Changes">1 to 5,000, each of them once.</param>
public sealed record AdjustSectionsRequest(IReadOnlyList<DifferenceChange> Changes);

/// <param name="Target">The id of what is to be otherwise.</param>
/// <param name="Field">One that a unit, lesson or item can have changed, by which of them it is.</param>
/// <param name="PutBack">True: as the course has it again; the value is then left out.</param>
/// <param name="Value">In the plan file's form; the lesson that an item hangs on is its id.</param>
/// <param name="Version">The version of the difference that was read; 0: there was none.</param>
public sealed record DifferenceChange(
    Id<Section> Section,
    Level Of,
    long Target,
    AdjustedField Field,
    bool PutBack,
    JsonElement? Value,
    long Version
);

/// <summary>Changes something in one, some or all sections, or puts it back as the course has it.</summary>
public sealed class AdjustSections : IPlanningCommand<EditionPlan, AdjustSectionsRequest>
{
    /// <summary>What a section can change.</summary>
    public static readonly IReadOnlyDictionary<Level, ImmutableArray<AdjustedField>> FieldsOf = new Dictionary<
        Level,
        ImmutableArray<AdjustedField>
    >
    {
        [Level.Unit] = [AdjustedField.Hold, AdjustedField.Skip, AdjustedField.Published],
        [Level.Lesson] = [AdjustedField.Hold, AdjustedField.Skip, AdjustedField.Published, AdjustedField.Length, AdjustedField.Pin],
        [Level.Item] =
        [
            AdjustedField.Opens,
            AdjustedField.Due,
            AdjustedField.Closes,
            AdjustedField.Hold,
            AdjustedField.Skip,
            AdjustedField.Published,
            AdjustedField.Lesson,
        ],
    };

    public static string Name => "differ";

    public static IValidator<AdjustSectionsRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, AdjustSectionsRequest request, Viewpoint viewpoint)
    {
        var changes = ChangesOf(plan, request.Changes);
        return changes.Count == 0
            ? new("left things as they are", [])
            : new(InWords(plan, request), changes) { Act = ActOf(plan, request) };
    }

    /// <summary>The changes that are asked for; none for what is so already.</summary>
    internal static IReadOnlyList<Change> ChangesOf(EditionPlan plan, IReadOnlyList<DifferenceChange> asked)
    {
        var present = plan.Adjustments.ToDictionary(row => (row.Section, row.Target, row.Field));
        return [.. asked.Select((change, n) => Decide(plan, present, change, n)).OfType<Change>()];
    }

    // Null: it is so already.
    private static Change? Decide(
        EditionPlan plan,
        Dictionary<(Id<Section>, string, AdjustedField), AdjustmentRow> differences,
        DifferenceChange asked,
        int n
    )
    {
        var section = plan.Following(asked.Section) ?? throw Problem.Unknown($"changes[{n}].section");
        var target = Target(plan, asked) ?? throw Problem.Unknown($"changes[{n}].target");
        var present = differences.GetValueOrDefault((section.Id, target.Lineage, asked.Field));
        Cell[] key =
        [
            Tables.Adjustments.Section.Is(section.Id),
            Tables.Adjustments.Target.Is(target.Lineage),
            Tables.Adjustments.Field.Is(EnumNames.Of(asked.Field)),
        ];
        var before = present?.Value is { } json ? JsonNode.Parse(json) : null;
        var after = asked.PutBack ? null : ValueOf(plan, target, asked, $"changes[{n}].value");
        if (asked.PutBack ? present is null : present is not null && JsonNode.DeepEquals(before, after))
            return null;
        // What somebody else has put there, or put back, meanwhile is told.
        var change =
            asked.PutBack ? Change.Delete(asked.Version, [.. key, Tables.Adjustments.Value.Is(before)])
            : present is null ? Change.Add([.. key, Tables.Adjustments.Value.Is(after)])
            : Change.Set(key, asked.Version, Tables.Adjustments.Value.Turns(before, after));
        if ((present?.Version ?? 0) != asked.Version)
            throw new StaleChangeException(
                change,
                present is null ? null : new() { ["value"] = before?.DeepClone(), ["version"] = present.Version }
            );
        return change;
    }

    private static TreeRow? Target(EditionPlan plan, DifferenceChange change) =>
        (
            change.Of switch
            {
                Level.Unit => plan.Row(new Id<Unit>(change.Target)),
                Level.Lesson => plan.Row(new Id<Lesson>(change.Target)),
                _ => plan.Row(new Id<Item>(change.Target)),
            }
        )
            is { Removed: false } row
        && (row.Section is null || row.Section == change.Section)
            ? row
            : null;

    private static JsonNode? ValueOf(EditionPlan plan, TreeRow target, DifferenceChange change, string at)
    {
        if (change.Field.AsDate() is { } date)
        {
            var anchor = plan.AnchorOf(change.Value, at, target);
            TimeItem.NotOnItself(anchor, date, at);
            return TimeItem.Node(anchor);
        }
        var given = change.Value is { } value ? JsonNode.Parse(value.GetRawText()) : null;
        if (change.Field == AdjustedField.Lesson)
            given =
                given is JsonValue id && id.TryGetValue(out long lesson) && plan.Row(new Id<Lesson>(lesson)) is { } row
                    ? row.Lineage
                    : throw Problem.Unknown(at);
        try
        {
            PlanParts.Adjustment(change.Of, target.Lineage, [(EnumNames.Of(change.Field), given?.ToJsonString())]);
            return given;
        }
        catch (FileRefusedException refusal)
        {
            throw Problem.Field(at, $"{refusal.Message.Capital()}.");
        }
    }

    private static string InWords(EditionPlan plan, AdjustSectionsRequest request)
    {
        var targets = request.Changes.Select(change => plan.TitleOf(Target(plan, change)!.Lineage)).Distinct().ToList();
        var sections = Counting.Joined([.. request.Changes.Select(change => plan.Following(change.Section)!.Name).Distinct()], "and");
        var what =
            targets.Count == 1 ? $"“{targets[0]}”"
            : request.Changes.Select(change => change.Of).Distinct().ToList() is [var level]
                ? plan.Edition.Levels.Of(level).Counted(targets.Count)
            : $"{targets.Count} things";
        if (request.Changes.All(change => change.PutBack))
            return $"put back {what} in {sections}";
        return
            request.Changes.Select(change => change.Field).Distinct().ToList() is [var field]
            && request.Changes.Select(change => change.Value?.ValueKind).Distinct().ToList() is [var kind]
            ? $"{Verb(plan, field, kind == JsonValueKind.True)} {what} in {sections}"
            : $"changed {what} in {sections}";
    }

    // What the button says: how much of what is done where, such as "Drop 3 items in 9 Birch".
    private static string ActOf(EditionPlan plan, AdjustSectionsRequest request)
    {
        var targets = request.Changes.Select(change => (change.Of, change.Target)).Distinct().ToList();
        var what = targets.Select(target => target.Of).Distinct().ToList() is [var level]
            ? plan.Edition.Levels.Of(level).Counted(targets.Count)
            : $"{targets.Count} things";
        var where = request.Changes.Select(change => change.Section).Distinct().ToList() is [var one]
            ? plan.Following(one)!.Name
            : $"{request.Changes.Select(change => change.Section).Distinct().Count()} sections";
        var isSo = request.Changes.All(change => change.Value?.ValueKind == JsonValueKind.True);
        return request.Changes.All(change => change.PutBack)
            ? $"Put back {what} in {where}"
            : (request.Changes.Select(change => change.Field).Distinct().ToList() is [var field] ? field : (AdjustedField?)null) switch
            {
                AdjustedField.Hold => $"{(isSo ? "Keep back" : "Stop keeping back")} {what} in {where}",
                AdjustedField.Skip => $"{(isSo ? "Drop" : "Stop dropping")} {what} in {where}",
                AdjustedField.Published => $"{(isSo ? "Publish" : "Unpublish")} {what} in {where}",
                _ => $"Change {what} in {where}",
            };
    }

    private static string Verb(EditionPlan plan, AdjustedField field, bool isSo) =>
        (field, isSo) switch
        {
            (AdjustedField.Hold, true) => "kept back",
            (AdjustedField.Hold, false) => "no longer kept back",
            (AdjustedField.Skip, true) => "dropped",
            (AdjustedField.Skip, false) => "no longer dropped",
            (AdjustedField.Published, true) => "published",
            (AdjustedField.Published, false) => "unpublished",
            (AdjustedField.Length, _) => "changed the length of",
            (AdjustedField.Pin, _) => "fixed the date of",
            (AdjustedField.Lesson, _) => $"moved to another {plan.Edition.Levels.Lesson.One}:",
            _ => "changed dates of",
        };

    private sealed class Rules : AbstractValidator<AdjustSectionsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Changes)
                .Must(changes => changes.Count is > 0 and <= 5_000)
                .WithMessage("Change from 1 to 5,000 things at once.");
            RuleFor(request => request.Changes)
                .Must(changes =>
                    changes.DistinctBy(change => (change.Section, change.Of, change.Target, change.Field)).Count() == changes.Count
                )
                .WithMessage("The same thing is changed twice.");
            RuleForEach(request => request.Changes)
                .Must(change => FieldsOf[change.Of].Contains(change.Field))
                .WithMessage(_ => $"Choose one of: {string.Join("; ", FieldsOf.Select(of => Named(of.Key, of.Value)))}.");
        }

        private static string Named(Level of, IEnumerable<AdjustedField> fields) =>
            $"{string.Join(", ", fields.Select(EnumNames.Of))} of {(of == Level.Item ? "an" : "a")} {EnumNames.Of(of)}";
    }
}
