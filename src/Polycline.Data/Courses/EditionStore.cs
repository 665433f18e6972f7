using System.Collections.Immutable;
using System.Data;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;

namespace Polycline.Data.Courses;

/// <summary>An edition, and the counters that it and its term have: what its compiled form is kept under.</summary>
public sealed record EditionCounters(long Id, long Version, long TermVersion);

/// <summary>Reads editions.</summary>
public static class EditionStore
{
    private sealed record HeadRow(
        long Id,
        long Master,
        string CourseTitle,
        string Title,
        string State,
        string Basis,
        int MinStart,
        string Codes,
        string Before,
        string? Levels,
        long Version,
        long OwnVersion,
        Instant? CodesFixedAt,
        long Term,
        string TermName,
        string Zone,
        LocalDate First,
        LocalDate Last,
        string Calendar,
        long TermVersion
    );

    private sealed record UnitRow(
        long Id,
        Guid Lineage,
        string Rank,
        string Title,
        bool Published,
        string? Gate,
        string? Before,
        long Version,
        long? Section
    );

    private sealed record LessonRow(
        long Id,
        Guid Lineage,
        long Unit,
        string Rank,
        string Title,
        int Length,
        int? MinLength,
        bool Optional,
        bool Published,
        string? Gate,
        long Version,
        long? Section
    );

    private sealed record ItemRow(
        long Id,
        Guid Lineage,
        long Unit,
        long? Lesson,
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
        long? Section
    );

    private sealed record SectionRow(
        long Id,
        string Name,
        string Letter,
        string Slots,
        long Version,
        LocalDate? FollowsFrom,
        string[] Teachers
    );

    private sealed record EnrolmentRow(long Section, long Person, LocalDate? From, LocalDate? To);

    /// <summary>
    /// Reads a whole edition as of one moment. In a transaction of the caller's, it must be REPEATABLE READ or hold the edition's lock.
    /// </summary>
    /// <returns>Null where there is no such edition.</returns>
    public static async Task<EditionPlan?> Read(NpgsqlConnection connection, Id<Edition> edition)
    {
        await using var results = await connection.QueryMultipleAsync(Sql.Of("Courses", "ReadEdition"), new { edition = edition.Value });
        if (await results.ReadSingleOrDefaultAsync<HeadRow>() is not { } head)
            return null;
        var units = (await results.ReadAsync<UnitRow>()).AsList();
        var lessons = (await results.ReadAsync<LessonRow>()).AsList();
        var items = (await results.ReadAsync<ItemRow>()).AsList();
        var sections = (await results.ReadAsync<SectionRow>()).AsList();
        var enrolments = (await results.ReadAsync<EnrolmentRow>()).ToLookup(
            row => row.Section,
            row => new ListedStudent(row.Person, row.From, row.To)
        );
        var adjustments = (await results.ReadAsync<AdjustmentRow>()).AsList();
        var taught = (await results.ReadAsync<TaughtRow>()).AsList();
        var changes = (await results.ReadAsync<MeetingChangeRow>()).AsList();
        var orders = (await results.ReadAsync<OrderChangeRow>()).AsList();
        var differences = new SectionRows(adjustments, orders, taught, changes, (await results.ReadAsync<OpenedRow>()).AsList());
        var retired = (await results.ReadAsync<string>()).ToHashSet(StringComparer.Ordinal);
        var kept = (await results.ReadAsync<ItemRow>())
            .Select(row =>
                (
                    new TreeRow("item", row.Id, row.Version, $"{row.Lineage}", row.Rank, row.Unit, row.Lesson, row.Section, Removed: true),
                    ItemOf(row)
                )
            )
            .ToList();
        var groups = (await results.ReadAsync<GroupRow>()).AsList();
        var rows = units
            .Select(row => new TreeRow("unit", row.Id, row.Version, $"{row.Lineage}", row.Rank, row.Id, null, row.Section))
            .Concat(
                lessons.Select(row => new TreeRow(
                    "lesson",
                    row.Id,
                    row.Version,
                    $"{row.Lineage}",
                    row.Rank,
                    row.Unit,
                    row.Id,
                    row.Section,
                    row.MinLength
                ))
            )
            .Concat(
                items.Select(row => new TreeRow("item", row.Id, row.Version, $"{row.Lineage}", row.Rank, row.Unit, row.Lesson, row.Section))
            )
            .ToList();
        var own = OwnOf(units, lessons, items);
        return new(
            new(head.Id),
            new(head.Master),
            EnumNames.Parse<EditionState>(head.State),
            TreeOf(head, units, lessons, items),
            head.Version,
            head.CourseTitle,
            new(head.Term),
            new(head.TermName, DateTimeZoneProviders.Tzdb[head.Zone], head.First, head.Last, PlanParts.Calendar(head.Calendar)),
            head.TermVersion,
            rows,
            [.. sections.Select(row => FollowingOf(row, [.. enrolments[row.Id]], differences, rows, own))],
            differences,
            own,
            new(head.OwnVersion, head.CodesFixedAt is not null, retired),
            groups,
            kept
        );
    }

    /// <summary>Reads a whole edition in a transaction of its own.</summary>
    public static Task<EditionPlan?> Read(Database database, Id<Edition> edition, CancellationToken stop) =>
        database.Within(IsolationLevel.RepeatableRead, connection => Read(connection, edition), stop);

    /// <summary>The edition of the same course before this one, and the counters it and its term have; null: this is the first.</summary>
    public static Task<EditionCounters?> Before(NpgsqlConnection connection, Id<Edition> edition) =>
        connection.QuerySingleOrDefaultAsync<EditionCounters?>(
            """
            SELECT b.id, b.version, t.version AS term_version
            FROM edition e
            JOIN edition b ON b.master = e.master AND b.ordinal < e.ordinal
            JOIN term t ON t.id = b.term
            WHERE e.id = @Value
            ORDER BY b.ordinal DESC LIMIT 1
            """,
            edition
        );

    /// <summary>Locks the edition against other changes until the transaction ends.</summary>
    public static Task Lock(NpgsqlConnection connection, Id<Edition> edition) =>
        connection.ExecuteAsync("SELECT 1 FROM edition WHERE id = @Value FOR UPDATE", edition);

    /// <summary>Gives every item the code it has for good; those that come later are given theirs when they are added.</summary>
    public static Task FixCodes(NpgsqlConnection connection, EditionPlan plan, Instant at)
    {
        var codes = plan
            .Rows.Where(row => row.Table == "item" && plan.IsHere(row))
            .Select(row => (row.Id, Code: plan.Schedule.CodeOf[new(row.Lineage)]))
            .ToList();
        return connection.ExecuteAsync(
            """
            UPDATE item i SET code = n.code FROM unnest(@ids, @codes) n (id, code) WHERE i.id = n.id AND i.code IS NULL;
            UPDATE edition SET codes_fixed_at = @at WHERE id = @edition
            """,
            new
            {
                ids = codes.Select(one => one.Id).ToArray(),
                codes = codes.Select(one => one.Code).ToArray(),
                at,
                edition = plan.Id.Value,
            }
        );
    }

    /// <summary>What was removed from a lesson, and goes wherever that goes so that it can be brought back: ids and versions.</summary>
    public static async Task<IReadOnlyList<(long Id, long Version)>> RemovedFrom(NpgsqlConnection connection, Id<Lesson> lesson) =>
        [
            .. await connection.QueryAsync<(long, long)>(
                "SELECT id, version FROM item WHERE lesson = @Value AND removed_at IS NOT NULL ORDER BY id",
                lesson
            ),
        ];

    private static Edition TreeOf(HeadRow head, List<UnitRow> units, List<LessonRow> lessons, List<ItemRow> items)
    {
        var lessonsOf = lessons.Where(lesson => lesson.Section is null).ToLookup(lesson => lesson.Unit);
        var itemsOf = items.Where(item => item.Section is null).ToLookup(item => (item.Unit, item.Lesson));
        return new(
            head.Title,
            EnumNames.Parse<Basis>(head.Basis),
            head.MinStart,
            EnumNames.Parse<CodeStyle>(head.Codes),
            EnumNames.Parse<BeforeOpening>(head.Before),
            [
                .. units
                    .Where(unit => unit.Section is null)
                    .Select(unit =>
                        UnitOf(
                            unit,
                            [.. lessonsOf[unit.Id].Select(lesson => LessonOf(lesson, [.. itemsOf[(unit.Id, lesson.Id)].Select(ItemOf)]))],
                            [.. itemsOf[(unit.Id, null)].Select(ItemOf)]
                        )
                    ),
            ]
        )
        {
            Levels = head.Levels is null ? LevelNames.Plain : PlanParts.Levels(head.Levels),
        };
    }

    private static SectionOnlyContent OwnOf(List<UnitRow> units, List<LessonRow> lessons, List<ItemRow> items) =>
        new(
            units.Where(unit => unit.Section is not null).ToDictionary(unit => $"{unit.Lineage}", unit => UnitOf(unit, [], [])),
            lessons.Where(lesson => lesson.Section is not null).ToDictionary(lesson => $"{lesson.Lineage}", lesson => LessonOf(lesson, [])),
            items.Where(item => item.Section is not null).ToDictionary(item => $"{item.Lineage}", ItemOf)
        );

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

    private static FollowingSection FollowingOf(
        SectionRow row,
        IReadOnlyList<ListedStudent> listed,
        SectionRows all,
        List<TreeRow> rows,
        SectionOnlyContent parts
    )
    {
        var here = rows.Where(other => other.Section is null || other.Section == row.Id).ToList();
        var tables = here.ToDictionary(other => other.Lineage, other => other.Table);
        // A difference in something that was removed from the course sleeps.
        var own = all
            .Adjustments.Where(adjustment => adjustment.Section == row.Id && tables.ContainsKey(adjustment.Target))
            .GroupBy(adjustment => adjustment.Target)
            .Select(target =>
                PlanParts.Adjustment(tables[target.Key], target.Key, target.Select(adjustment => (adjustment.Field, adjustment.Value)))
            );
        var units = tables.Values.Count(table => table == "unit");
        var orders = all
            .Orders.Where(order => order.Section == row.Id && tables.ContainsKey(order.Target))
            .Select(order => PlanParts.Adjustment(tables[order.Target], order.Target, order.Change))
            .Where(order => order is not Adjustment.OfLesson { After: { } after } || tables.ContainsKey(after.Name))
            // The course may have fewer units by now: last is then last.
            .Select(order => order is Adjustment.OfUnit { Order: { } place } unit ? unit with { Order = Math.Min(place, units) } : order);
        return new(
            row.Id,
            row.Name,
            row.Letter,
            listed,
            row.Version,
            row.FollowsFrom,
            row.Slots,
            row.Teachers,
            new(
                new($"{row.Id}"),
                row.Name,
                PlanParts.Slots(row.Slots),
                [.. all.MeetingChanges.Where(change => change.Section == row.Id).Select(change => PlanParts.MeetingChange(change.Change))],
                [.. SectionOnlyContent.Added(here, parts), .. orders, .. own],
                [
                    .. all
                        .Taught.Where(record => record.Section == row.Id && tables.ContainsKey(record.Lesson))
                        .Select(record => new Taught(new(record.Lesson), record.Took, record.Done, record.Left, record.At)),
                ],
                [
                    .. all
                        .Opened.Where(record => record.Section == row.Id && tables.ContainsKey(record.Item))
                        .Select(record => new OpeningRecord(new(record.Item), record.At, record.Due)),
                ],
                []
            )
        );
    }

    private static Anchor? AnchorOf(string? json) => json is null ? null : PlanParts.Anchor(json);

    private static Core.Courses.Gate? GateOf(string? json) => json is null ? null : PlanParts.Gate(json);

    private static BeforeOpening? BeforeOf(string? word) => word is null ? null : EnumNames.Parse<BeforeOpening>(word);
}
