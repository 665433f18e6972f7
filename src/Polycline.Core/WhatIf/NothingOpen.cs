using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Polycline.Core.Sections;

namespace Polycline.Core.WhatIf;

/// <summary>A student who has nothing to work on while something remains.</summary>
/// <param name="Remains">What is still to open for them, in reading order.</param>
/// <param name="NextOpens">When the first of it opens by its date; null: all of it waits for conditions, or for dates that do not
/// come.</param>
public sealed record Idle(Ref<Student> Student, Ref<Section> Section, ImmutableArray<Ref<Item>> Remains, Instant? NextOpens);

/// <summary>Who has nothing open while something remains. Source: the computation, chapter 5.</summary>
public static class NothingOpen
{
    /// <summary>In the order given.</summary>
    public static ImmutableArray<Idle> Of(PlanSchedule plan, IEnumerable<StudentRecord> students, Instant at) =>
        [.. students.Select(student => Of(plan, student, at)).OfType<Idle>()];

    private static Idle? Of(PlanSchedule plan, StudentRecord student, Instant at)
    {
        if (student.SectionAt(plan.Term.Term, at) is not { } section || new StudentRelease(plan, student).At(at) is not { } replay)
            return null;
        var remains = ImmutableArray.CreateBuilder<Ref<Item>>();
        Instant? next = null;
        foreach (var (here, number) in replay.Table.Section.Schedule.Items.Select((here, number) => (here.Item.Item, number)))
        {
            var state = replay.Decide(number).State;
            if (state is ReleaseState.Open or ReleaseState.Overdue && !ProgressOf.Of(here, student.Facts, at).IsSettled())
                return null;
            if (state is not (ReleaseState.Upcoming or ReleaseState.Locked or ReleaseState.Unscheduled))
                continue;
            remains.Add(here.Ref);
            if (state == ReleaseState.Upcoming && replay.Table.Dates[number]!.Opens.At is { } opens && !(next < opens))
                next = opens;
        }
        return remains.Count == 0 ? null : new(student.Student, section, remains.ToImmutable(), next);
    }
}
