using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;

namespace Polycline.Core.WhatIf;

/// <summary>How far a student is with something that has a condition, or that one asks for.</summary>
public enum Standing
{
    /// <summary>It is not open to them yet.</summary>
    Before,

    /// <summary>It is open to them, and they have not done it.</summary>
    At,

    /// <summary>They have done it; of a unit or lesson: its condition lets them in.</summary>
    Past,

    /// <summary>It closed before they had done it.</summary>
    Missed,
}

/// <summary>Where a student stands before, at or past conditions. Source: the computation, chapter 5.</summary>
public sealed class GetsThrough
{
    private readonly PlanSchedule plan;
    private readonly StudentRecord student;
    private readonly Instant at;
    private readonly SectionSchedule? schedule;
    private readonly Dictionary<Ref<Item>, ReleaseState> states = [];

    public GetsThrough(PlanSchedule plan, StudentRecord student, Instant at)
    {
        (this.plan, this.student, this.at) = (plan, student, at);
        if (new StudentRelease(plan, student).At(at) is not { } replay)
            return;
        schedule = replay.Table.Section.Schedule;
        for (var number = 0; number < schedule.Items.Length; number++)
            states[schedule.Items[number].Item.Ref] = replay.Decide(number) is var decided ? decided.Because ?? decided.State : default;
    }

    /// <summary>Null: it is not for them, or they are in no section.</summary>
    public Standing? Of(ConditionNode node)
    {
        if (schedule is null)
            return null;
        if (node.Level != Level.Item)
            return node.Gate is { } gate && new GateEvaluation(schedule, student).Trace(gate, at).Outcome == Outcome.NotMet
                ? Standing.Before
                : Standing.Past;
        var item = new Ref<Item>(node.Name);
        if (
            !states.TryGetValue(item, out var state)
            || state is ReleaseState.NotAssigned or ReleaseState.Excused or ReleaseState.NotEnrolled
        )
            return null;
        return student.Facts.IsDone(plan.Item(item), at) ? Standing.Past
            : state is ReleaseState.Open or ReleaseState.Overdue ? Standing.At
            : state == ReleaseState.Closed ? Standing.Missed
            : Standing.Before;
    }
}
