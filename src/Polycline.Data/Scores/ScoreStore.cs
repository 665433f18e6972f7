using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Marking.Plans;
using Polycline.Core.PlanFiles;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Quizzes;
using Polycline.Data.Students;
using Polycline.Data.Work;

namespace Polycline.Data.Scores;

/// <summary>The scores of a course, and whose they are.</summary>
/// <param name="Students">By section, those that are in view, in order of name; one may stand in several sections.</param>
public sealed record ScoreRows(CourseMarks Marks, IReadOnlyList<(Id<Section> Section, Id<Person> Student, string Name)> Students)
{
    /// <summary>Their attempts at quizzes, each with what was put to them, lowest number first.</summary>
    public required IReadOnlyList<(AttemptRow Row, QuizPaper Put)> Attempts { get; init; }

    /// <summary>What was given for answers that somebody read, in the order of time.</summary>
    public required IReadOnlyList<AnswerMarkRow> AnswerMarks { get; init; }

    /// <summary>What was last given in one go, of each section at most one.</summary>
    public IReadOnlyList<GivingRow> Givings { get; init; } = [];
}

/// <summary>Reads what scores are worked out from.</summary>
public static class ScoreStore
{
    private sealed record PaperRow(string Hash, string Content);

    private sealed record WorkRow(Id<Person> Person, Id<Item> Item, Instant At);

    private sealed record MarkRow(Id<Person> Person, Id<Item> Item, Instant At, bool Again, string? Mark);

    /// <summary>Everybody whose work is a viewer's to read, in one round trip.</summary>
    /// <param name="lead">Then all sections are theirs.</param>
    public static async Task<ScoreRows> Read(NpgsqlConnection connection, EditionPlan plan, Id<Person> viewer, bool lead, Instant at)
    {
        await using var results = await Ask(connection, plan, viewer, lead, at, Sql.Together(Scores, GivenScores.Statement));
        return await RowsFrom(results, plan, at) with { Givings = [.. await results.ReadAsync<GivingRow>()] };
    }

    /// <summary>The same with what was handed in.</summary>
    public static async Task<(ScoreRows Scores, SectionsWork Work)> WithWork(
        NpgsqlConnection connection,
        EditionPlan plan,
        Id<Person> viewer,
        bool lead,
        Instant at
    )
    {
        await using var results = await Ask(connection, plan, viewer, lead, at, Sql.Together(Scores, WorkStore.EditionStatements));
        return (await RowsFrom(results, plan, at), await WorkStore.EditionFrom(results));
    }

    private static string Scores => Sql.Together(AccessStore.StudentsStatement, StudentStore.Statements, Statements);

    private static Task<SqlMapper.GridReader> Ask(
        NpgsqlConnection connection,
        EditionPlan plan,
        Id<Person> viewer,
        bool lead,
        Instant at,
        string statements
    ) =>
        connection.QueryMultipleAsync(
            statements,
            new
            {
                edition = plan.Id.Value,
                viewer = viewer.Value,
                lead,
                at,
                students = (Id<Person>[]?)null,
                student = (long?)null,
            }
        );

    private static async Task<ScoreRows> RowsFrom(SqlMapper.GridReader results, EditionPlan plan, Instant at)
    {
        var places = (await results.ReadAsync<LensPlaceRow>())
            .Where(row => row.Student is not null && plan.Following(row.Section) is { Pretend: null })
            .Select(row => (row.Section, row.Student!.Value, row.Name!))
            .ToList();
        var names = places.DistinctBy(place => place.Item2).ToDictionary(place => place.Item2, place => place.Item3);
        var (records, _) = await StudentStore.From(results, plan, null);
        var (marks, attempts, answers) = await From(
            results,
            plan,
            [.. names.Where(name => records.ContainsKey(name.Key)).Select(name => (records[name.Key], name.Value))],
            at
        );
        return new(marks, places) { Attempts = attempts, AnswerMarks = answers };
    }

    /// <summary>The same of one student.</summary>
    public static async Task<CourseMarks> OfStudent(NpgsqlConnection connection, EditionPlan plan, Id<Person> student, Instant at)
    {
        await using var results = await connection.QueryMultipleAsync(
            Sql.Together(StudentStore.StatementsOfOne, Statements),
            new
            {
                edition = plan.Id.Value,
                at,
                person = student.Value,
                student = student.Value,
            }
        );
        var (records, _) = await StudentStore.From(results, plan, [student]);
        return (await From(results, plan, [(records[student], "")], at)).Marks;
    }

    /// <summary>A course with what is known of some students.</summary>
    public static CourseMarks Of(
        EditionPlan plan,
        IReadOnlyList<(StudentRecord Record, string Name)> students,
        StudentsWork work,
        Instant at
    ) =>
        new(
            plan.Schedule,
            [
                .. plan.ItemsByUnit()
                    .Select(unit =>
                        (plan.UnitOf(unit.Unit), (IReadOnlyList<Item>)[.. unit.Items.Select(row => plan.Schedule.Item(new(row.Lineage)))])
                    ),
            ],
            students,
            work,
            plan.Edition.AddingUp,
            at
        );

    private static string Statements => Sql.Of("Scores", "ReadScores");

    private static async Task<(
        CourseMarks Marks,
        IReadOnlyList<(AttemptRow Row, QuizPaper Put)> Attempts,
        IReadOnlyList<AnswerMarkRow> AnswerMarks
    )> From(SqlMapper.GridReader results, EditionPlan plan, IReadOnlyList<(StudentRecord Record, string Name)> students, Instant at)
    {
        var papers = (await results.ReadAsync<PaperRow>()).ToDictionary(row => row.Hash, row => QuizPaperFile.Read(row.Content));
        var rows = (await results.ReadAsync<AttemptRow>()).AsList();
        var answers = (await results.ReadAsync<AnswerRow>()).ToLookup(row => row.Attempt);
        var read = (await results.ReadAsync<AnswerMarkRow>()).AsList();
        var work = (await results.ReadAsync<WorkRow>()).AsList();
        var marks = (await results.ReadAsync<MarkRow>()).AsList();
        var known = students.Select(student => student.Record.Student).ToHashSet();
        // Many have the same mark for the same item: each is read once.
        var given = new Dictionary<string, GivenMark>(StringComparer.Ordinal);
        var attempts = rows.Where(row => known.Contains(row.Person.InPlan()) && plan.Row(row.Item) is not null)
            .Select(row => (row, papers[row.Paper]))
            .ToList();
        var course = Of(
            plan,
            students,
            new(
                papers,
                [.. attempts.Select(one => new PutAttempt(one.row.Marked(Name(one.row.Item), one.Item2, answers[one.row.Id]), one.Item2))],
                [
                    .. work.Where(row => known.Contains(row.Person.InPlan()) && plan.Row(row.Item) is not null)
                        .Select(row => new HandIn(row.Person.InPlan(), Name(row.Item), row.At)),
                ],
                [
                    .. marks
                        .Where(row => known.Contains(row.Person.InPlan()) && plan.Row(row.Item) is not null)
                        .Select(row => new ReturnedPiece(
                            row.Person.InPlan(),
                            Name(row.Item),
                            row.At,
                            row.Again,
                            row.Mark is { } mark ? MarkIn(mark) : null
                        )),
                ]
            )
            {
                Answers =
                [
                    .. read.Where(row => known.Contains(row.Person.InPlan()) && plan.Row(row.Item) is not null)
                        .Select(row => row.Marked(Name(row.Item))),
                ],
            },
            at
        );
        return (course, attempts, read);

        GivenMark MarkIn(string json) => given.TryGetValue(json, out var mark) ? mark : given[json] = PlanParts.Mark(json);

        Ref<Item> Name(Id<Item> item) => new(plan.Row(item)!.Lineage);
    }
}
