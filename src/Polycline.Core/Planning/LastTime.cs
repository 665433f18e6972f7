using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>
/// How long the lessons of an edition really took, so that another edition can be held against it: by lesson and class, not by
/// date. Source: the computation, chapters 3 and 10, <i>Pace</i>.
/// </summary>
public sealed class LastTime
{
    private readonly Dictionary<Ref<Lesson>, int> took;

    private LastTime(Dictionary<Ref<Lesson>, int> took) => this.took = took;

    public bool IsEmpty => took.Count == 0;

    /// <param name="last">The edition before, with what was taught in its sections; of several the one in the middle counts.</param>
    public static LastTime Of(PlanSchedule last) =>
        new(
            last.Sections.SelectMany(section =>
                    section.Section.Taught.Where(record => record.Done).GroupBy(record => record.Lesson).Select(records => records.Last())
                )
                .GroupBy(record => record.Lesson, record => record.Took)
                .ToDictionary(lesson => lesson.Key, lesson => lesson.Order().ElementAt((lesson.Count() - 1) / 2))
        );

    /// <summary>
    /// Where the lessons of a section would fall, in its own order and on its own classes, if each took as long as then. What
    /// was not taught then takes as long as is planned, and is left out of the answer.
    /// </summary>
    public IReadOnlyDictionary<Ref<Lesson>, PlacedLesson> On(SectionSchedule schedule, Edition edition)
    {
        var lessons = schedule
            .Course.Lessons.Where(lesson => !lesson.Skipped)
            .Select(lesson =>
                took.TryGetValue(lesson.Ref, out var then)
                    ? new LessonToPlace(lesson.Ref, then, null, then == 0)
                    : new(lesson.Ref, lesson.Length, null)
            )
            .ToImmutableArray();
        return Placement
            .Of(lessons, schedule.Meetings.Meetings, edition.Basis, edition.MinStart)
            .Lessons.Where(lesson => lesson.IsPlaced && took.ContainsKey(lesson.Lesson))
            .ToDictionary(lesson => lesson.Lesson);
    }
}
