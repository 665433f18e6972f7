using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Core.Findings;

/// <summary>
/// What a team should know of its conditions beyond chapter 6: conditions on what can never come of the item they name or on
/// what opens later than the item that waits for it, and items that seem to lack one. They stand beside the findings of a plan file's
/// answer, not in it.
/// </summary>
public static class ConditionChecks
{
    /// <summary>
    /// <c>gate-no-outcome</c>: the item with the condition, then the items it names that can never meet it. <c>choice-untied</c>: an
    /// item that seems to be for one option of a choice, but does not hang on it.
    /// </summary>
    public static IEnumerable<PlanFinding> OfCourse(PlanSchedule plan) => NoOutcome(plan).Concat(ChoiceTies.Of(plan));

    /// <summary>Those of the course, of its sections, and chapter 6's, with the titles of options in place of their ids.</summary>
    public static IEnumerable<PlanFinding> Everywhere(PlanSchedule plan) =>
        PlanFindings.Of(plan).Concat(OfCourse(plan)).Concat(plan.Sections.SelectMany(OfSection)).Select(finding => finding.Titled(plan));

    private static IEnumerable<PlanFinding> NoOutcome(PlanSchedule plan)
    {
        foreach (var unit in plan.Edition.Units)
        {
            foreach (
                var (owner, gate) in unit
                    .Lessons.Select(lesson => (lesson.Ref.Name, lesson.Gate))
                    .Prepend((unit.Ref.Name, unit.Gate))
                    .Concat(unit.InReadingOrder().Select(item => (item.Ref.Name, item.Gate)))
            )
                if (
                    gate is not null
                    && gate
                        .Root.Leaves()
                        .Where(leaf => leaf.ItemOf is { } named && plan.Knows(named) && !plan.Item(named).CanCome(leaf))
                        .Select(leaf => leaf.ItemOf!.Value.Name)
                        .Distinct()
                        .ToList()
                        is { Count: > 0 } lacking
                )
                    yield return new(FindingCode.GateNoOutcome, null, [owner, .. lacking]);
        }
    }

    /// <summary>
    /// <c>gate-opens-late</c>: the section, the item with the condition, then the items it waits for that open later than it does.
    /// </summary>
    public static IEnumerable<PlanFinding> OfSection(SectionSchedule schedule)
    {
        foreach (var (here, dates) in schedule.Items)
        {
            if (
                here.Item.Gate is not { } gate
                || here is not { Published: true, Skipped: false, Held: false }
                || dates?.Opens.At is not { } opens
            )
                continue;
            var later = gate
                .Root.Leaves()
                .Select(leaf => leaf.ItemOf)
                .OfType<Ref<Item>>()
                .Distinct()
                .Where(named =>
                    named != here.Ref
                    && schedule.Item(named) is { Item: { Skipped: false, Published: true }, Dates.Opens.At: { } then }
                    && then > opens
                )
                .Select(named => named.Name)
                .ToList();
            if (later.Count > 0)
                yield return new(FindingCode.GateOpensLate, schedule.Section.Ref.Name, [here.Ref.Name, .. later]);
        }
    }
}
