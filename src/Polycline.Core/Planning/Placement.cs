using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>Where a lesson falls in a section. Source: the computation, chapter 3, <i>Result per lesson</i>.</summary>
/// <param name="Ordinals">The meetings it touches.</param>
/// <param name="Start">The meeting of its start; null: it is not placed.</param>
/// <param name="End">The meeting of its end.</param>
/// <param name="Overflow">How much of it does not fit.</param>
public sealed record PlacedLesson(
    Ref<Lesson> Lesson,
    ImmutableArray<int> Ordinals,
    Instant? StartsAt,
    Instant? EndsAt,
    Meeting? Start,
    Meeting? End,
    int Overflow
)
{
    public bool IsPlaced => Start is not null;
}

/// <summary>A lesson to be placed.</summary>
/// <param name="TakenAlong">Done and took nothing: it was taught along with the one before it.</param>
public sealed record LessonToPlace(Ref<Lesson> Lesson, int Length, LocalDate? Pin, bool TakenAlong = false);

/// <summary>A plan laid on a section's meetings.</summary>
/// <param name="Lessons">In running order.</param>
/// <param name="Spare">Ordinals that no lesson has, before the last that one has.</param>
/// <param name="Free">Those after it; all where no lesson has any.</param>
/// <param name="Lacking">What does not fit, altogether.</param>
public sealed record Placement(
    ImmutableArray<PlacedLesson> Lessons,
    ImmutableArray<int> Spare,
    ImmutableArray<int> Free,
    int Lacking,
    ImmutableArray<Finding> Findings
)
{
    /// <summary>Lays <paramref name="lessons"/>, in running order, on <paramref name="meetings"/>.</summary>
    public static Placement Of(IReadOnlyList<LessonToPlace> lessons, ImmutableArray<Meeting> meetings, Basis basis, int minStart)
    {
        var placer = new Placer(meetings, basis, minStart);
        var placed = placer.Lay(lessons);
        var used = new bool[meetings.Length + 1];
        var last = 0;
        foreach (var lesson in placed)
        foreach (var ordinal in lesson.Ordinals)
            (used[ordinal], last) = (true, Math.Max(last, ordinal));
        return new(
            placed,
            [.. Enumerable.Range(1, last).Where(ordinal => !used[ordinal])],
            [.. Enumerable.Range(last + 1, meetings.Length - last)],
            placed.Sum(lesson => lesson.Overflow),
            [.. placer.Findings, .. Overflows(placed), .. AfterPins(lessons, placed)]
        );
    }

    private static IEnumerable<Finding> Overflows(ImmutableArray<PlacedLesson> placed) =>
        placed
            .Where(lesson => lesson.Overflow > 0)
            .Select(lesson => new Finding(FindingCode.Overflow, lesson.Lesson.Name, lesson.Overflow));

    // A placed lesson that a pinned one follows in running order, but that ends later than that one starts.
    private static IEnumerable<Finding> AfterPins(IReadOnlyList<LessonToPlace> lessons, ImmutableArray<PlacedLesson> placed)
    {
        Instant? earliest = null;
        for (var n = lessons.Count - 1; n >= 0; n--)
        {
            if (placed[n].EndsAt > earliest)
                yield return new(FindingCode.AfterPin, placed[n].Lesson.Name);
            if (lessons[n] is { Pin: not null, TakenAlong: false } && placed[n].StartsAt is { } start && !(earliest < start))
                earliest = start;
        }
    }
}
