using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>The order in which a section takes units and lessons, skipped ones included. Source: the computation, chapter 3.</summary>
public sealed record RunningOrder(ImmutableArray<RunningOrder.UnitPlace> Units, ImmutableArray<RunningOrder.LessonPlace> Lessons)
{
    /// <param name="Unit">Null: of this section only.</param>
    public sealed record UnitPlace(Ref<Unit> Ref, string Title, Unit? Unit);

    /// <param name="Lesson">Null: of this section only.</param>
    public sealed record LessonPlace(Ref<Lesson> Ref, string Title, int Length, Ref<Unit> Unit, Lesson? Lesson);

    /// <summary>Carries out the first three rounds of changes, each in the order given; skipping is the fourth and moves nothing.</summary>
    /// <exception cref="AdjustmentException">A place beyond the units' number, or a lesson put after itself.</exception>
    public static RunningOrder Of(Edition edition, ImmutableArray<Adjustment> adjustments)
    {
        var units = edition.Units.Select(unit => new UnitPlace(unit.Ref, unit.Title, unit)).ToList();
        for (var n = 0; n < adjustments.Length; n++)
            ChangeUnits(units, adjustments[n], n);
        var lessonsOf = units.ToDictionary(
            unit => unit.Ref,
            unit => (unit.Unit?.Lessons ?? []).Select(lesson => new LessonPlace(lesson.Ref, lesson.Title, lesson.Length, unit.Ref, lesson)).ToList());
        foreach (var insert in adjustments.OfType<Adjustment.Insert>())
            Insert(lessonsOf, insert);
        var lessons = units.SelectMany(unit => lessonsOf[unit.Ref]).ToList();
        for (var n = 0; n < adjustments.Length; n++)
            MoveLesson(lessons, adjustments[n], n);
        return new([.. units], [.. lessons]);
    }

    private static void ChangeUnits(List<UnitPlace> units, Adjustment adjustment, int n)
    {
        switch (adjustment)
        {
            case Adjustment.AddUnit add:
                units.Insert(add.After is { } after ? units.FindIndex(unit => unit.Ref == after) + 1 : 0, new(add.Unit, add.Title, null));
                break;
            case Adjustment.OfUnit { Order: { } order } of:
                if (order > units.Count)
                    throw new AdjustmentException(n, "order", $"This section has {units.Count} units: choose a place from 1 to {units.Count}.");
                var moved = units.Find(unit => unit.Ref == of.Unit)!;
                units.Remove(moved);
                units.Insert(order - 1, moved);
                break;
        }
    }

    private static void Insert(Dictionary<Ref<Unit>, List<LessonPlace>> lessonsOf, Adjustment.Insert insert)
    {
        if (insert.In is { } unit)
        {
            lessonsOf[unit].Insert(0, new(insert.Lesson, insert.Title, insert.Length, unit, null));
            return;
        }
        var (home, lessons) = lessonsOf.First(pair => pair.Value.Exists(lesson => lesson.Ref == insert.After));
        lessons.Insert(lessons.FindIndex(lesson => lesson.Ref == insert.After) + 1, new(insert.Lesson, insert.Title, insert.Length, home, null));
    }

    private static void MoveLesson(List<LessonPlace> lessons, Adjustment adjustment, int n)
    {
        if (adjustment is not Adjustment.OfLesson { After: { } after } of)
            return;
        if (after == of.Lesson)
            throw new AdjustmentException(n, "after", "A lesson cannot stand after itself: name another one.");
        var moved = lessons.Find(lesson => lesson.Ref == of.Lesson)!;
        lessons.Remove(moved);
        lessons.Insert(lessons.FindIndex(lesson => lesson.Ref == after) + 1, moved);
    }
}
