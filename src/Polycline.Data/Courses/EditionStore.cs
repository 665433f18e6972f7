using System.Collections.Immutable;
using System.Data;
using Dapper;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Data.Courses;

/// <summary>An edition as it stood at one counter, with what a change of it needs.</summary>
/// <param name="RowVersions">The version of each row, by table and id.</param>
/// <param name="Sections">The sections that follow it, in order of name.</param>
public sealed record EditionPlan(
    Edition Edition, long Version, string CourseTitle, ImmutableDictionary<(string Table, long Id), long> RowVersions, ImmutableArray<FollowingSection> Sections)
{
    /// <summary>Roughly how much memory it takes, in bytes.</summary>
    public long Weight => 1_000 + 400L * RowVersions.Count;

    public ImmutableArray<SectionSize> Sizes => [.. Sections.Select(section => new SectionSize(section.Name, section.Students))];
}

/// <summary>A section that follows an edition.</summary>
/// <param name="Letter">What its line is marked with.</param>
public sealed record FollowingSection(long Id, string Name, string Letter, int Students);

/// <summary>Reads editions.</summary>
public static class EditionStore
{
    private sealed record HeadRow(long Id, long Master, string CourseTitle, string Title, string State, string Codes, long Version);
    private sealed record UnitRow(long Id, string Title, bool Published, long Version);
    private sealed record LessonRow(long Id, long Unit, string Title, int Length, bool Optional, bool Published, long Version);
    private sealed record ItemRow(long Id, long Unit, long? Lesson, string Kind, string Purpose, string Title, bool Published, string? Code, long Version);

    /// <summary>Reads a whole edition as of one moment. In a transaction of the caller's, it must be REPEATABLE READ or hold the edition's lock.</summary>
    /// <returns>Null where there is no such edition.</returns>
    public static async Task<EditionPlan?> Read(NpgsqlConnection connection, Id<Edition> edition)
    {
        await using var results = await connection.QueryMultipleAsync(Sql.Of("Courses", "ReadEdition"), new { edition = edition.Value });
        var head = await results.ReadSingleOrDefaultAsync<HeadRow>();
        if (head is null)
            return null;
        var units = (await results.ReadAsync<UnitRow>()).AsList();
        var lessons = (await results.ReadAsync<LessonRow>()).AsList();
        var items = (await results.ReadAsync<ItemRow>()).AsList();
        var sections = await results.ReadAsync<FollowingSection>();
        var lessonsOf = lessons.ToLookup(lesson => lesson.Unit);
        var itemsOf = items.ToLookup(item => (item.Unit, item.Lesson));
        var versions = units.Select(unit => KeyValuePair.Create(("unit", unit.Id), unit.Version))
            .Concat(lessons.Select(lesson => KeyValuePair.Create(("lesson", lesson.Id), lesson.Version)))
            .Concat(items.Select(item => KeyValuePair.Create(("item", item.Id), item.Version)));
        var tree = new Edition(
            new(head.Id), new(head.Master), head.Title, Words.Parse<EditionState>(head.State), Words.Parse<CodeStyle>(head.Codes),
            [.. units.Select(unit => new Unit(
                new(unit.Id), unit.Title, unit.Published,
                [.. lessonsOf[unit.Id].Select(lesson => new Lesson(
                    new(lesson.Id), lesson.Title, lesson.Length, lesson.Optional, lesson.Published, ItemsOf(unit.Id, lesson.Id)))],
                ItemsOf(unit.Id, null)))]);
        return new(tree, head.Version, head.CourseTitle, versions.ToImmutableDictionary(), [.. sections]);

        ImmutableArray<Item> ItemsOf(long unit, long? lesson) => [.. itemsOf[(unit, lesson)].Select(item => new Item(
            new(item.Id), Words.Parse<ItemKind>(item.Kind), Words.Parse<Purpose>(item.Purpose), item.Title, item.Published, item.Code))];
    }

    /// <summary>Reads a whole edition in a transaction of its own.</summary>
    public static Task<EditionPlan?> Read(Database database, Id<Edition> edition, CancellationToken stop) =>
        database.Within(IsolationLevel.RepeatableRead, connection => Read(connection, edition), stop);

    /// <summary>Locks the edition against other changes until the transaction ends.</summary>
    public static Task Lock(NpgsqlConnection connection, Id<Edition> edition) =>
        connection.ExecuteAsync("SELECT 1 FROM edition WHERE id = @Value FOR UPDATE", edition);
}
