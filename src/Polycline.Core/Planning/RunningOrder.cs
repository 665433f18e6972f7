using System.Collections.Immutable;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

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
        // Most sections keep the course's order.
        if (!adjustments.Any(adjustment => adjustment is Adjustment.AddLesson or Adjustment.OfLesson { After: not null }))
            return new(
                [.. units],
                [
                    .. units.SelectMany(unit =>
                        (unit.Unit?.Lessons ?? []).Select(lesson => new LessonPlace(
                            lesson.Ref,
                            lesson.Title,
                            lesson.Length,
                            unit.Ref,
                            lesson
                        ))
                    ),
                ]
            );
        var lessons = new LinkedList<LessonPlace>();
        // The place of each lesson; and, before a unit's first lesson, of the unit.
        var placeOf = new Dictionary<Ref<Lesson>, LinkedListNode<LessonPlace>>();
        var headOf = new Dictionary<Ref<Unit>, LinkedListNode<LessonPlace>>();
        foreach (var unit in units)
        {
            headOf[unit.Ref] = lessons.AddLast(new LessonPlace(default, unit.Title, 0, unit.Ref, null));
            foreach (var lesson in unit.Unit?.Lessons ?? [])
                placeOf[lesson.Ref] = lessons.AddLast(new LessonPlace(lesson.Ref, lesson.Title, lesson.Length, unit.Ref, lesson));
        }
        foreach (var insert in adjustments.OfType<Adjustment.AddLesson>())
        {
            var before = insert.In is { } unit ? headOf[unit] : placeOf[insert.After!.Value];
            placeOf[insert.Lesson] = lessons.AddAfter(
                before,
                new LessonPlace(insert.Lesson, insert.Title, insert.Length, before.Value.Unit, null)
            );
        }
        foreach (var head in headOf.Values)
            lessons.Remove(head);
        for (var n = 0; n < adjustments.Length; n++)
            MoveLesson(lessons, placeOf, adjustments[n], n);
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
                    throw new AdjustmentException(n, "order", $"Choose a place from 1 to {units.Count}.");
                var at = units.FindIndex(unit => unit.Ref == of.Unit);
                var moved = units[at];
                units.RemoveAt(at);
                units.Insert(order - 1, moved);
                break;
        }
    }

    private static void MoveLesson(
        LinkedList<LessonPlace> lessons,
        Dictionary<Ref<Lesson>, LinkedListNode<LessonPlace>> placeOf,
        Adjustment adjustment,
        int n
    )
    {
        if (adjustment is not Adjustment.OfLesson { After: { } after } of)
            return;
        if (after == of.Lesson)
            throw new AdjustmentException(n, "after", "It cannot come after itself. Choose another one.");
        var moved = placeOf[of.Lesson];
        lessons.Remove(moved);
        lessons.AddAfter(placeOf[after], moved);
    }
}
