using System.Text.Json;
using System.Text.Json.Nodes;
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

/// <param name="Anchor">In the plan file's form; null: none.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record TimeItemRequest(Id<Item> Item, DateField Field, JsonElement? Anchor, long Version);

/// <summary>Says when an item opens, is due or closes, in teaching time: every section has its own date of it.</summary>
public sealed class TimeItem : IPlanningCommand<EditionPlan, TimeItemRequest>
{
    public static string Name => "time-item";

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
            $"set when “{item.Title}” {(request.Field == DateField.Due ? "is due" : EnumNames.Of(request.Field))}: {when}",
            [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Dated(request.Field).Turns(old, anchor))]
        );
    }

    /// <exception cref="ProblemException">A date hangs on itself, so that it would never come.</exception>
    public static void NotOnItself(Anchor? anchor, DateField field, string at)
    {
        if ((anchor?.At, field) is (AnchorBase.OwnDue, DateField.Due) or (AnchorBase.OwnOpens, DateField.Opens))
            throw Problem.Field(
                at,
                field == DateField.Due
                    ? "Its due date cannot depend on itself. Set it by the lesson, by its opening, or to a date."
                    : "Its opening cannot depend on itself. Set it by the lesson, or to a date."
            );
    }

    // Of an opening that hangs on the due and a due that hangs on the opening neither would ever come.
    private static void NotInCircle(Item item, DateField field, Anchor? anchor)
    {
        if (
            (field == DateField.Opens && anchor?.At == AnchorBase.OwnDue && item.Due?.At == AnchorBase.OwnOpens)
            || (field == DateField.Due && anchor?.At == AnchorBase.OwnOpens && item.Opens?.At == AnchorBase.OwnDue)
        )
            throw Problem.Field(
                "anchor",
                "Its opening and its due date would depend on each other, and neither "
                    + "would ever come. Set one of them by the lesson, or to a date."
            );
    }

    public static Anchor? Of(Item item, DateField field) =>
        field switch
        {
            DateField.Opens => item.Opens,
            DateField.Due => item.Due,
            _ => item.Closes,
        };

    public static JsonNode? Node(Anchor? anchor) => anchor is null ? null : JsonNode.Parse(PlanParts.Json(anchor));
}
