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
public sealed record EditionCounters(Id<Edition> Id, long Version, long TermVersion);

/// <summary>Reads editions.</summary>
public static class EditionStore
{
    private sealed record HeadRow
    {
        public required Id<Edition> Id { get; init; }

        public required Id<Master> Master { get; init; }

        public required string CourseTitle { get; init; }

        public required string Subject { get; init; }

        public required long NameVersion { get; init; }

        public required string Title { get; init; }

        public required string State { get; init; }

        public required string Basis { get; init; }

        public required int MinStart { get; init; }

        public required string Codes { get; init; }

        public required string Before { get; init; }

        public required string? Levels { get; init; }

        public required string? AddingUp { get; init; }

        public required long Version { get; init; }

        public required long OwnVersion { get; init; }

        public required Instant? CodesFixedAt { get; init; }

        public required Id<Core.Calendars.Term> Term { get; init; }

        public required string TermName { get; init; }

        public required string Zone { get; init; }

        public required LocalDate First { get; init; }

        public required LocalDate Last { get; init; }

        public required string Calendar { get; init; }

        public required long TermVersion { get; init; }

        /// <summary>The edition, before its units are in it.</summary>
        public Edition Empty =>
            new(
                Title,
                EnumNames.Parse<Basis>(Basis),
                MinStart,
                EnumNames.Parse<CodeStyle>(Codes),
                EnumNames.Parse<BeforeOpening>(Before),
                []
            )
            {
                Levels = Levels is null ? LevelNames.Plain : PlanParts.Levels(Levels),
                AddingUp = AddingUp is null ? Core.Courses.AddingUp.Plain : PlanParts.AddingUp(AddingUp),
            };
    }

    private sealed record FileRow(Id<Item> Item, string Name, string Hash, string Given, string? CopyName);

    private sealed record EnrolmentRow(
        Id<ListedStudent> Id,
        Id<Section> Section,
        Id<Person> Person,
        LocalDate? From,
        LocalDate? To,
        long Version
    );

    /// <summary>
    /// Reads a whole edition as of one moment. In a transaction of the caller's, it must be REPEATABLE READ or hold the edition's lock.
    /// </summary>
    /// <returns>Null where there is no such edition.</returns>
    public static async Task<EditionPlan?> Read(NpgsqlConnection connection, Id<Edition> edition)
    {
        await using var results = await connection.QueryMultipleAsync(Sql.Of("Courses", "ReadEdition"), new { edition = edition.Value });
        if (await results.ReadSingleOrDefaultAsync<HeadRow>() is not { } head)
            return null;
        var units = (await results.ReadAsync<TreeReading.UnitRow>()).AsList();
        var lessons = (await results.ReadAsync<TreeReading.LessonRow>()).AsList();
        var items = (await results.ReadAsync<TreeReading.ItemRow>()).AsList();
        var sections = (await results.ReadAsync<SectionReading.SectionRow>()).AsList();
        var enrolments = (await results.ReadAsync<EnrolmentRow>()).ToLookup(
            row => row.Section,
            row => new ListedStudent(row.Id, row.Person, row.From, row.To, row.Version)
        );
        var adjustments = (await results.ReadAsync<AdjustmentRow>()).AsList();
        var taught = (await results.ReadAsync<TaughtRow>()).AsList();
        var changes = (await results.ReadAsync<MeetingChangeRow>()).AsList();
        var orders = (await results.ReadAsync<OrderChangeRow>()).AsList();
        var differences = new SectionRows(adjustments, orders, taught, changes, (await results.ReadAsync<OpenedRow>()).AsList());
        var retired = (await results.ReadAsync<string>()).ToHashSet(StringComparer.Ordinal);
        var kept = (await results.ReadAsync<TreeReading.ItemRow>()).AsList();
        var people = new EditionPeople(
            (await results.ReadAsync<GroupRow>()).AsList(),
            (await results.ReadAsync<HomeRow>()).AsList(),
            (await results.ReadAsync<ExceptionRow>()).AsList(),
            (await results.ReadAsync<ArrangementRow>()).AsList()
        );
        var files = (await results.ReadAsync<FileRow>()).ToLookup(
            row => row.Item,
            row => new GivenFile(row.Name, row.Hash, EnumNames.Parse<FileWay>(row.Given), row.CopyName)
        );
        var tree = new TreeReading(units, lessons, items, files);
        return new(
            new(
                head.Id,
                head.Master,
                EnumNames.Parse<EditionState>(head.State),
                head.Version,
                new(head.CourseTitle, head.Subject, head.NameVersion),
                new(head.OwnVersion, head.CodesFixedAt is not null, retired)
            ),
            new(
                head.Term,
                new(head.TermName, DateTimeZoneProviders.Tzdb[head.Zone], head.First, head.Last, PlanParts.Calendar(head.Calendar)),
                head.TermVersion
            ),
            tree.Of(head.Empty, kept),
            new(
                [.. sections.Select(row => SectionReading.Of(row, [.. enrolments[row.Id]], differences, tree.Rows, tree.Own))],
                differences
            ),
            people
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
    /// <param name="stop">Cancels the wait for the lock.</param>
    public static Task Lock(NpgsqlConnection connection, Id<Edition> edition, CancellationToken stop = default) =>
        connection.ExecuteAsync(new("SELECT 1 FROM edition WHERE id = @Value FOR UPDATE", edition, cancellationToken: stop));

    /// <summary>Gives every item the code it has for good; those that come later are given theirs when they are added.</summary>
    public static Task FixCodes(NpgsqlConnection connection, EditionPlan plan, Instant at)
    {
        var codes = plan
            .Rows.Where(row => row.Level == Level.Item && plan.IsHere(row))
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

    /// <summary>What was removed from lessons, and goes wherever they go so that it can be brought back: ids and versions.</summary>
    public static async Task<ILookup<Id<Lesson>, (Id<Item> Id, long Version)>> RemovedFrom(
        NpgsqlConnection connection,
        IReadOnlyCollection<Id<Lesson>> lessons
    ) =>
        (
            await connection.QueryAsync<(Id<Lesson> Lesson, Id<Item> Id, long Version)>(
                "SELECT lesson, id, version FROM item WHERE lesson = ANY(@lessons) AND removed_at IS NOT NULL ORDER BY id",
                new { lessons = lessons.Select(lesson => lesson.Value).ToArray() }
            )
        ).ToLookup(row => row.Lesson, row => (row.Id, row.Version));
}
