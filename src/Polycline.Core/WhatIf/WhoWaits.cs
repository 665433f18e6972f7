using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Polycline.Core.Sections;

namespace Polycline.Core.WhatIf;

/// <summary>A piece that waits to be given back and would open something.</summary>
/// <param name="Opens">In reading order.</param>
public sealed record OpeningPiece(Ref<Student> Student, Ref<Item> Item, Ref<Section> Section, ImmutableArray<Ref<Item>> Opens);

/// <summary>How many pieces of an item wait, and how many of them would open something.</summary>
public sealed record WaitingItem(Ref<Item> Item, int Pieces, int Opening);

/// <summary>Why a student has nothing open while something remains.</summary>
public enum Stalled
{
    /// <summary>A piece of theirs would open something, once it is given back.</summary>
    GivingBack,

    /// <summary>What they would have to do is closed for them.</summary>
    Closed,
    Held,
    Unscheduled,
    Upcoming,
    Locked,
}

/// <summary>A student with nothing open to work on, although something is still to open for them.</summary>
/// <param name="Remains">How many items are still to open.</param>
/// <param name="Item">The first of these in reading order.</param>
/// <param name="By">What its condition wants of them, where one holds it up; in reading order.</param>
public sealed record NothingToDo(
    Ref<Student> Student,
    Ref<Section> Section,
    int Remains,
    Ref<Item> Item,
    Stalled Because,
    ImmutableArray<Ref<Item>> By
);

/// <summary>
/// Who waits for feedback, what it would open, and who has nothing to go on with. Source: the computation, chapter 11, <i>waiting</i>.
/// </summary>
public sealed record WhoWaits(ImmutableArray<OpeningPiece> Pieces, ImmutableArray<WaitingItem> Items, ImmutableArray<NothingToDo> Nothing)
{
    /// <summary>Among these students, each in the section they are in at that moment.</summary>
    public static WhoWaits Of(PlanSchedule plan, IReadOnlyCollection<StudentRecord> students, Instant at, Ref<Section>? section = null) =>
        Of(plan, _ => students, at, section);

    /// <param name="listed">Whom a section lists, in order; those who are in another at that moment are left to it.</param>
    /// <param name="section">Of this one alone; null: of all.</param>
    public static WhoWaits Of(PlanSchedule plan, Func<Section, IEnumerable<StudentRecord>> listed, Instant at, Ref<Section>? section)
    {
        var order = plan.InReadingOrder().ToList();
        var pieces = ImmutableArray.CreateBuilder<OpeningPiece>();
        var nothing = ImmutableArray.CreateBuilder<NothingToDo>();
        var waiting = new Dictionary<Ref<Item>, (int Pieces, int Opening)>();
        foreach (var schedule in plan.Sections.Where(one => section is null || one.Section.Ref == section))
        foreach (var student in listed(schedule.Section))
        {
            var name = student.Student;
            if (student.SectionAt(plan.Term.Term, at) != schedule.Section.Ref || new StudentRelease(plan, student).At(at) is not { } replay)
                continue;
            var before = States(replay);
            var freed = false;
            foreach (var item in order.Where(item => student.Facts.IsWithTeacher(item, at)))
            {
                var after = States(new StudentRelease(plan, student.GivenBack(item, at)).At(at)!);
                ImmutableArray<Ref<Item>> opens = [.. order.Where(other => IsOpen(after, other) && !IsOpen(before, other))];
                var (many, opening) = waiting.GetValueOrDefault(item);
                waiting[item] = (many + 1, opening + (opens.IsEmpty ? 0 : 1));
                if (opens.IsEmpty)
                    continue;
                freed = true;
                pieces.Add(new(name, item, schedule.Section.Ref, opens));
            }
            if (Idle(plan, schedule, student, before, freed, order, at) is { } idle)
                nothing.Add(idle);
        }
        return new(
            pieces.ToImmutable(),
            [.. order.Where(waiting.ContainsKey).Select(item => new WaitingItem(item, waiting[item].Pieces, waiting[item].Opening))],
            nothing.ToImmutable()
        );
    }

    private static bool IsOpen(Dictionary<Ref<Item>, ReleaseState> states, Ref<Item> item) =>
        states.TryGetValue(item, out var state) && state is ReleaseState.Open or ReleaseState.Overdue;

    // As they are decided, whatever the student has begun.
    private static Dictionary<Ref<Item>, ReleaseState> States(Replay replay) =>
        replay
            .Table.Section.Schedule.Items.Select((item, number) => (item.Item.Ref, replay.Decide(number)))
            .ToDictionary(pair => pair.Ref, pair => pair.Item2.Because ?? pair.Item2.State);

    private static NothingToDo? Idle(
        PlanSchedule plan,
        SectionSchedule schedule,
        StudentRecord student,
        Dictionary<Ref<Item>, ReleaseState> states,
        bool freed,
        List<Ref<Item>> order,
        Instant at
    )
    {
        var undone = order.Where(item => states.ContainsKey(item) && !student.Facts.IsDone(plan.Item(item), at)).ToList();
        var remain = undone
            .Where(item => states[item] is ReleaseState.Held or ReleaseState.Unscheduled or ReleaseState.Upcoming or ReleaseState.Locked)
            .ToList();
        if (remain.Count == 0 || undone.Any(item => IsOpen(states, item)))
            return null;
        var first = remain[0];
        ImmutableArray<Ref<Item>> by = [];
        if (states[first] == ReleaseState.Locked)
        {
            var wanted = new Explain(plan, student)
                .DecideIn(schedule.Section.Ref, first, at)
                .Gates.Where(gate => !gate.Met)
                .SelectMany(gate => GateEvaluation.Wanted(gate.Trace))
                .Select(leaf => leaf.ItemOf)
                .OfType<Ref<Item>>()
                .ToHashSet();
            by = [.. order.Where(wanted.Contains)];
        }
        var isShut = by.Any(item => states.GetValueOrDefault(item) == ReleaseState.Closed && !student.Facts.IsDone(plan.Item(item), at));
        return new(
            student.Student,
            schedule.Section.Ref,
            remain.Count,
            first,
            freed ? Stalled.GivingBack
                : isShut ? Stalled.Closed
                : states[first] switch
                {
                    ReleaseState.Held => Stalled.Held,
                    ReleaseState.Unscheduled => Stalled.Unscheduled,
                    ReleaseState.Upcoming => Stalled.Upcoming,
                    _ => Stalled.Locked,
                },
            by
        );
    }
}
