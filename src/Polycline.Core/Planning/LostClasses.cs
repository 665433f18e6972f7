using System.Collections.Immutable;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Planning;

/// <summary>A lesson that is taught in a spare class instead.</summary>
/// <param name="At">The class it starts in then.</param>
public sealed record SpareUse(Adjustment.OfLesson Change, Meeting At);

/// <summary>
/// Ways to make up for classes that will not take place, beside moving everything on: what a section would have otherwise,
/// so that what comes after is moved as little as can be. Source: the computation, chapter 10.
/// </summary>
/// <param name="schedule">As it stands with those classes.</param>
/// <param name="lost">Their ordinals, at least one.</param>
public sealed class LostClasses(SectionSchedule schedule, Basis basis, ImmutableArray<int> lost)
{
    private readonly ImmutableArray<Meeting> meetings = schedule.Meetings.Meetings;
    private readonly HashSet<Ref<Lesson>> recorded = [.. schedule.Section.Taught.Select(record => record.Lesson)];

    /// <summary>
    /// Teaches what they were for in classes that no lesson has, after them: directly after the lesson that comes before such a class.
    /// </summary>
    /// <returns>Empty: there are not enough such classes, or one of the lessons is partly taught elsewhere.</returns>
    public ImmutableArray<SpareUse> UseSpare()
    {
        var lessons = schedule.Forecast.Lessons.Where(lesson => lesson.Ordinals.Any(lost.Contains)).ToList();
        if (
            lessons.Any(lesson =>
                recorded.Contains(lesson.Lesson) || schedule.Lesson(lesson.Lesson)!.Pin is not null || !lesson.Ordinals.All(lost.Contains)
            )
        )
            return [];
        var room = schedule
            .Forecast.Spare.Concat(schedule.Forecast.Free)
            .Where(ordinal => ordinal > lost.Max())
            .ToDictionary(ordinal => ordinal, ordinal => CapacityOf(meetings[ordinal - 1]));
        var moved = ImmutableArray.CreateBuilder<SpareUse>();
        Ref<Lesson>? last = null;
        var lastAt = 0;
        foreach (var lesson in lessons)
        {
            if (Place(room, schedule.Lesson(lesson.Lesson)!.Length) is not { } first)
                return [];
            var before = schedule.Forecast.Lessons.LastOrDefault(other => other.End?.Ordinal < first && !lessons.Contains(other));
            // The next one goes to the same stretch, after the one before it.
            var after = last is { } moving && (before is null || before.End!.Ordinal <= lastAt) ? moving : before?.Lesson;
            if (after is not { } there)
                return [];
            moved.Add(new(new(lesson.Lesson, After: there), meetings[first - 1]));
            (last, lastAt) = (lesson.Lesson, first);
        }
        return moved.ToImmutable();
    }

    /// <summary>The optional lessons that could be dropped for them: those still ahead, in order.</summary>
    public ImmutableArray<CourseLesson> Droppable => [.. schedule.Course.Lessons.Where(lesson => lesson.Optional && IsAhead(lesson))];

    /// <summary>Drops optional lessons that come after them, the next ones first, until they are made up for.</summary>
    /// <returns>Empty: there are not enough of them.</returns>
    public ImmutableArray<Adjustment.OfLesson> Drop() =>
        MadeUpBy(lesson => lesson.Optional ? lesson.Length : 0, (lesson, _) => new(lesson.Ref, Skip: true));

    /// <summary>Shortens lessons that come after them, the next ones first, until they are made up for.</summary>
    /// <param name="shortest">The least a lesson can do with; null: it cannot do with less.</param>
    /// <returns>Empty: they cannot be shortened by so much.</returns>
    public ImmutableArray<Adjustment.OfLesson> Shorten(Func<Ref<Lesson>, int?> shortest) =>
        MadeUpBy(
            lesson => lesson.Length - (shortest(lesson.Ref) ?? lesson.Length),
            (lesson, by) => new(lesson.Ref, Length: lesson.Length - by)
        );

    /// <param name="most">How much of a lesson can go.</param>
    /// <param name="change">What takes so much of it.</param>
    private ImmutableArray<Adjustment.OfLesson> MadeUpBy(Func<CourseLesson, int> most, Func<CourseLesson, int, Adjustment.OfLesson> change)
    {
        var missing = lost.Where(ordinal => schedule.Forecast.Lessons.Any(lesson => lesson.Ordinals.Contains(ordinal)))
            .Sum(ordinal => CapacityOf(meetings[ordinal - 1]));
        var changes = ImmutableArray.CreateBuilder<Adjustment.OfLesson>();
        foreach (var lesson in schedule.Course.Lessons.Where(IsAhead))
        {
            if (Math.Min(missing, most(lesson)) is var by and > 0)
            {
                changes.Add(change(lesson, by));
                missing -= by;
            }
        }
        return missing > 0 ? [] : changes.ToImmutable();
    }

    private bool IsAhead(CourseLesson lesson) =>
        !lesson.Skipped
        && lesson.Length > 0
        && !recorded.Contains(lesson.Ref)
        && schedule.Forecast.Lessons.FirstOrDefault(placed => placed.Lesson == lesson.Ref) is { IsPlaced: true } placed
        && placed.Ordinals.All(ordinal => ordinal >= lost.Min());

    // The first class of a run with room for so much.
    private static int? Place(Dictionary<int, int> room, int length)
    {
        foreach (var first in room.Keys.Where(ordinal => room[ordinal] > 0).Order())
        {
            var (ordinal, rest) = (first, length);
            while (rest > 0 && room.GetValueOrDefault(ordinal) > 0)
                rest -= room[ordinal++];
            if (rest > 0)
                continue;
            for (var (taken, left) = (first, length); left > 0; taken++)
            {
                var here = Math.Min(left, room[taken]);
                room[taken] -= here;
                left -= here;
            }
            return first;
        }
        return null;
    }

    private int CapacityOf(Meeting meeting) => basis == Basis.Meetings ? meeting.Counts : meeting.Minutes;
}
