using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.Findings;

/// <summary>A unit, lesson or item that has a gate.</summary>
/// <param name="Section">The section that added it; null: it is the edition's.</param>
internal sealed record GateOwner(string Name, Gate Gate, Unit? Unit, Lesson? Lesson, Item? Item, Ref<Section>? Section = null)
{
    /// <summary>The edition's, in reading order.</summary>
    public static IEnumerable<GateOwner> Of(Edition edition)
    {
        foreach (var unit in edition.Units)
        {
            if (unit.Gate is { } gate)
                yield return new(unit.Ref.Name, gate, unit, null, null);
            foreach (var lesson in unit.Lessons)
            {
                if (lesson.Gate is { } own)
                    yield return new(lesson.Ref.Name, own, unit, lesson, null);
                foreach (var item in lesson.Items.Where(item => item.Gate is not null))
                    yield return new(item.Ref.Name, item.Gate!, unit, lesson, item);
            }
            foreach (var item in unit.Items.Where(item => item.Gate is not null))
                yield return new(item.Ref.Name, item.Gate!, unit, null, item);
        }
    }

    /// <summary>Those a section added, in the order added.</summary>
    public static IEnumerable<GateOwner> AddedBy(Section section) =>
        section
            .Adjustments.OfType<Adjustment.AddItem>()
            .Where(add => add.Item.Gate is not null)
            .Select(add => new GateOwner(add.Item.Ref.Name, add.Item.Gate!, null, null, add.Item, section.Ref));

    /// <summary>Whether it, its lesson or its unit is unpublished or skipped in a section.</summary>
    public bool IsOutIn(SectionSchedule schedule) =>
        Item is not null ? schedule.Item(Item.Ref)!.Item is { Published: false } or { Skipped: true }
        : Lesson is not null ? schedule.Lesson(Lesson.Ref) is { Published: false } or { Skipped: true }
        : schedule.Unit(Unit!.Ref) is { Published: false } or { Skipped: true };
}
