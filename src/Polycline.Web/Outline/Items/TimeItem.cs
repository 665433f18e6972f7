using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Field"><c>opens</c>, <c>due</c> or <c>closes</c>.</param>
/// <param name="Anchor">In the plan file's form; null: none.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record TimeItemRequest(Id<Item> Item, string Field, JsonElement? Anchor, long Version);

/// <summary>Says when an item opens, is due or closes, in teaching time: every section has its own date of it.</summary>
public sealed class TimeItem : IPlanningCommand<EditionPlan, TimeItemRequest>
{
    public static readonly string[] Fields = ["opens", "due", "closes"];

    public static string Name => "time-item";

    public static IValidator<TimeItemRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, TimeItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var anchor = plan.AnchorOf(request.Anchor, "anchor", plan.Row(request.Item));
        NotOnItself(anchor, request.Field, "anchor");
        NotInCircle(item, request.Field, anchor);
        var old = Of(item, request.Field);
        if (anchor == old)
            return new($"left “{item.Title}” as it is", []);
        var when = anchor is null
            ? "nothing"
            : new AnchorWords(plan.TitleOf, plan.Edition.Levels).Of(anchor, plan.Row(item.Ref).Lesson is null);
        return new(
            $"set when “{item.Title}” {(request.Field == "due" ? "is due" : request.Field)}: {when}",
            [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Dated(request.Field).Turns(old, anchor))]
        );
    }

    /// <exception cref="ProblemException">A date hangs on itself, so that it would never come.</exception>
    public static void NotOnItself(Anchor? anchor, string field, string at)
    {
        if ((anchor?.At, field) is (AnchorBase.OwnDue, "due") or (AnchorBase.OwnOpens, "opens"))
            throw Problem.Field(
                at,
                field == "due"
                    ? "It cannot be due when it is due. Count from the lesson, from its opening, or set a date."
                    : "It cannot open when it opens. Count from the lesson, or set a date."
            );
    }

    // Of an opening that hangs on the due and a due that hangs on the opening neither would ever come.
    private static void NotInCircle(Item item, string field, Anchor? anchor)
    {
        if (
            (field == "opens" && anchor?.At == AnchorBase.OwnDue && item.Due?.At == AnchorBase.OwnOpens)
            || (field == "due" && anchor?.At == AnchorBase.OwnOpens && item.Opens?.At == AnchorBase.OwnDue)
        )
            throw Problem.Field(
                "anchor",
                "Its opening and its due would hang on each other, and neither "
                    + "would ever come. Hang one of them on the lesson or on a date."
            );
    }

    public static Anchor? Of(Item item, string field) =>
        field switch
        {
            "opens" => item.Opens,
            "due" => item.Due,
            _ => item.Closes,
        };

    public static JsonNode? Node(Anchor? anchor) => anchor is null ? null : JsonNode.Parse(PlanParts.Json(anchor));

    private sealed class Rules : AbstractValidator<TimeItemRequest>
    {
        public Rules() =>
            RuleFor(request => request.Field).Must(field => Fields.Contains(field)).WithMessage("Name one of: opens, due, closes.");
    }
}
