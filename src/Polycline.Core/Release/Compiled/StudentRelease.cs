using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Core.Release.Compiled;

/// <summary>
/// How items stand for one student, on arrays: the same decisions as <see cref="Explain"/>, without the reasons. Not for
/// several threads at once. Source: the computation, chapter 5.
/// </summary>
public sealed class StudentRelease(PlanSchedule plan, StudentRecord student)
{
    private readonly Dictionary<Ref<Sections.Section>, Replay> replays = [];

    /// <summary>The decision on an item at a moment.</summary>
    public Verdict Decide(Ref<Item> item, Instant at)
    {
        if (At(at) is not { } replay)
            return Verdict.Of(ReleaseState.NotEnrolled, Sees.Nothing);
        if (replay.Table.Section.NumberOf(item) is { } number)
            return replay.Decide(number);
        // Another section added it: here it counts as skipped.
        if (student.Exceptions.GetValueOrDefault(item) is { Excused: true })
            return Verdict.Of(ReleaseState.Excused, Sees.Title);
        var skipped = Verdict.Of(ReleaseState.NotAssigned, Sees.Nothing);
        return student.Facts.HasBegun(item, at) ? skipped.OnceBegun() : skipped;
    }

    /// <summary>The student's section then, moved to that moment; null: no section lists them.</summary>
    public Replay? At(Instant at)
    {
        if (student.SectionAt(plan.Term.Term, at) is not { } section)
            return null;
        if (!replays.TryGetValue(section, out var replay))
        {
            var table = SectionTable.Of(plan.Section(section));
            replays[section] = replay = new(table.For(student), FactTable.Of(table, student));
        }
        replay.MoveTo(at);
        return replay;
    }
}
