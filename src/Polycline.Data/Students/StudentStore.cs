using System.Collections.Immutable;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.CannotOpen;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.LinkChecks;
using Polycline.Data.Sheets;
using Polycline.Data.Work;

namespace Polycline.Data.Students;

/// <summary>Feedback that came back.</summary>
/// <param name="Mark">JSON (<see cref="PlanParts.Mark"/>); null: none was given.</param>
/// <param name="Remarks">JSON (<see cref="Remark.Read"/>); null: there are none.</param>
public sealed record FeedbackRow(
    Id<Item> Item,
    int N,
    string By,
    string Text,
    bool Again,
    string? Mark,
    Instant ReturnedAt,
    string? Remarks
);

/// <summary>What is known of one student, and of an item they look at.</summary>
/// <param name="Feedback">What came back to them, the latest first.</param>
public sealed record StudentAtItem(StudentRecord Record, IReadOnlyList<FeedbackRow> Feedback)
{
    /// <summary>What they have written for the item.</summary>
    public OwnWork Work { get; init; } = OwnWork.Nothing;

    /// <summary>The item's files, those that were replaced or removed among them.</summary>
    public IReadOnlyList<ItemFileRow> Files { get; init; } = [];

    /// <summary>What is known of the item's address; null: nothing.</summary>
    public LinkCheckRow? Link { get; init; }

    /// <summary>When they said that they cannot open it; null: they have not, or it is settled.</summary>
    public Instant? SaidCannotOpenAt { get; init; }

    /// <summary>What those are called with whom they may have to hand it in.</summary>
    public IReadOnlyDictionary<Id<Person>, string> Others { get; init; } = new Dictionary<Id<Person>, string>();

    /// <summary>Their section has begun to write in a sheet of it.</summary>
    public bool HasSheet { get; init; }
}

/// <summary>Reads what is known of students of a course.</summary>
public static class StudentStore
{
    private sealed record EnrolmentRow(Id<Person> Person, Id<Section> Section, LocalDate? From, LocalDate? To);

    private sealed record FactRow(
        Id<Person> Person,
        Id<Item> Item,
        string Event,
        Instant At,
        decimal? Score,
        int Attempt,
        string? Option,
        bool Again
    );

    /// <summary>The records of some students of an edition as they were at a moment, in one round trip.</summary>
    /// <param name="at">Later facts and feedback are left out.</param>
    public static async Task<(IReadOnlyDictionary<Id<Person>, StudentRecord> Records, IReadOnlyList<FeedbackRow> Feedback)> Read(
        NpgsqlConnection connection,
        EditionPlan plan,
        IReadOnlyList<Id<Person>> students,
        Instant at
    )
    {
        await using var results = await connection.QueryMultipleAsync(
            students.Count == 1 ? StatementsOfOne : Statements,
            new
            {
                edition = plan.Id.Value,
                students = students.ToArray(),
                person = students.Count == 1 ? students[0] : default,
                at,
            }
        );
        return await From(results, plan, students);
    }

    /// <summary>The same of one student, with what is known of an item they look at.</summary>
    public static async Task<StudentAtItem> Read(
        NpgsqlConnection connection,
        EditionPlan plan,
        Id<Person> student,
        Id<Item> item,
        Instant at
    )
    {
        await using var results = await connection.QueryMultipleAsync(
            Sql.Together(
                StatementsOfOne,
                WorkStore.OwnStatements,
                ItemFileStore.Statement,
                LinkCheckStore.Statement,
                CannotOpenStore.OwnStatement,
                SheetStore.OwnStatement,
                "SELECT id, name FROM person WHERE id = ANY(@others)"
            ),
            new
            {
                edition = plan.Id.Value,
                at,
                person = student.Value,
                item = item.Value,
                others = plan.GroupsTogether(item)
                    .Where(group => group.Members.Contains(student))
                    .SelectMany(group => group.Members)
                    .ToArray(),
            }
        );
        var (records, feedback) = await From(results, plan, [student]);
        return new(records[student], feedback)
        {
            Work = await WorkStore.OwnFrom(results),
            Files = await ItemFileStore.From(results),
            Link = await results.ReadSingleOrDefaultAsync<LinkCheckRow?>(),
            SaidCannotOpenAt = await results.ReadSingleOrDefaultAsync<Instant?>(),
            HasSheet = await results.ReadSingleAsync<bool>(),
            Others = (await results.ReadAsync<Person>()).ToDictionary(other => other.Id, other => other.Name),
        };
    }

    internal static string Statements => Sql.Of("Students", "ReadStudents");

    internal static string StatementsOfOne => Sql.Of("Students", "ReadStudent");

    /// <param name="students">Null: all that were found.</param>
    internal static async Task<(IReadOnlyDictionary<Id<Person>, StudentRecord> Records, IReadOnlyList<FeedbackRow> Feedback)> From(
        SqlMapper.GridReader results,
        EditionPlan plan,
        IReadOnlyList<Id<Person>>? students
    )
    {
        var enrolments = (await results.ReadAsync<EnrolmentRow>()).ToLookup(row => row.Person);
        var facts = (await results.ReadAsync<FactRow>()).ToLookup(row => row.Person);
        var feedback = (await results.ReadAsync<FeedbackRow>()).AsList();
        return (
            (students ?? [.. enrolments.Select(person => person.Key)])
                .Distinct()
                .ToDictionary(student => student, student => RecordOf(student, plan, enrolments[student], facts[student])),
            feedback
        );
    }

    /// <summary>What is known of the students of some sections, before a change of the plan and after it.</summary>
    /// <param name="sections">Those that follow the edition before or after.</param>
    public static async Task<IReadOnlyList<(StudentRecord Before, StudentRecord After)>> Beside(
        NpgsqlConnection connection,
        EditionPlan before,
        EditionPlan after,
        IReadOnlyList<Id<Section>> sections,
        Instant at
    )
    {
        await using var results = await connection.QueryMultipleAsync(
            Sql.Of("Students", "ReadStudentsIn"),
            new
            {
                edition = after.Id.Value,
                sections = sections.ToArray(),
                at,
            }
        );
        var facts = (await results.ReadAsync<FactRow>()).ToLookup(row => row.Person);
        var (places, placesAfter) = (PlacesOf(before), PlacesOf(after));
        return
        [
            .. places
                .Select(person => person.Key)
                .Union(placesAfter.Select(person => person.Key))
                .Select(person =>
                    (RecordOf(person, before, places[person], facts[person]), RecordOf(person, after, placesAfter[person], facts[person]))
                ),
        ];
    }

    private static ILookup<Id<Person>, EnrolmentRow> PlacesOf(EditionPlan plan) =>
        plan
            .Sections.SelectMany(section =>
                section.Listed.Select(place => new EnrolmentRow(place.Person, section.Id, place.From, place.To))
            )
            .ToLookup(row => row.Person);

    /// <summary>Whether a student with one of these places has worked in the section since they came.</summary>
    public static Task<bool> HaveWorked(NpgsqlConnection connection, IReadOnlyCollection<Id<ListedStudent>> places) =>
        connection.ExecuteScalarAsync<bool>(
            """
            SELECT EXISTS (
              SELECT 1 FROM enrolment n
              JOIN fact f ON f.person = n.person AND f.section = n.section AND f.event <> 'opened' AND f.voided_at IS NULL
              WHERE n.id = ANY(@places) AND f.at >= coalesce(lower(n.period), '-infinity'))
            """,
            new { places = places.Select(place => place.Value).ToArray() }
        );

    /// <summary>
    /// What an edition itself knows of a student: where they are listed and what is different for them, without what they did.
    /// </summary>
    public static StudentRecord WithoutFacts(EditionPlan plan, Id<Person> student) => RecordOf(student, plan, PlacesOf(plan)[student], []);

    /// <summary>An edition, its sections with their class lists, and all that is known of one student.</summary>
    public static Plan PlanOf(EditionPlan plan, StudentRecord student) =>
        new(
            plan.Term,
            plan.Edition,
            [.. plan.SectionsWithStudents],
            plan.Groups.ToImmutableDictionary(
                group => group.Name,
                group => group.Members.Select(member => member.InPlan()).ToImmutableArray()
            ),
            plan.People.Homes.ToImmutableDictionary(home => home.Person.InPlan(), home => home.Section.InPlan()),
            [.. plan.People.ExceptionsOf(PlanIds.IdOf(student.Student))],
            [.. student.Facts.All]
        )
        {
            Arrangements = student.Always is { } agreed ? [agreed] : [],
        };

    private static StudentRecord RecordOf(
        Id<Person> person,
        EditionPlan plan,
        IEnumerable<EnrolmentRow> enrolments,
        IEnumerable<FactRow> facts
    )
    {
        var student = person.InPlan();
        return new(
            student,
            plan.People.GroupsOf(person),
            plan.People.HomeOf(person)?.Section.InPlan(),
            [.. enrolments.Select(row => (row.Section.InPlan(), new Enrolment(student, Since(plan, row), row.To)))],
            StudentRecord.Merged(plan.People.ExceptionsOf(person)),
            new([.. facts.Select(row => FactOf(student, plan, row)).OfType<Fact>()])
        )
        {
            Always = plan.People.ArrangementOf(person) is { } agreed ? new(student, agreed.DueDays, agreed.QuizTime) : null,
        };
    }

    // A student's past in a course begins when they join the section, or when the section joins the course.
    private static LocalDate? Since(EditionPlan plan, EnrolmentRow row) =>
        plan.Following(row.Section)?.FollowsFrom is { } since && !(row.From >= since) ? since : row.From;

    // Facts about items that are no longer in the tree, or belong to another edition, are left out.
    private static Fact? FactOf(Ref<Student> student, EditionPlan plan, FactRow row) =>
        plan.Row(row.Item) is { } item
            ? new(student, new(item.Lineage), EnumNames.Parse<FactEvent>(row.Event), row.At, row.Score, row.Attempt, row.Option, row.Again)
            : null;
}
