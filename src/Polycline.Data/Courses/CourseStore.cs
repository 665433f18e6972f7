using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Files;

namespace Polycline.Data.Courses;

/// <summary>Writes whole courses that come from a file. All in the caller's transaction.</summary>
public static class CourseStore
{
    /// <summary>Makes a course of its own, led by whoever takes it in; its bodies and files are kept already.</summary>
    /// <param name="course">Its ids are lineages, its bodies and files hashes.</param>
    public static async Task<Id<Edition>> Add(
        NpgsqlConnection connection,
        CourseFile course,
        Id<Term> term,
        Id<Person> lead,
        Instant at,
        string subject = ""
    )
    {
        var edition = course.Edition;
        var master = await Insert("master (title, subject) VALUES (@Title, @subject)", new { course.Title, subject });
        await connection.ExecuteAsync(
            "INSERT INTO master_member (master, person, role) VALUES (@master, @lead, 'lead')",
            new { master, lead = lead.Value }
        );
        var made = await Insert(
            "edition (master, ordinal, title, term, basis, min_start, codes, before, levels, adding_up, state, taken_in_at) "
                + "VALUES (@master, 1, @Title, @term, @basis, @MinStart, @codes, @before, @levels::jsonb, @adding::jsonb, 'current', @at)",
            new
            {
                master,
                edition.Title,
                term = term.Value,
                basis = EnumNames.Of(edition.Basis),
                edition.MinStart,
                codes = EnumNames.Of(edition.Codes),
                before = EnumNames.Of(edition.Before),
                levels = edition.Levels == LevelNames.Plain ? null : PlanParts.Json(edition.Levels),
                adding = edition.AddingUp == AddingUp.Plain ? null : PlanParts.Json(edition.AddingUp),
                at,
            }
        );
        await connection.ExecuteAsync(
            "INSERT INTO student_group (edition, name) SELECT @made, unnest(@names)",
            new { made, names = course.Groups().ToArray() }
        );
        foreach (var (unit, place) in edition.Units.Select((unit, place) => (unit, place)))
        {
            var inUnit = await Insert(
                "unit (edition, lineage, rank, title, published, gate, before, welcome) VALUES "
                    + "(@made, @lineage, @rank, @Title, @Published, @gate::jsonb, @before, @Welcome)",
                new
                {
                    made,
                    lineage = Guid.Parse(unit.Ref.Name),
                    rank = Rank.Nth(place),
                    unit.Title,
                    unit.Published,
                    gate = Json(unit.Gate),
                    before = Word(unit.Before),
                    unit.Welcome,
                }
            );
            foreach (var (lesson, n) in unit.Lessons.Select((lesson, n) => (lesson, n)))
            {
                var onLesson = await Insert(
                    "lesson (edition, unit, lineage, rank, title, length, min_length, optional, published, gate) VALUES "
                        + "(@made, @inUnit, @lineage, @rank, @Title, @Length, @shortest, @Optional, @Published, @gate::jsonb)",
                    new
                    {
                        made,
                        inUnit,
                        lineage = Guid.Parse(lesson.Ref.Name),
                        rank = Rank.Nth(n),
                        lesson.Title,
                        lesson.Length,
                        shortest = course.Shortest.TryGetValue(lesson.Ref.Name, out var least) ? least : (int?)null,
                        lesson.Optional,
                        lesson.Published,
                        gate = Json(lesson.Gate),
                    }
                );
                await Items(lesson.Items, inUnit, onLesson);
            }
            await Items(unit.Items, inUnit, null);
        }
        return new(made);

        async Task Items(IEnumerable<Item> items, long unit, long? lesson)
        {
            foreach (var (item, place) in items.Select((item, place) => (item, place)))
            {
                var added = await Insert(
                    """
                    item (edition, unit, lesson, lineage, rank, kind, purpose, title, published, code, body,
                      opens, due, closes, gate, for_whom, before, options, picks, offered, asks, marked, quiz, rubric, address,
                      about_teacher, outcomes)
                    VALUES (@made, @unit, @lesson, @lineage, @rank, @kind, @purpose, @Title, @Published, @Code, @body,
                      @opens::jsonb, @due::jsonb, @closes::jsonb, @gate::jsonb, @whom::jsonb, @before, @options, @Picks, @offered::jsonb,
                      @asks::jsonb, @marked::jsonb, @quiz, @rubric, @Address, @AboutTeacher, @outcomes)
                    """,
                    new
                    {
                        made,
                        unit,
                        lesson,
                        lineage = Guid.Parse(item.Ref.Name),
                        rank = Rank.Nth(place),
                        kind = EnumNames.Of(item.Kind),
                        purpose = EnumNames.Of(item.Purpose),
                        item.Title,
                        item.Published,
                        item.Code,
                        body = item.Body is null ? null : Convert.FromHexString(item.Body),
                        opens = Json(item.Opens),
                        due = Json(item.Due),
                        closes = Json(item.Closes),
                        gate = Json(item.Gate),
                        whom = item.For is { } whom ? PlanParts.Json(whom) : null,
                        before = Word(item.Before),
                        options = item.Options.IsDefault ? [] : item.Options.ToArray(),
                        item.Picks,
                        offered = item.Offered is null ? null : PlanParts.Json(item.Offered),
                        asks = item.Asks is { } asks ? PlanParts.Json(asks) : null,
                        quiz = item.Quiz is null ? null : Convert.FromHexString(item.Quiz),
                        rubric = item.Rubric is null ? null : Convert.FromHexString(item.Rubric),
                        marked = item.Marked is { } marked ? PlanParts.Json(marked) : null,
                        item.Address,
                        item.AboutTeacher,
                        outcomes = item.Outcomes.ToArray(),
                    }
                );
                foreach (var (file, n) in item.Files.Select((file, n) => (file, n)))
                    await Insert(
                        """
                        item_file (edition, item, rank, name, file, given, copy_name, brought_by, brought_at)
                        VALUES (@made, @added, @rank, @Name, @hash, @given, @CopyName, @lead, @at)
                        """,
                        new
                        {
                            made,
                            added,
                            rank = Rank.Nth(n),
                            file.Name,
                            hash = Convert.FromHexString(file.Hash),
                            given = EnumNames.Of(file.Way),
                            file.CopyName,
                            lead = lead.Value,
                            at,
                        }
                    );
            }
        }

        Task<long> Insert(string into, object values) => connection.ExecuteScalarAsync<long>($"INSERT INTO {into} RETURNING id", values);
    }

    /// <summary>The quizzes and rubrics of an edition as they are stored, by hash.</summary>
    public static async Task<IReadOnlyDictionary<string, string>> Stored(NpgsqlConnection connection, Id<Edition> edition) =>
        (
            await connection.QueryAsync<(string Hash, string Content)>(
                """
                SELECT DISTINCT encode(b.hash, 'hex'), coalesce(b.data ->> 'Quiz', b.data ->> 'Rubric')
                FROM item i JOIN body b ON b.hash IN (i.quiz, i.rubric)
                WHERE i.edition = @edition AND i.removed_at IS NULL
                """,
                new { edition = edition.Value }
            )
        ).ToDictionary(row => row.Hash, row => row.Content);

    /// <summary>The texts of an edition's items, by hash.</summary>
    public static async Task<IReadOnlyDictionary<string, string>> Texts(NpgsqlConnection connection, Id<Edition> edition) =>
        (
            await connection.QueryAsync<(string Hash, string Html)>(
                "SELECT DISTINCT encode(b.hash, 'hex'), b.data ->> 'Html' FROM item i JOIN "
                    + "body b ON b.hash = i.body WHERE i.edition = @Value AND i.removed_at IS NULL",
                edition
            )
        ).ToDictionary(text => text.Hash, text => text.Html, StringComparer.Ordinal);

    /// <summary>The files of an edition's items, and the pictures in their texts: each once.</summary>
    public static async Task<IReadOnlyList<StoredFile>> Files(NpgsqlConnection connection, Id<Edition> edition) =>
        (
            await connection.QueryAsync<StoredFile>(
                """
                SELECT encode(s.hash, 'hex') AS hash, s.size, s.type FROM stored_file s
                WHERE s.hash IN (SELECT f.file FROM item_file f JOIN item i ON i.id = f.item
                                 WHERE f.edition = @Value AND f.removed_at IS NULL AND i.removed_at IS NULL
                                 UNION SELECT b.file FROM body_file b JOIN item i ON b.body IN (i.body, i.quiz)
                                 WHERE i.edition = @Value AND i.removed_at IS NULL
                                 UNION SELECT decode(o -> 'picture' ->> 'file', 'hex')
                                 FROM item i CROSS JOIN LATERAL jsonb_array_elements(i.offered -> 'options') o
                                 WHERE i.edition = @Value AND i.removed_at IS NULL)
                """,
                edition
            )
        ).AsList();

    /// <summary>Takes back a course that was taken in: nothing of it is left.</summary>
    /// <exception cref="PostgresException">PC002: it was not taken in; PC003: a section follows it, or it was rolled over.</exception>
    public static Task TakeBack(NpgsqlConnection connection, Id<Edition> edition) =>
        connection.ExecuteAsync("SELECT take_back_course(@Value)", edition);

    private static string? Json(Core.Courses.Anchor? anchor) => anchor is null ? null : PlanParts.Json(anchor);

    private static string? Json(Core.Courses.Gate? gate) => gate is null ? null : PlanParts.Json(gate);

    private static string? Word(BeforeOpening? before) => before is { } seen ? EnumNames.Of(seen) : null;
}
