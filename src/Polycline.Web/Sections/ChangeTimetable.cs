using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Calendar;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Sections;

/// <param name="Slots">All of them, in the plan file's form: at most 60.</param>
/// <param name="Version">The version of the section that was read.</param>
public sealed record ChangeTimetableRequest(Id<Section> Section, JsonElement Slots, long Version);

/// <summary>Says when a section meets; its classes, and all that hangs on them, follow.</summary>
public sealed class ChangeTimetable : IPlanningCommand<EditionPlan, ChangeTimetableRequest>
{
    public static string Name => "change-timetable";

    public static IValidator<ChangeTimetableRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ChangeTimetableRequest request, Viewpoint viewpoint)
    {
        var section = plan.Following(request.Section) ?? throw Problem.Unknown("section");
        var json = request.Slots.GetRawText();
        SlotForm.Read(request.Slots, plan.Term, "slots");
        var turn = Tables.Sections.Slots.Turns(JsonNode.Parse(section.Slots), JsonNode.Parse(json));
        return !turn.Changes
            ? new($"left when {section.Name} meets as it is", [])
            : new($"changed when {section.Name} meets", [Change.Set(Tables.Sections.Table, request.Section, request.Version, turn)]);
    }

    private sealed class Rules : AbstractValidator<ChangeTimetableRequest>
    {
        public Rules() => RuleFor(request => request.Slots).IsTimetable();
    }
}
