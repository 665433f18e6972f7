using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Release.Compiled;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Release.WhatIf;

/// <summary>What a change does for one student with one item at a moment.</summary>
/// <param name="Before">What they see of it now.</param>
/// <param name="After">What they would see.</param>
/// <param name="DateMoves">Whether its opening, due or closing moves for them.</param>
/// <param name="HasBegun">Whether they have begun it.</param>
public sealed record SightChange(Ref<Student> Student, Ref<Item> Item, Sees Before, Sees After, bool DateMoves, bool HasBegun)
{
    public bool Gains => After > Before;

    public bool Loses => After < Before;
}

/// <summary>
/// The reach of a change on students, computed from the course before it and after it: who gains and loses sight of what,
/// whose dates move, who has begun. Source: the computation, chapters 4 and 5.
/// </summary>
/// <param name="Changes">Student by student in the order given, items in reading order; what stays as it is is left out.</param>
public sealed record SightReach(ImmutableArray<SightChange> Changes)
{
    /// <param name="students">Each as they are before the change and after it: exceptions, groups and enrolment may be what changes.</param>
    public static SightReach Between(PlanSchedule before, PlanSchedule after, IEnumerable<(StudentRecord Before, StudentRecord After)> students, Instant at) =>
        new([.. students.SelectMany(pair => Of(before, after, pair.Before, pair.After, at))]);

    /// <inheritdoc cref="Between(PlanSchedule, PlanSchedule, IEnumerable{ValueTuple{StudentRecord, StudentRecord}}, Instant)"/>
    public static SightReach Between(PlanSchedule before, PlanSchedule after, IEnumerable<StudentRecord> students, Instant at) =>
        Between(before, after, students.Select(student => (student, student)), at);

    /// <summary>The same in words, for the team.</summary>
    public string Sentence()
    {
        List<string> parts = [];
        Say(change => change.Gains, "gains sight of something", "gain sight of something");
        Say(change => change.Loses, "loses sight of something", "lose sight of something");
        Say(change => change.Loses && change.HasBegun, "of these has begun it", "of these have begun it");
        Say(change => change.DateMoves, "gets another date", "get another date");
        return parts.Count == 0 ? "Nothing changes for any student now." : $"{Joined(parts, "and")}.";

        void Say(Func<SightChange, bool> which, string one, string many)
        {
            if (Changes.Where(which).Select(change => change.Student).Distinct().Count() is > 0 and var students)
                parts.Add($"{Counted(students, "student", "students")} {(students == 1 ? one : many)}");
        }
    }

    private static IEnumerable<SightChange> Of(PlanSchedule before, PlanSchedule after, StudentRecord was, StudentRecord will, Instant at)
    {
        var (old, now) = (new StudentRelease(before, was), new StudentRelease(after, will));
        foreach (var item in ItemsOf(now.At(at)).Union(ItemsOf(old.At(at))))
        {
            var (sees, then) = (old.Decide(item, at).Sees, now.Decide(item, at).Sees);
            var moves = Moments(old.At(at), item) is { } earlier && Moments(now.At(at), item) is { } later && earlier != later;
            if (sees != then || moves)
                yield return new(was.Student, item, sees, then, moves, was.Facts.HasBegun(item, at));
        }
    }

    private static IEnumerable<Ref<Item>> ItemsOf(Replay? replay) => replay is null ? [] : replay.Table.Section.Schedule.Items.Select(item => item.Item.Ref);

    private static (Instant? Opens, Instant? Due, Instant? Closes)? Moments(Replay? replay, Ref<Item> item) =>
        replay?.Table.Section.NumberOf(item) is { } number && replay.Table.Dates[number] is { } dates ? (dates.Opens.At, dates.Due.At, dates.Closes.At) : null;
}
