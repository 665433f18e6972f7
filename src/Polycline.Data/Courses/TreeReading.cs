using System.Collections.Immutable;
using System.Data;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;

namespace Polycline.Data.Courses;

/// <summary>Makes the tree of an edition of its rows, each in order of rank.</summary>
internal sealed class TreeReading(
    IReadOnlyList<TreeReading.UnitRow> units,
    IReadOnlyList<TreeReading.LessonRow> lessons,
    IReadOnlyList<TreeReading.ItemRow> items
)
{
    internal sealed record UnitRow(
        Id<Unit> Id,
        Guid Lineage,
        string Rank,
        string Title,
        bool Published,
        string? Gate,
        string? Before,
        long Version,
        Id<Section>? Section
    );

    internal sealed record LessonRow(
        Id<Lesson> Id,
        Guid Lineage,
        Id<Unit> Unit,
        string Rank,
        string Title,
        int Length,
        int? MinLength,
        bool Optional,
        bool Published,
        string? Gate,
        long Version,
        Id<Section>? Section
    );

    internal sealed record ItemRow(
        Id<Item> Id,
        Guid Lineage,
        Id<Unit> Unit,
        Id<Lesson>? Lesson,
        string Rank,
        string Kind,
        string Purpose,
        string Title,
        bool Published,
        string? Code,
        byte[]? Body,
        string? Opens,
        string? Due,
        string? Closes,
        string? Gate,
        string? ForWhom,
        string? Before,
        string[] Options,
        int Picks,
        long Version,
        Id<Section>? Section
    );

    /// <summary>Every unit, then every lesson, then every item.</summary>
    public IReadOnlyList<TreeRow> Rows { get; } =
    [
        .. units.Select(row => new TreeRow("unit", row.Id.Value, row.Version, $"{row.Lineage}", row.Rank, row.Id, null, row.Section)),
        .. lessons.Select(row => new TreeRow(
            "lesson",
            row.Id.Value,
            row.Version,
            $"{row.Lineage}",
            row.Rank,
            row.Unit,
            row.Id,
            row.Section,
            row.MinLength
        )),
        .. items.Select(row => RowOf(row, false)),
    ];

    /// <summary>What is of one section only.</summary>
    public SectionOnlyContent Own { get; } =
        new(
            units.Where(unit => unit.Section is not null).ToDictionary(unit => $"{unit.Lineage}", unit => UnitOf(unit, [], [])),
            lessons.Where(lesson => lesson.Section is not null).ToDictionary(lesson => $"{lesson.Lineage}", lesson => LessonOf(lesson, [])),
            items.Where(item => item.Section is not null).ToDictionary(item => $"{item.Lineage}", ItemOf)
        );

    /// <param name="empty">The edition without its units.</param>
    /// <param name="kept">Items that were removed and somebody has begun.</param>
    public CourseTree Of(Edition empty, IReadOnlyList<ItemRow> kept)
    {
        var lessonsOf = lessons.Where(lesson => lesson.Section is null).ToLookup(lesson => lesson.Unit);
        var itemsOf = items.Where(item => item.Section is null).ToLookup(item => (item.Unit, item.Lesson));
        var own = units
            .Where(unit => unit.Section is null)
            .Select(unit =>
                UnitOf(
                    unit,
                    [.. lessonsOf[unit.Id].Select(lesson => LessonOf(lesson, [.. itemsOf[(unit.Id, lesson.Id)].Select(ItemOf)]))],
                    [.. itemsOf[(unit.Id, null)].Select(ItemOf)]
                )
            );
        return new(empty with { Units = [.. own] }, Rows, Own, [.. kept.Select(row => (RowOf(row, true), ItemOf(row)))]);
    }

    private static TreeRow RowOf(ItemRow row, bool removed) =>
        new("item", row.Id.Value, row.Version, $"{row.Lineage}", row.Rank, row.Unit, row.Lesson, row.Section, Removed: removed);

    private static Unit UnitOf(UnitRow row, ImmutableArray<Lesson> lessons, ImmutableArray<Item> items) =>
        new(new($"{row.Lineage}"), row.Title, lessons, items, row.Published, GateOf(row.Gate), BeforeOf(row.Before));

    private static Lesson LessonOf(LessonRow row, ImmutableArray<Item> items) =>
        new(new($"{row.Lineage}"), row.Title, row.Length, items, row.Optional, row.Published, GateOf(row.Gate));

    private static Item ItemOf(ItemRow row) =>
        new(
            new($"{row.Lineage}"),
            EnumNames.Parse<ItemKind>(row.Kind),
            row.Title,
            EnumNames.Parse<Purpose>(row.Purpose),
            row.Published,
            row.Code,
            row.ForWhom is null ? null : PlanParts.ForWhom(row.ForWhom),
            AnchorOf(row.Opens),
            AnchorOf(row.Due),
            AnchorOf(row.Closes),
            GateOf(row.Gate),
            BeforeOf(row.Before),
            [.. row.Options],
            row.Picks,
            row.Body is null ? null : Convert.ToHexStringLower(row.Body)
        );

    private static Anchor? AnchorOf(string? json) => json is null ? null : PlanParts.Anchor(json);

    private static Core.Courses.Gate? GateOf(string? json) => json is null ? null : PlanParts.Gate(json);

    private static BeforeOpening? BeforeOf(string? word) => word is null ? null : EnumNames.Parse<BeforeOpening>(word);
}
