using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
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
        Check(plan.Term, Read(json));
        var turn = Tables.Sections.Slots.Turns(JsonNode.Parse(section.Slots), JsonNode.Parse(json));
        return !turn.Changes
            ? new($"left when {section.Name} meets as it is", [])
            : new($"changed when {section.Name} meets", [Change.Set(Tables.Sections.Table, request.Section, request.Version, turn)]);
    }

    private static IReadOnlyList<Slot> Read(string json)
    {
        try
        {
            return PlanParts.Slots(json);
        }
        catch (PlanRefusedException refusal)
        {
            throw Problem.Field("slots", $"{refusal.Path.Replace("$", "slots", StringComparison.Ordinal)}: {refusal.Message}.");
        }
    }

    private static void Check(Term term, IReadOnlyList<Slot> slots)
    {
        var (labels, periods) = (
            SectionMeetings.LabelsOf(term.Calendar.Rotation).ToList(),
            term.Calendar.Periods.Select(period => period.Name).ToList()
        );
        for (var n = 0; n < slots.Count; n++)
        {
            if (!labels.Contains(slots[n].Day))
                throw Problem.Field(
                    $"slots[{n}].day",
                    $"This term has no day “{slots[n].Day}”: choose one of {Counting.Joined(labels, "and")}."
                );
            if (slots[n] is Slot.InPeriods of && of.Periods.FirstOrDefault(name => !periods.Contains(name)) is { } unknown)
                throw Problem.Field(
                    $"slots[{n}].periods",
                    $"This term has no period “{unknown}”: choose one of {Counting.Joined(periods, "and")}."
                );
        }
    }

    private sealed class Rules : AbstractValidator<ChangeTimetableRequest>
    {
        public Rules() =>
            RuleFor(request => request.Slots)
                .Must(slots => slots.ValueKind == JsonValueKind.Array && slots.GetArrayLength() <= 60)
                .WithMessage("A timetable has at most 60 times.");
    }
}
