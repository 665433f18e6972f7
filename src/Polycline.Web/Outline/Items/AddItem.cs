using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Outline.Items;

/// <param name="Lesson">The lesson it is on; null: on the unit itself.</param>
/// <param name="Kind"><c>page</c> or <c>task</c> …</param>
/// <param name="Section">The only section it is to be of; null: of the course, or of whose unit or lesson it stands in.</param>
/// <param name="Purpose"><c>to-read</c>, <c>practice</c> or <c>for-marks</c>.</param>
/// <param name="After">The item it comes after; null: the last, or the first.</param>
/// <param name="First">True: it comes first.</param>
public sealed record AddItemRequest(
    Id<Unit> Unit,
    Id<Lesson>? Lesson,
    string Kind,
    string Purpose,
    string Title,
    Id<Section>? Section,
    Id<Item>? After = null,
    bool First = false
);

/// <summary>
/// Adds an item to a lesson or unit, unpublished: seen by the team only. It opens with its lesson, or with its
/// unit's first class; on a unit without lessons from the first day of term. Never just because it is published.
/// </summary>
public sealed class AddItem : IPlanningCommand<EditionPlan, AddItemRequest>
{
    public static string Name => "add-item";

    public static IValidator<AddItemRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, AddItemRequest request, Viewpoint viewpoint)
    {
        var unit = plan.Needed(request.Unit, "unit");
        var lesson = request.Lesson is { } on ? plan.Needed(on, "lesson") : null;
        if (lesson is not null && lesson.Unit != unit.Unit)
            throw Problem.Unknown("lesson");
        var owner = plan.OwnerOf(request.Section, unit, lesson);
        var title = request.Title.Trim();
        var siblings = plan.Siblings(Level.Item, unit.Unit, request.Lesson);
        var after = request.After?.Value ?? (request.First || siblings.Count == 0 ? null : siblings[^1].Id);
        // What there is to pick is said next; that there is something, and more than one, holds from the first.
        var offered = request.Kind == EnumNames.Of(ItemKind.Choice) ? Offered.New : null;
        return new(
            $"added the {request.Kind} “{title}”{plan.OnlyIn(owner)}",
            [
                Change.Add(
                    Tables.Items.Edition.Is(plan.Id),
                    Tables.Items.Unit.Is(request.Unit),
                    Tables.Items.Lesson.Is(request.Lesson),
                    Tables.Items.Lineage.Is(plan.NewLineage($"item {unit.Id} {request.Lesson} {title}")),
                    Tables.Items.Rank.Is(OutlineRules.RankAfter(siblings, after, null)),
                    Tables.Items.Kind.Is(request.Kind),
                    Tables.Items.Purpose.Is(request.Purpose),
                    Tables.Items.Title.Is(title),
                    Tables.Items.Published.Is(false),
                    Tables.Items.Options.Is(JsonSerializer.SerializeToNode(offered?.Options.Select(one => one.Option) ?? [])),
                    Tables.Items.Picks.Is(1),
                    Tables.Items.Offered.Is(offered),
                    Tables.Items.Opens.Is(OpensWith(plan, unit, lesson)),
                    Tables.Items.Section.Is(owner),
                    Tables.Items.Code.Is(plan.Settings.CodesFixed ? CodeOf(plan, unit, lesson, owner, after) : null)
                ),
            ]
        );
    }

    // What is in the welcome unit is open from the first day.
    private static Anchor? OpensWith(EditionPlan plan, TreeRow unit, TreeRow? lesson) =>
        plan.UnitOf(unit).Welcome
            ? null
            : new()
            {
                At =
                    lesson is not null ? AnchorBase.LessonStart
                    : plan.Siblings(Level.Lesson, unit.Unit, null).Any(plan.IsHere) ? AnchorBase.UnitStart
                    : AnchorBase.TermStart,
            };

    // Once students have seen the codes, what is added takes one of its own and changes no other's.
    private static string CodeOf(EditionPlan plan, TreeRow unit, TreeRow? lesson, Id<Section>? owner, long? after)
    {
        var taken = plan.Schedule.CodeOf.Values.Concat(plan.Settings.RetiredCodes).ToHashSet(StringComparer.Ordinal);
        if (owner is not null)
            return Codes.OfLater("+", null, true, taken);
        var straight = plan.Edition.Codes == CodeStyle.Straight;
        var number = plan.ItemsByUnit().Where(one => one.Unit.Section is null).TakeWhile(one => one.Unit.Id != unit.Id).Count() + 1;
        var rows = plan.ItemsByUnit()
            .SelectMany(one => one.Items.Where(row => row.Section is null && (straight || one.Unit.Id == unit.Id)))
            .ToList();
        // It comes after that one, or after all that stands before its lesson, or on its unit after every lesson.
        var lessons = plan.Siblings(Level.Lesson, unit.Unit, null)
            .TakeWhile(row => row.Id != lesson?.Id)
            .Select(row => row.As<Lesson>())
            .ToHashSet();
        var units = plan.Siblings(Level.Unit, null, null).TakeWhile(row => row.Id != unit.Id).Select(row => row.Unit).ToHashSet();
        var before = rows.FirstOrDefault(row => row.Id == after)
            ?? rows.LastOrDefault(row =>
                units.Contains(row.Unit) || (row.Unit == unit.Unit && row.Lesson is { } on && lessons.Contains(on))
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
        private static readonly string[] Kinds = ["page", "link", "handout", "task", "quiz", "choice", "discussion"];
        private static readonly string[] Purposes = ["to-read", "practice", "for-marks"];

        public Rules()
        {
            RuleFor(request => request.Title).IsTitle();
            RuleFor(request => request.Kind).Must(kind => Kinds.Contains(kind)).WithMessage($"Say what it is: {string.Join(", ", Kinds)}.");
            RuleFor(request => request.Purpose)
                .Must(purpose => Purposes.Contains(purpose))
                .WithMessage($"Choose a purpose: {string.Join(", ", Purposes)}.");
        }
    }
}
