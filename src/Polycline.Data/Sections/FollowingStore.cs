using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;

namespace Polycline.Data.Sections;

/// <summary>A section by itself, with its class list, as it stands before it follows a course.</summary>
public sealed record LoneSection
{
    public required Id<Section> Id { get; init; }

    public required string Name { get; init; }

    public required Id<Term> Term { get; init; }

    /// <summary>What it follows now; null: nothing.</summary>
    public required Id<Edition>? Edition { get; init; }

    public required LocalDate? FollowsFrom { get; init; }

    public required long Version { get; init; }

    public required IReadOnlyList<Id<Person>> Teachers { get; init; }

    public required IReadOnlyList<ListedStudent> Listed { get; init; }

    /// <summary>Of its students.</summary>
    public required IReadOnlyDictionary<Id<Person>, string> Names { get; init; }

    /// <summary>As the computation knows it, with its students.</summary>
    public required Section Section { get; init; }
}

/// <summary>Something that a section has of its own and keeps, on its way into the course that it begins to follow.</summary>
/// <param name="Old">Its lineage until now.</param>
/// <param name="New">And from now on: another, where the course has that one already.</param>
/// <param name="Unit">The row of the course's unit that it comes to stand in; null: that comes along, or it is a unit.</param>
/// <param name="Lesson">The same of an item's lesson.</param>
public sealed record KeptThing(Level Level, Guid Old, Guid New, Id<Unit>? Unit, Id<Lesson>? Lesson);

/// <summary>A section's work on its way from one course to another.</summary>
/// <param name="From">The edition it comes from; null: it followed nothing.</param>
/// <param name="Keeps">What comes along as the section's own.</param>
/// <param name="Pairs">Items of the one that are items of the other.</param>
/// <param name="Renamed">What things are called in the other: old lineage, new lineage.</param>
public sealed record WorkMove(
    Id<Section> Section,
    Id<Edition> From,
    Id<Edition> To,
    IReadOnlyList<KeptThing> Keeps,
    IReadOnlyList<(Id<Item> From, Id<Item> To)> Pairs,
    IReadOnlyList<(string Old, string New)> Renamed
)
{
    /// <summary>The course it goes to was made for the section.</summary>
    public bool MadeOwn { get; init; }
}

/// <summary>Sections that begin to follow a course, or stop, with everything in them.</summary>
public static class FollowingStore
{
    private sealed record LoneRow(
        Id<Section> Id,
        string Name,
        Id<Term> Term,
        Id<Edition>? Edition,
        long Version,
        string Slots,
        LocalDate? FollowsFrom,
        Id<Person>[] Teachers
    );

    private sealed record WorkRow(Id<Item> Item, int HandedIn, int Scores, int Posts, int Feedback);

    /// <summary>Reads a section and locks it; null where there is none.</summary>
    public static async Task<LoneSection?> Read(NpgsqlConnection connection, Id<Section> section)
    {
        await using var results = await connection.QueryMultipleAsync(Sql.Of("Sections", "ReadLone"), new { section = section.Value });
        if (await results.ReadSingleOrDefaultAsync<LoneRow>() is not { } row)
            return null;
        var listed = (await results.ReadAsync<ListedStudent>()).AsList();
        var changes = (await results.ReadAsync<string>()).AsList();
        var names = (await results.ReadAsync<(Id<Person> Id, string Name)>()).ToDictionary(one => one.Id, one => one.Name);
        return new()
        {
            Id = row.Id,
            Name = row.Name,
            Term = row.Term,
            Edition = row.Edition,
            FollowsFrom = row.FollowsFrom,
            Version = row.Version,
            Teachers = row.Teachers,
            Listed = listed,
            Names = names,
            Section = new(
                row.Id.InPlan(),
                row.Name,
                PlanParts.Slots(row.Slots),
                [.. changes.Select(PlanParts.MeetingChange)],
                [],
                [],
                [],
                [.. listed.Select(place => new Enrolment(place.Person.InPlan(), place.From, place.To))]
            ),
        };
    }

    /// <summary>How much work of a section's students hangs on the items of a course.</summary>
    public static async Task<IReadOnlyDictionary<Id<Item>, WorkCount>> Work(
        NpgsqlConnection connection,
        Id<Edition> edition,
        Id<Section> section
    ) =>
        (
            await connection.QueryAsync<WorkRow>(Sql.Of("Sections", "CountWork"), new { edition = edition.Value, section = section.Value })
        ).ToDictionary(row => row.Item, row => new WorkCount(row.HandedIn, row.Scores, row.Posts, row.Feedback));

    /// <summary>Those pairs of items on both of which one student has work: they are never put together.</summary>
    public static async Task<IReadOnlySet<Id<Item>>> Doubled(
        NpgsqlConnection connection,
        Id<Section> section,
        IReadOnlyList<(Id<Item> From, Id<Item> To)> pairs
    ) =>
        (
            await connection.QueryAsync<Id<Item>>(
                """
                SELECT DISTINCT m.here FROM unnest(@here, @there) m (here, there)
                JOIN work w ON w.item = m.here AND w.section = @section
                JOIN work other ON other.item = m.there AND other.person = w.person
                """,
                Items(section, pairs)
            )
        ).ToHashSet();

    /// <summary>Those lineages that something in an edition has, or had before it was removed.</summary>
    public static async Task<IReadOnlySet<string>> Taken(
        NpgsqlConnection connection,
        Id<Edition> edition,
        IReadOnlyCollection<string> lineages
    ) =>
        (
            await connection.QueryAsync<string>(
                """
                SELECT lineage::text FROM (
                  SELECT lineage FROM unit WHERE edition = @edition
                  UNION ALL SELECT lineage FROM lesson WHERE edition = @edition
                  UNION ALL SELECT lineage FROM item WHERE edition = @edition) there
                WHERE lineage = ANY(@lineages)
                """,
                new { edition = edition.Value, lineages = lineages.Select(Guid.Parse).ToArray() }
            )
        ).ToHashSet(StringComparer.Ordinal);

    /// <summary>Brings along what a section keeps, and moves its students' work, for a batch that is applied.</summary>
    public static async Task Move(NpgsqlConnection connection, Id<Batch> batch, WorkMove move)
    {
        var kept = await Bring(connection, move);
        var pairs = move.Pairs.Concat(kept).ToList();
        await connection.ExecuteAsync(
            """
            INSERT INTO work_move (batch, section, edition, came_from, from_items, to_items, made_own, units, lessons, items)
            VALUES (@batch, @section, @to, @from, @here, @there, @MadeOwn,
                    ARRAY(SELECT id FROM unit WHERE edition = @course AND section = @section AND removed_at IS NULL),
                    ARRAY(SELECT id FROM lesson WHERE edition = @course AND section = @section AND removed_at IS NULL),
                    ARRAY(SELECT id FROM item WHERE edition = @course AND section = @section AND removed_at IS NULL));
            SELECT move_work(@section, @here, @there);
            """,
            new
            {
                batch = batch.Value,
                section = move.Section.Value,
                to = move.To.Value,
                from = move.From.Value,
                here = pairs.Select(pair => pair.From.Value).ToArray(),
                there = pairs.Select(pair => pair.To.Value).ToArray(),
                move.MadeOwn,
                // The one of the two that others follow as well.
                course = (move.MadeOwn ? move.From : move.To).Value,
            }
        );
        await Show(connection, batch);
        await OpenedStore.Tell(connection, move.From);
    }

    /// <summary>Takes the work back where a batch is undone that moved some, and moves it again where that is undone.</summary>
    /// <exception cref="PostgresException">PC003: students have worked since on what would be left behind.</exception>
    public static async Task TakeBack(NpgsqlConnection connection, Id<Batch> undone)
    {
        var moved = await connection.QuerySingleOrDefaultAsync<(long Batch, long Edition, long CameFrom)?>(
            Sql.Of("Sections", "TakeBackMove"),
            new { undone = undone.Value }
        );
        if (moved is not { } both)
            return;
        await Show(connection, new(both.Batch));
        // A course that was made for it is nobody's while it is not followed.
        await connection.ExecuteAsync(
            """
            WITH own AS (
              SELECT m.*, e.master FROM work_move m JOIN edition e ON e.id = m.edition
              WHERE m.made_own AND m.edition = @Edition AND m.came_from = @CameFrom
            ), gone AS (
              DELETE FROM master_member t USING own WHERE t.master = own.master AND own.back
            )
            INSERT INTO master_member (master, person, role)
            SELECT own.master, st.person, 'lead' FROM own JOIN section_teacher st ON st.section = own.section WHERE NOT own.back
            """,
            new { both.Edition, both.CameFrom }
        );
        await OpenedStore.Tell(connection, new(both.Edition));
        await OpenedStore.Tell(connection, new(both.CameFrom));
    }

    // What is of this section only is there while it follows.
    private static Task Show(NpgsqlConnection connection, Id<Batch> batch) =>
        connection.ExecuteAsync(
            string.Concat(
                new[] { "unit", "lesson", "item" }.Select(table =>
                    $"""
                        UPDATE {table} t SET removed_at = CASE WHEN m.made_own <> m.back THEN b.at END
                        FROM work_move m JOIN batch b ON b.id = m.batch WHERE m.batch = @Value AND t.id = ANY(m.{table}s);

                        """
                )
            ),
            batch
        );

    // What stays the section's own: written into the course as of that section only.
    private static async Task<IReadOnlyList<(Id<Item> From, Id<Item> To)>> Bring(NpgsqlConnection connection, WorkMove move) =>
        move.Keeps.Count == 0
            ? []
            :
            [
                .. await connection.QueryAsync<(Id<Item>, Id<Item>)>(
                    Sql.Of("Sections", "BringOwn"),
                    new
                    {
                        section = move.Section.Value,
                        from = move.From.Value,
                        to = move.To.Value,
                        levels = move.Keeps.Select(thing => (int)thing.Level).ToArray(),
                        old = move.Keeps.Select(thing => thing.Old).ToArray(),
                        now = move.Keeps.Select(thing => thing.New).ToArray(),
                        units = move.Keeps.Select(thing => thing.Unit?.Value).ToArray(),
                        lessons = move.Keeps.Select(thing => thing.Lesson?.Value).ToArray(),
                        names = move.Renamed.Select(pair => pair.Old).ToArray(),
                        renamed = move.Renamed.Select(pair => pair.New).ToArray(),
                    }
                ),
            ];

    private static object Items(Id<Section> section, IReadOnlyList<(Id<Item> From, Id<Item> To)> pairs) =>
        new
        {
            section = section.Value,
            here = pairs.Select(pair => pair.From.Value).ToArray(),
            there = pairs.Select(pair => pair.To.Value).ToArray(),
        };

    /// <summary>Makes a course of a section's own: the course it follows as it stands for it, led by its teachers.</summary>
    /// <returns>Its edition, and which of its items stands for which.</returns>
    public static async Task<(Id<Edition> Edition, IReadOnlyList<(Id<Item> From, Id<Item> To)> Pairs)> OwnCourse(
        NpgsqlConnection connection,
        Id<Edition> edition,
        Id<Section> section
    )
    {
        var made = await connection.ExecuteScalarAsync<long>(
            Sql.Of("Sections", "MakeOwn"),
            new { edition = edition.Value, section = section.Value }
        );
        var pairs = await connection.QueryAsync<(Id<Item>, Id<Item>)>(
            """
            SELECT old.id, new.id FROM item old JOIN item new ON new.lineage = old.lineage AND new.edition = @made
            WHERE old.edition = @edition
            """,
            new { made, edition = edition.Value }
        );
        return (new(made), [.. pairs]);
    }
}
