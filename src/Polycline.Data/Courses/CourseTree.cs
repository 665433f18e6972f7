using System.Collections.Immutable;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Ledger;

namespace Polycline.Data.Courses;

/// <summary>Where a unit, lesson or item stands in the database.</summary>
public sealed record TreeRow
{
    public required Level Level { get; init; }

    public required long Id { get; init; }

    public required long Version { get; init; }

    /// <summary>What the plan calls it.</summary>
    public required string Lineage { get; init; }

    /// <summary>Its place among its siblings.</summary>
    public required string Rank { get; init; }

    /// <summary>The row of its unit; its own for a unit.</summary>
    public required Id<Unit> Unit { get; init; }

    /// <summary>The row of its lesson, where it is on one; its own for a lesson.</summary>
    public required Id<Lesson>? Lesson { get; init; }

    /// <summary>The only section it is of; null: of the course.</summary>
    public Id<Section>? Section { get; init; }

    /// <summary>The least a lesson can do with; null: its length.</summary>
    public int? Shortest { get; init; }

    /// <summary>The teacher its text speaks of; null: nobody, or nobody has said whom.</summary>
    public Id<Person>? AboutWhom { get; init; }

    /// <summary>It was removed, and is known for the sake of the work on it.</summary>
    public bool Removed { get; init; }

    /// <summary>Its id as that of what it is.</summary>
    public Id<T> As<T>() => new(Id);

    /// <summary>Moves it among its siblings, and changes some of its other columns with it.</summary>
    /// <param name="rank">Where it is to stand.</param>
    /// <param name="version">The version of the row that was read.</param>
    public Change Move(string rank, long version, IReadOnlyList<Turn> turns) =>
        Level switch
        {
            Level.Unit => Change.Set(Tables.Units.Table, As<Unit>(), version, [Tables.Units.Rank.Turns(Rank, rank), .. turns]),
            Level.Lesson => Change.Set(Tables.Lessons.Table, As<Lesson>(), version, [Tables.Lessons.Rank.Turns(Rank, rank), .. turns]),
            _ => Change.Set(Tables.Items.Table, As<Item>(), version, [Tables.Items.Rank.Turns(Rank, rank), .. turns]),
        };

    /// <summary>Its being marked removed.</summary>
    /// <param name="version">The version of the row that was read.</param>
    public Change Remove(long version, Instant at) =>
        Level switch
        {
            Level.Unit => Change.Remove(Tables.Units.Table, As<Unit>(), version, at),
            Level.Lesson => Change.Remove(Tables.Lessons.Table, As<Lesson>(), version, at),
            _ => Change.Remove(Tables.Items.Table, As<Item>(), version, at),
        };
}

/// <summary>The units, lessons and items of an edition, as it has them and as they stand in the database.</summary>
/// <param name="rows">Every unit, lesson and item of it.</param>
/// <param name="own">What is of one section only.</param>
/// <param name="kept">What was removed and somebody has begun: in no section, and readable to whom it concerns.</param>
public sealed class CourseTree(
    Edition edition,
    IReadOnlyList<TreeRow> rows,
    SectionOnlyContent own,
    IReadOnlyList<(TreeRow Row, Item Item)> kept
)
{
    private readonly Dictionary<(Level, long), TreeRow> byId = rows.Concat(kept.Select(one => one.Row))
        .ToDictionary(row => (row.Level, row.Id));
    private readonly Dictionary<string, TreeRow> byLineage = rows.Concat(kept.Select(one => one.Row)).ToDictionary(row => row.Lineage);

    /// <summary>What is of the course, and not of one section only.</summary>
    public Edition Edition { get; } = edition;

    public IReadOnlyList<TreeRow> Rows { get; } = rows;

    /// <summary>The items that were removed and somebody has begun.</summary>
    public IEnumerable<Item> Kept => kept.Select(one => one.Item);

    /// <summary>Null: not in this edition, or removed.</summary>
    public TreeRow? Row<T>(Id<T> id) => byId.GetValueOrDefault((LevelOf<T>(), id.Value));

    /// <summary>The row of what the plan calls so.</summary>
    public TreeRow Row<T>(Ref<T> name) => byLineage[name.Name];

    /// <summary>The id of what the plan calls so.</summary>
    public Id<T> IdOf<T>(Ref<T> name) => Row(name).As<T>();

    /// <summary>Null: the plan knows nothing of that name.</summary>
    public TreeRow? Find(string lineage) => byLineage.GetValueOrDefault(lineage);

    /// <summary>A unit of the course or of one section only; without what is in it where it is of one section.</summary>
    public Unit UnitOf(TreeRow row) =>
        own.Units.GetValueOrDefault(row.Lineage) ?? Edition.Units.First(unit => unit.Ref.Name == row.Lineage);

    /// <summary>A lesson of the course or of one section only; without what is on it where it is of one section.</summary>
    public Lesson LessonOf(TreeRow row) =>
        own.Lessons.GetValueOrDefault(row.Lineage)
        ?? Edition.Units.SelectMany(unit => unit.Lessons).First(lesson => lesson.Ref.Name == row.Lineage);

    private static Level LevelOf<T>() =>
        typeof(T) == typeof(Unit) ? Level.Unit
        : typeof(T) == typeof(Lesson) ? Level.Lesson
        : Level.Item;
}
