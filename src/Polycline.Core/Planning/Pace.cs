using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>Where a section stands in its plan at a moment. Source: the computation, chapter 10, <i>Pace</i>.</summary>
/// <param name="Lesson">The lesson it is at, or comes to next; null: it is through, or has none.</param>
/// <param name="BehindBy">
/// How many classes later than planned it comes to what the plan is at now, or ended with; below 0: earlier. Null: the forecast
/// has no place for that.
/// </param>
/// <param name="Finish">When its last lesson ends, as the forecast has it; null: none is placed.</param>
public sealed record Pace(Ref<Lesson>? Lesson, int? BehindBy, Instant? Finish)
{
    public static Pace Of(SectionSchedule schedule, Instant at)
    {
        var forecast = schedule.Forecast.Lessons.Where(lesson => lesson.IsPlaced).ToDictionary(lesson => lesson.Lesson);
        var planned = schedule.Planned.Lessons.Where(lesson => lesson.IsPlaced).ToList();
        var plan = planned.Find(lesson => lesson.EndsAt > at) ?? planned.LastOrDefault();
        return new(
            schedule.Forecast.Lessons.FirstOrDefault(lesson => lesson.EndsAt > at)?.Lesson,
            plan is not null && forecast.GetValueOrDefault(plan.Lesson) is { } real ? real.Start!.Ordinal - plan.Start!.Ordinal : null,
            schedule.Forecast.Lessons.Max(lesson => lesson.EndsAt)
        );
    }
}
