using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.WhatIf;

/// <summary>A course, or a student, as it would be if something were done. Nothing is. Source: the computation, chapter 10.</summary>
public static class Supposed
{
    /// <summary>With other conditions.</summary>
    /// <param name="gates">By the name of a unit, lesson or item: its gate; null: none. Others keep their own.</param>
    public static PlanSchedule With(this PlanSchedule plan, IReadOnlyDictionary<string, Gate?> gates) =>
        plan.With(plan.Edition.With(gates), section =>
            section with
            {
                Adjustments =
                [
                    .. section.Adjustments.Select(one => one is Adjustment.AddItem add ? add with { Item = add.Item.With(gates) } : one),
                ],
            }
        );

    /// <summary>With an item dropped in every section.</summary>
    public static PlanSchedule Dropped(this PlanSchedule plan, Ref<Item> item) =>
        plan.With(plan.Edition, section =>
            section with
            {
                Adjustments = section.Adjustments.Add(new Adjustment.OfItem { Item = item, Skip = true }),
            }
        );

    /// <summary>With what waits of an item given back to go on; the same student where nothing of it waits.</summary>
    public static StudentRecord GivenBack(this StudentRecord student, Ref<Item> item, Instant at) =>
        student.Facts.IsWithTeacher(item, at)
            ? student with
            {
                Facts = new(student.Facts.All.Add(new(student.Student, item, FactEvent.Returned, at))),
            }
            : student;
}
