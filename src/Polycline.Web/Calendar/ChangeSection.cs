using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Ledger;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Calendar;

/// <param name="Name">1 to 200 characters; no other section of the term has it.</param>
/// <param name="Subject">At most 120 characters; it may be empty.</param>
/// <param name="Year">The year or grade, at most 40 characters; it may be empty.</param>
/// <param name="Slots">When it meets, in the plan file's form: at most 60.</param>
/// <param name="Version">The version of the section that was read.</param>
public sealed record ChangeSectionRequest(Id<Section> Section, string Name, string Subject, string Year, JsonElement Slots, long Version);

/// <summary>Says what a section is called and when it meets, whether or not it follows a course.</summary>
public sealed class ChangeSection : IPlanningCommand<TermPlan, ChangeSectionRequest>
{
    public static string Name => "change-section";

    public static IValidator<ChangeSectionRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(TermPlan plan, ChangeSectionRequest request, Viewpoint viewpoint)
    {
        var section = plan.Sections.FirstOrDefault(one => one.Id == request.Section && !one.Pretend) ?? throw Problem.Unknown("section");
        var name = request.Name.Trim();
        if (
            plan.Sections.Any(other =>
                other.Id != section.Id && !other.Pretend && string.Equals(other.Name, name, StringComparison.OrdinalIgnoreCase)
            )
        )
            throw Problem.Field("name", $"There is a section {name} in this term already. Choose another name.");
        SlotForm.Read(request.Slots, plan.Term, "slots");
        var called = Tables.Sections.Name.Turns(section.Name, name);
        var subject = Tables.Sections.Subject.Turns(section.Subject, request.Subject.Trim());
        var year = Tables.Sections.Year.Turns(section.Year, request.Year.Trim());
        var meets = Tables.Sections.Slots.Turns(JsonNode.Parse(section.SlotsJson), JsonNode.Parse(request.Slots.GetRawText()));
        var turns = new List<Turn> { called, subject, year, meets };
        if (turns.All(turn => !turn.Changes))
            return new($"left {section.Name} as it is", []);
        var said = new List<string>();
        if (called.Changes)
            said.Add($"renamed {section.Name} to {name}");
        if (subject.Changes)
            said.Add($"changed the subject of {name}");
        if (year.Changes)
            said.Add($"changed the year of {name}");
        if (meets.Changes)
            said.Add($"changed when {name} meets");
        return new(Counting.Joined(said, "and"), [Change.Set(Tables.Sections.Table, section.Id, request.Version, turns)]);
    }

    private sealed class Rules : AbstractValidator<ChangeSectionRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Name).IsTitle();
            RuleFor(request => request.Subject).IsSubject();
            RuleFor(request => request.Year).IsYear();
            RuleFor(request => request.Slots).IsTimetable();
        }
    }
}
