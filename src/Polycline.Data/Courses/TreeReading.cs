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
    IReadOnlyList<TreeReading.ItemRow> items,
    ILookup<Id<Item>, GivenFile> files
)
{
    internal sealed record UnitRow
    {
        public required Id<Unit> Id { get; init; }

        public required Guid Lineage { get; init; }

        public required string Rank { get; init; }

        public required string Title { get; init; }

        public required bool Published { get; init; }

        public required string? Gate { get; init; }

        public required string? Before { get; init; }

        public required bool Welcome { get; init; }

        public required long Version { get; init; }

        public required Id<Section>? Section { get; init; }
    }

    internal sealed record LessonRow
    {
        public required Id<Lesson> Id { get; init; }

        public required Guid Lineage { get; init; }

        public required Id<Unit> Unit { get; init; }

        public required string Rank { get; init; }

        public required string Title { get; init; }

        public required int Length { get; init; }

        public required int? MinLength { get; init; }

        public required bool Optional { get; init; }

        public required bool Published { get; init; }

        public required string? Gate { get; init; }

        public required long Version { get; init; }

        public required Id<Section>? Section { get; init; }
    }

    internal sealed record ItemRow
    {
        public required Id<Item> Id { get; init; }

        public required Guid Lineage { get; init; }

        public required Id<Unit> Unit { get; init; }

        public required Id<Lesson>? Lesson { get; init; }

        public required string Rank { get; init; }

        public required string Kind { get; init; }

        public required string Purpose { get; init; }

        public required string Title { get; init; }

        public required bool Published { get; init; }

        public required string? Code { get; init; }

        public required byte[]? Body { get; init; }

        public required string? Opens { get; init; }

        public required string? Due { get; init; }

        public required string? Closes { get; init; }

        public required string? Gate { get; init; }

        public required string? ForWhom { get; init; }

        public required string? Before { get; init; }

        public required string[] Options { get; init; }

        public required int Picks { get; init; }

        /// <summary>JSON (<see cref="PlanParts.Offered"/>); null: its options' names are all there is.</summary>
        public required string? Offered { get; init; }

        public required string? Asks { get; init; }

        public required string? Marked { get; init; }

        public required byte[]? Quiz { get; init; }
        public required byte[]? Rubric { get; init; }

        public required string? Address { get; init; }

        public required bool AboutTeacher { get; init; }

        public required string[] Outcomes { get; init; }

        public required Id<Person>? AboutWhom { get; init; }

        public required long Version { get; init; }

        public required Id<Section>? Section { get; init; }
    }

    /// <summary>Every unit, then every lesson, then every item.</summary>
    public IReadOnlyList<TreeRow> Rows { get; } =
    [
        .. units.Select(row => new TreeRow
        {
            Level = Level.Unit,
            Id = row.Id.Value,
            Version = row.Version,
            Lineage = $"{row.Lineage}",
            Rank = row.Rank,
            Unit = row.Id,
            Lesson = null,
            Section = row.Section,
        }),
        .. lessons.Select(row => new TreeRow
        {
            Level = Level.Lesson,
            Id = row.Id.Value,
            Version = row.Version,
            Lineage = $"{row.Lineage}",
            Rank = row.Rank,
            Unit = row.Unit,
            Lesson = row.Id,
            Section = row.Section,
            Shortest = row.MinLength,
        }),
        .. items.Select(row => RowOf(row, false)),
    ];

    /// <summary>What is of one section only.</summary>
    public SectionOnlyContent Own { get; } =
        new(
            units.Where(unit => unit.Section is not null).ToDictionary(unit => $"{unit.Lineage}", unit => UnitOf(unit, [], [])),
            lessons.Where(lesson => lesson.Section is not null).ToDictionary(lesson => $"{lesson.Lineage}", lesson => LessonOf(lesson, [])),
            items.Where(item => item.Section is not null).ToDictionary(item => $"{item.Lineage}", item => ItemOf(item, files))
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
                    [
                        .. lessonsOf[unit.Id]
                            .Select(lesson => LessonOf(lesson, [.. itemsOf[(unit.Id, lesson.Id)].Select(item => ItemOf(item, files))])),
                    ],
                    [.. itemsOf[(unit.Id, null)].Select(item => ItemOf(item, files))]
                )
            );
        return new(empty with { Units = [.. own] }, Rows, Own, [.. kept.Select(row => (RowOf(row, true), ItemOf(row, files)))]);
    }

    private static TreeRow RowOf(ItemRow row, bool removed) =>
        new()
        {
            Level = Level.Item,
            Id = row.Id.Value,
            Version = row.Version,
            Lineage = $"{row.Lineage}",
            Rank = row.Rank,
            Unit = row.Unit,
            Lesson = row.Lesson,
            Section = row.Section,
            AboutWhom = row.AboutWhom,
            Removed = removed,
        };

    private static Unit UnitOf(UnitRow row, ImmutableArray<Lesson> lessons, ImmutableArray<Item> items) =>
        new(new($"{row.Lineage}"), row.Title, lessons, items, row.Published, GateOf(row.Gate), BeforeOf(row.Before))
        {
            Welcome = row.Welcome,
        };

    private static Lesson LessonOf(LessonRow row, ImmutableArray<Item> items) =>
        new(new($"{row.Lineage}"), row.Title, row.Length, items, row.Optional, row.Published, GateOf(row.Gate));

    private static Item ItemOf(ItemRow row, ILookup<Id<Item>, GivenFile> files) =>
        new()
        {
            Ref = new($"{row.Lineage}"),
            Kind = EnumNames.Parse<ItemKind>(row.Kind),
            Title = row.Title,
            Purpose = EnumNames.Parse<Purpose>(row.Purpose),
            Published = row.Published,
            Code = row.Code,
            For = row.ForWhom is null ? null : PlanParts.ForWhom(row.ForWhom),
            Opens = AnchorOf(row.Opens),
            Due = AnchorOf(row.Due),
            Closes = AnchorOf(row.Closes),
            Gate = GateOf(row.Gate),
            Before = BeforeOf(row.Before),
            Options = [.. row.Options],
            Picks = row.Picks,
            Offered = row.Offered is null ? null : PlanParts.Offered(row.Offered),
            Asks = row.Asks is null ? null : PlanParts.Asks(row.Asks),
            Quiz = row.Quiz is null ? null : Convert.ToHexStringLower(row.Quiz),
            Rubric = row.Rubric is null ? null : Convert.ToHexStringLower(row.Rubric),
            Marked = row.Marked is null ? null : PlanParts.Marked(row.Marked),
            Address = row.Address,
            AboutTeacher = row.AboutTeacher,
            Outcomes = [.. row.Outcomes],
            Body = row.Body is null ? null : Convert.ToHexStringLower(row.Body),
            Files = [.. files[row.Id]],
        };

    private static Anchor? AnchorOf(string? json) => json is null ? null : PlanParts.Anchor(json);

    private static Core.Courses.Gate? GateOf(string? json) => json is null ? null : PlanParts.Gate(json);

    private static BeforeOpening? BeforeOf(string? word) => word is null ? null : EnumNames.Parse<BeforeOpening>(word);
}
