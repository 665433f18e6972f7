using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Courses;

/// <summary>Units, lessons and items that are of one section only, by lineage.</summary>
public sealed record SectionOnlyContent(
    IReadOnlyDictionary<string, Unit> Units,
    IReadOnlyDictionary<string, Lesson> Lessons,
    IReadOnlyDictionary<string, Item> Items
)
{
    /// <summary>
    /// What a section adds to the course, as the computation takes it: a unit or a lesson after the one that stands before
    /// it, an item in the order in which they were made, so that the later may hang on the earlier.
    /// </summary>
    /// <param name="here">The rows of the course and of that section, in order of rank within their kind.</param>
    public static IEnumerable<Adjustment> Added(IReadOnlyList<TreeRow> here, SectionOnlyContent parts)
    {
        var lineage = here.Where(row => row.Level != Level.Item).ToDictionary(row => (row.Level, row.Id), row => row.Lineage);
        string? before = null;
        foreach (var row in here.Where(row => row.Level == Level.Unit))
        {
            if (row.Section is not null)
                yield return new Adjustment.AddUnit(
                    new(row.Lineage),
                    parts.Units[row.Lineage].Title,
                    before is null ? null : new Ref<Unit>(before)
                );
            before = row.Lineage;
        }
        foreach (var unit in here.Where(row => row.Level == Level.Lesson).GroupBy(row => row.Unit))
        {
            before = null;
            foreach (var row in unit)
            {
                if (row.Section is not null && parts.Lessons[row.Lineage] is var lesson)
                    yield return new Adjustment.AddLesson(
                        lesson.Ref,
                        lesson.Title,
                        lesson.Length,
                        before is null ? null : new Ref<Lesson>(before),
                        before is null ? new Ref<Unit>(lineage[(Level.Unit, unit.Key.Value)]) : null
                    );
                before = row.Lineage;
            }
        }
        foreach (var row in here.Where(row => row is { Level: Level.Item, Section: not null }).OrderBy(row => row.Id))
            yield return new Adjustment.AddItem(
                parts.Items[row.Lineage],
                row.Lesson is { } lesson ? new Ref<Lesson>(lineage[(Level.Lesson, lesson.Value)]) : null,
                row.Lesson is null ? new Ref<Unit>(lineage[(Level.Unit, row.Unit.Value)]) : null
            );
    }
}
