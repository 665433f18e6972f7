using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Ledger;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Calendar;

/// <param name="Last">Its last day, within the term; null: it goes on to the end of the term after all.</param>
/// <param name="Version">The version of the section that was read.</param>
public sealed record EndSectionRequest(Id<Section> Section, string? Last, long Version);

/// <summary>
/// Ends a section before its term does, or lets it go on after all. Enrolments are kept as they are, and none counts beyond the last day;
/// what students handed in stays.
/// </summary>
public sealed class EndSection : IPlanningCommand<TermPlan, EndSectionRequest>
{
    public static string Name => "end-section";

    public static CommandDecision Decide(TermPlan plan, EndSectionRequest request, Viewpoint viewpoint)
    {
        var section = plan.Sections.FirstOrDefault(one => one.Id == request.Section && !one.Pretend) ?? throw Problem.Unknown("section");
        var last = request.Last is { } text ? Day(plan, text) : (LocalDate?)null;
        var turn = Tables.Sections.EndedOn.Turns(section.EndedOn, last);
        if (!turn.Changes)
            return new($"left {section.Name} as it is", []);
        return new(
            last is { } day ? $"ended {section.Name} after {Moment.InWords(day, day)}" : $"let {section.Name} go on to the end of the term",
            [Change.Set(Tables.Sections.Table, section.Id, request.Version, turn)]
        )
        {
            Act = last is null ? $"Let {section.Name} go on" : $"End {section.Name}",
        };
    }

    private static LocalDate Day(TermPlan plan, string text)
    {
        if (LocalDatePattern.Iso.Parse(text) is not { Success: true, Value: var day })
            throw Problem.Field("last", "That is not a date. Write one such as 2026-10-12.");
        if (day < plan.Term.First || day >= plan.Term.Last)
            throw Problem.Field("last", $"Choose a day in the term, before its last: {Moment.InWords(plan.Term.Last, plan.Term.Last)}.");
        return day;
    }
}
