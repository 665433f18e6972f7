using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Outline.Items;

/// <param name="Lesson">The lesson it is on; null: on the unit itself.</param>
/// <param name="Kind"><c>page</c> or <c>task</c> …</param>
/// <param name="Section">The only section it is to be of; null: of the course, or of whose unit or lesson it stands in.</param>
/// <param name="Purpose"><c>to-read</c>, <c>practice</c> or <c>for-marks</c>.</param>
public sealed record AddItemRequest(Id<Unit> Unit, Id<Lesson>? Lesson, string Kind, string Purpose, string Title, Id<Section>? Section);

/// <summary>
/// Adds an item at the end of a lesson or unit, unpublished: seen by the team only. It opens with its lesson, or with its
/// unit's first class; on a unit without lessons from the first day of term. Never just because it is published.
/// </summary>
public sealed class AddItem : IEditionCommand<AddItemRequest, EditionPlan>
{
    public static string Name => "add-item";

    public static May May => May.Team;

    public static IValidator<AddItemRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, AddItemRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, AddItemRequest request, Viewpoint viewpoint)
    {
        var unit = plan.Needed(request.Unit, "unit");
        var lesson = request.Lesson is { } on ? plan.Needed(on, "lesson") : null;
        if (lesson is not null && lesson.Unit != unit.Id)
            throw Problem.Unknown("lesson");
        var owner = plan.OwnerOf(request.Section, unit, lesson);
        var title = request.Title.Trim();
        var siblings = plan.Siblings("item", unit.Id, request.Lesson?.Value);
        return new(
            $"added the {request.Kind} “{title}”{plan.OnlyIn(owner)}",
            [
                new(
                    "item",
                    [],
                    null,
                    new()
                    {
                        ["edition"] = plan.Id.Value,
                        ["unit"] = unit.Id,
                        ["lesson"] = request.Lesson?.Value,
                        ["lineage"] = plan.NewLineage($"item {unit.Id} {request.Lesson} {title}"),
                        ["rank"] = OutlineRules.RankAfter(siblings, siblings.Count == 0 ? null : siblings[^1].Id, null),
                        ["kind"] = request.Kind,
                        ["purpose"] = request.Purpose,
                        ["title"] = title,
                        ["published"] = false,
                        ["options"] = new System.Text.Json.Nodes.JsonArray(),
                        ["picks"] = 1,
                        ["opens"] = TimeItem.Node(OpensWith(plan, unit, lesson)),
                        ["section"] = owner,
                        ["code"] = plan.Settings.CodesFixed ? CodeOf(plan, unit, lesson, owner) : null,
                    },
                    null
                ),
            ]
        );
    }

    private static Anchor OpensWith(EditionPlan plan, TreeRow unit, TreeRow? lesson) =>
        new(
            lesson is not null ? AnchorBase.LessonStart
            : plan.Siblings("lesson", unit.Id, null).Any(plan.IsHere) ? AnchorBase.UnitStart
            : AnchorBase.TermStart
        );

    // Once students have seen the codes, what is added takes one of its own and changes no other's.
    private static string CodeOf(EditionPlan plan, TreeRow unit, TreeRow? lesson, long? owner)
    {
        var taken = plan.Schedule.CodeOf.Values.Concat(plan.Settings.RetiredCodes).ToHashSet(StringComparer.Ordinal);
        if (owner is not null)
            return Codes.OfLater("+", null, true, taken);
        var straight = plan.Edition.Codes == CodeStyle.Straight;
        var number = plan.ItemsByUnit().Where(one => one.Unit.Section is null).TakeWhile(one => one.Unit.Id != unit.Id).Count() + 1;
        var rows = plan.ItemsByUnit()
            .SelectMany(one => one.Items.Where(row => row.Section is null && (straight || one.Unit.Id == unit.Id)))
            .ToList();
        // It comes at the end of its lesson, or of its unit.
        var lessons = plan.Siblings("lesson", unit.Id, null)
            .TakeWhile(row => row.Id != lesson?.Id)
            .Append(lesson)
            .OfType<TreeRow>()
            .Select(row => row.Id)
            .ToHashSet();
        var units = plan.Siblings("unit", null, null).TakeWhile(row => row.Id != unit.Id).Select(row => row.Id).ToHashSet();
        var before = rows.LastOrDefault(row =>
            units.Contains(row.Unit) || (row.Unit == unit.Id && (lesson is null || (row.Lesson is { } on && lessons.Contains(on))))
        );
        return Codes.OfLater(
            straight ? "#" : $"{number}.",
            before is null ? null : plan.Schedule.CodeOf[new(before.Lineage)],
            before is null ? rows.Count == 0 : before == rows[^1],
            taken
        );
    }

    private sealed class Rules : AbstractValidator<AddItemRequest>
    {
        // Choices need options, which have no place to be written yet.
        private static readonly string[] Kinds = ["page", "link", "handout", "task", "quiz", "discussion"];
        private static readonly string[] Purposes = ["to-read", "practice", "for-marks"];

        public Rules()
        {
            RuleFor(request => request.Title).IsTitle();
            RuleFor(request => request.Kind).Must(kind => Kinds.Contains(kind)).WithMessage($"Say what it is: {string.Join(", ", Kinds)}.");
            RuleFor(request => request.Purpose)
                .Must(purpose => Purposes.Contains(purpose))
                .WithMessage($"A purpose is one of: {string.Join(", ", Purposes)}.");
        }
    }
}
