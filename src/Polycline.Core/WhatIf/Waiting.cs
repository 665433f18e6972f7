using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Polycline.Core.Sections;

namespace Polycline.Core.WhatIf;

/// <summary>A piece of work that lies with the teacher.</summary>
/// <param name="Section">The student's section: its teachers are waited for.</param>
/// <param name="Since">When it was handed in.</param>
/// <param name="Frees">What would open for the student if it were given back now to go on, in reading order.</param>
public sealed record WaitingPiece(
    Ref<Student> Student,
    Ref<Section> Section,
    Ref<Item> Item,
    Instant Since,
    ImmutableArray<Ref<Item>> Frees
);

/// <summary>Who is waiting for whose feedback, and which piece frees most. Source: the computation, chapters 5 and 10.</summary>
public static class Waiting
{
    /// <summary>Every piece that lies with a teacher: what frees most first, then what has lain longest.</summary>
    public static ImmutableArray<WaitingPiece> Of(PlanSchedule plan, IEnumerable<StudentRecord> students, Instant at) =>
        [
            .. students
                .SelectMany(student => Of(plan, student, at))
                .OrderByDescending(piece => piece.Frees.Length)
                .ThenBy(piece => piece.Since),
        ];

    private static IEnumerable<WaitingPiece> Of(PlanSchedule plan, StudentRecord student, Instant at)
    {
        if (student.SectionAt(plan.Term.Term, at) is not { } section)
            yield break;
        var items = plan.Section(section).Items.Select(item => item.Item.Item).ToList();
        var waiting = items.Where(item => ProgressOf.Of(item, student.Facts, at) == Progress.WithTeacher).ToList();
        if (waiting.Count == 0)
            yield break;
        var before = Open(plan, student, at);
        foreach (var item in waiting)
        {
            var given = student with { Facts = new(student.Facts.All.Add(new(student.Student, item.Ref, FactEvent.Returned, at))) };
            var after = Open(plan, given, at);
            yield return new(
                student.Student,
                section,
                item.Ref,
                student.Facts.On(item.Ref, at).Last(fact => fact.Event == FactEvent.Submitted).At,
                [.. items.Select(other => other.Ref).Where(other => after.Contains(other) && !before.Contains(other))]
            );
        }
    }

    private static HashSet<Ref<Item>> Open(PlanSchedule plan, StudentRecord student, Instant at)
    {
        var open = new HashSet<Ref<Item>>();
        if (new StudentRelease(plan, student).At(at) is { } replay)
            for (var number = 0; number < replay.Table.Section.Count; number++)
                if (replay.Decide(number).State is ReleaseState.Open or ReleaseState.Overdue)
                    open.Add(replay.Table.Section.Schedule.Items[number].Item.Ref);
        return open;
    }
}
