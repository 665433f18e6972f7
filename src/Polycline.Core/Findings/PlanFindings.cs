using System.Collections.Immutable;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.Findings;

/// <summary>What can be known before anyone is stuck, over a whole edition and its sections. Source: the computation, chapter 6.</summary>
public sealed class PlanFindings
{
    private readonly PlanSchedule plan;
    private readonly Dictionary<string, int> place = [];

    private PlanFindings(PlanSchedule plan)
    {
        this.plan = plan;
        foreach (var unit in plan.Edition.Units)
        {
            Next(unit.Ref.Name);
            foreach (var lesson in unit.Lessons)
            {
                Next(lesson.Ref.Name);
                foreach (var item in lesson.Items)
                    Next(item.Ref.Name);
            }
            foreach (var item in unit.Items)
                Next(item.Ref.Name);
        }
        // Reading order goes on with what sections added, section by section, in the order given.
        foreach (var adjustment in plan.Sections.SelectMany(section => section.Section.Adjustments))
            if (
                adjustment switch
                {
                    Adjustment.AddUnit add => add.Unit.Name,
                    Adjustment.AddLesson insert => insert.Lesson.Name,
                    Adjustment.AddItem add => add.Item.Ref.Name,
                    _ => null,
                } is
                { } added
            )
                Next(added);

        void Next(string name) => place.Add(name, place.Count);
    }

    /// <summary>By code, section and targets.</summary>
    public static ImmutableArray<PlanFinding> Of(PlanSchedule plan)
    {
        var all = new PlanFindings(plan);
        return Sorted([.. all.OfEdition(), .. plan.Sections.SelectMany(all.OfSection), .. all.Students(), .. IdleDays(plan)]);
    }

    private static ImmutableArray<PlanFinding> Sorted(List<PlanFinding> findings)
    {
        findings.Sort(PlanFinding.Order);
        return [.. findings];
    }

    private static IEnumerable<PlanFinding> IdleDays(PlanSchedule plan) =>
        plan.Term.IdleSpecialDays.Select(day => new PlanFinding(FindingCode.SpecialDayIdle, null, [$"{day.Date:uuuu-MM-dd}"]));

    private IEnumerable<PlanFinding> OfEdition() =>
        [.. GateCircles.In(plan.Edition), .. Branches.Of(plan.Edition), .. GateOwner.Of(plan.Edition).Where(CanNeverBeMet).Select(Never)];

    private IEnumerable<PlanFinding> OfSection(SectionSchedule schedule)
    {
        var added = GateOwner.AddedBy(schedule.Section).ToList();
        foreach (var owner in added.Where(CanNeverBeMet))
            yield return Never(owner);
        foreach (var owner in GateOwner.Of(plan.Edition).Concat(added).Where(owner => !owner.IsOutIn(schedule)))
        {
            var gate = new SectionGate(owner.Gate, schedule);
            if (gate.Waived.Count > 0)
                yield return new(
                    FindingCode.GateWaived,
                    schedule.Section.Ref.Name,
                    [owner.Name, .. gate.Waived.OrderBy(name => place[name])]
                );
            if (Blocking(gate, schedule) is { Count: > 0 } blocking)
                yield return new(FindingCode.GateBlocked, schedule.Section.Ref.Name, [owner.Name, .. InOrder(blocking)]);
        }
        foreach (var item in schedule.Items)
            if (LateFor(item, schedule) is { Count: > 0 } late)
                yield return new(FindingCode.GateLate, schedule.Section.Ref.Name, [item.Item.Ref.Name, .. InOrder(late)]);
    }

    private bool CanNeverBeMet(GateOwner owner) => Atoms(owner.Gate.Root) is { IsJudged: true } atoms && !atoms.CanBeMet(_ => false);

    private static PlanFinding Never(GateOwner owner) => new(FindingCode.GateNever, owner.Section?.Name, [owner.Name]);

    private GateAtoms Atoms(GateNode node) => new(node, plan.Item);

    private IEnumerable<string> InOrder(IEnumerable<Ref<Item>> items) => items.Select(item => item.Name).OrderBy(name => place[name]);

    // The items that students cannot work on here and without which the gate cannot be met; none: it can.
    private HashSet<Ref<Item>> Blocking(SectionGate gate, SectionSchedule schedule)
    {
        if (gate.Node is null)
            return [];
        var shut = gate.Node.Leaves().Select(leaf => leaf.ItemOf).OfType<Ref<Item>>().Where(IsShut).Concat(gate.UnmetOn).ToHashSet();
        return shut.Count > 0 && Atoms(gate.Node) is { IsJudged: true } atoms && !atoms.CanBeMet(shut.Contains) ? shut : [];

        bool IsShut(Ref<Item> item) =>
            schedule.Item(item) is { } here && (!here.Item.Published || here.Item.Held || here.Dates is { Opens.IsUnresolved: true });
    }

    // The items that open only after this one is due, and without which one of its gates cannot be met.
    private HashSet<Ref<Item>> LateFor(ScheduledItem item, SectionSchedule schedule)
    {
        var late = new HashSet<Ref<Item>>();
        if (item.Dates?.Due.At is not { } due)
            return late;
        foreach (var gate in new[] { item.Item.Unit.Gate, item.Item.Lesson?.Gate, item.Item.Item.Gate })
        {
            if (gate is null || new SectionGate(gate, schedule).Node is not { } node)
                continue;
            var later = node.Leaves()
                .Select(leaf => leaf.ItemOf)
                .OfType<Ref<Item>>()
                .Where(other => other != item.Item.Ref && schedule.Item(other)?.Dates?.Opens.At > due)
                .Distinct()
                .ToList();
            if (later.Count > 0 && Atoms(node) is { IsJudged: true } atoms && atoms.CanBeMet(_ => false))
                late.UnionWith(later.Where(other => !atoms.CanBeMet(known => known == other)));
        }
        return late;
    }

    // Students whom several sections list on one date.
    private IEnumerable<PlanFinding> Students()
    {
        var entries = plan.Sections.SelectMany(section => section.Section.Students.Select(enrolment => (section.Section.Ref, enrolment)));
        foreach (var student in entries.GroupBy(entry => entry.enrolment.Student))
        {
            var sharing = student
                .Where(one => student.Any(other => other.Ref != one.Ref && one.enrolment.Meets(other.enrolment)))
                .Select(one => one.Ref.Name)
                .Distinct()
                .ToList();
            if (sharing.Count > 0)
                yield return new(FindingCode.DoubleEnrolment, null, [student.Key.Name, .. sharing]);
        }
    }
}
