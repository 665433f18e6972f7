using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Sections;
using Polycline.Data.Files;

namespace Polycline.Data.Quizzes;

/// <summary>One try at a quiz.</summary>
public sealed record AttemptRow
{
    public required Id<AttemptRow> Id { get; init; }

    public required Id<Person> Person { get; init; }

    public required Id<Item> Item { get; init; }

    public required Id<Section> Section { get; init; }

    public required int N { get; init; }

    /// <summary>The hash of what was put to the student, in hexadecimal digits.</summary>
    public required string Paper { get; init; }

    public required Instant BeganAt { get; init; }

    /// <summary>When it was handed in; null: it was not.</summary>
    public required Instant? EndedAt { get; init; }

    /// <summary>When the facts of its end were recorded; null: it runs.</summary>
    public required Instant? SettledAt { get; init; }

    /// <summary>The hash of the paper by whose keys it was last scored; null: it was not.</summary>
    public required string? ScoredBy { get; init; }

    /// <summary>By which what is put to it is drawn, mixed and named; no browser knows it.</summary>
    public required string Lot { get; init; }

    /// <summary>The attempt as it is marked.</summary>
    /// <param name="put">What was put to the student.</param>
    public QuizAttempt Marked(Ref<Item> item, QuizPaper put, IEnumerable<AnswerRow> answers)
    {
        var keys = put.Questions.ToDictionary(question => question.Question.Id, question => question.Question.Key);
        return new()
        {
            Student = Person.InPlan(),
            Item = item,
            Number = N,
            Began = BeganAt,
            Ended = EndedAt,
            Asked = put.Draws.IsEmpty ? null : [.. put.PutTo(Lot).Select(one => one.Asked.Question.Id)],
            Answers =
            [
                .. answers.Select(answer => new GivenAnswer(
                    answer.Question,
                    answer.At,
                    QuizPaperFile.Answer(keys[answer.Question], answer.Answer)
                )),
            ],
        };
    }
}

/// <summary>Attempts at a quiz, a student's or everybody's, of each the first one first.</summary>
/// <param name="Marks">In the order in which they were given.</param>
public sealed record AttemptRows(
    IReadOnlyList<AttemptRow> Attempts,
    ILookup<Id<AttemptRow>, AnswerRow> Answers,
    IReadOnlyList<AnswerMarkRow> Marks
);

/// <summary>Attempts at quizzes. Answers and marks are only ever added.</summary>
public static class QuizStore
{
    private const string Columns =
        "a.id, a.person, a.item, a.section, a.n, encode(a.paper, 'hex') AS paper, a.lot, a.began_at, a.ended_at, a.settled_at, "
        + "encode(a.scored_by, 'hex') AS scored_by";

    internal const string MarkColumns = "a.person, a.item, a.n, m.question, m.points, m.words, p.name AS by, m.at";

    /// <summary>A student's attempts at a quiz with their answers and marks, as they were at a moment.</summary>
    /// <param name="locked">Whether they are to stay as they are until the transaction ends.</param>
    public static async Task<AttemptRows> Of(NpgsqlConnection connection, Id<Person> person, Id<Item> item, Instant at, bool locked = false)
    {
        var values = new
        {
            person = person.Value,
            item = item.Value,
            at,
        };
        // The lock comes first, in a statement of its own: what it waited for is only seen by a later one.
        if (locked)
            await connection.ExecuteAsync("SELECT pg_advisory_xact_lock(hashtextextended('quiz ' || @person || ' ' || @item, 0))", values);
        await using var results = await connection.QueryMultipleAsync(
            Sql.Together(
                $"SELECT {Columns} FROM quiz_attempt a WHERE a.person = @person AND a.item = @item AND a.began_at <= @at ORDER BY a.n",
                """
                SELECT r.attempt, r.question, r.answer::text, r.at
                FROM quiz_attempt a JOIN quiz_answer r ON r.attempt = a.id
                WHERE a.person = @person AND a.item = @item AND r.at <= @at
                ORDER BY r.attempt, r.seq
                """,
                $"""
                SELECT {MarkColumns}
                FROM quiz_attempt a JOIN quiz_mark m ON m.attempt = a.id JOIN person p ON p.id = m.by
                WHERE a.person = @person AND a.item = @item AND m.at <= @at
                ORDER BY m.id
                """
            ),
            values
        );
        return await From(results);
    }

    /// <summary>Everybody's attempts at a quiz.</summary>
    public static async Task<AttemptRows> OfItem(NpgsqlConnection connection, Id<Item> item)
    {
        await using var results = await connection.QueryMultipleAsync(
            Sql.Together(
                $"SELECT {Columns} FROM quiz_attempt a WHERE a.item = @Value ORDER BY a.person, a.n",
                """
                SELECT r.attempt, r.question, r.answer::text, r.at
                FROM quiz_attempt a JOIN quiz_answer r ON r.attempt = a.id WHERE a.item = @Value ORDER BY r.attempt, r.seq
                """,
                $"""
                SELECT {MarkColumns}
                FROM quiz_attempt a JOIN quiz_mark m ON m.attempt = a.id JOIN person p ON p.id = m.by WHERE a.item = @Value ORDER BY m.id
                """
            ),
            item
        );
        return await From(results);
    }

    private static async Task<AttemptRows> From(SqlMapper.GridReader results) =>
        new(
            (await results.ReadAsync<AttemptRow>()).AsList(),
            (await results.ReadAsync<AnswerRow>()).ToLookup(row => row.Attempt),
            (await results.ReadAsync<AnswerMarkRow>()).AsList()
        );

    /// <summary>Attempts of an edition that run, or were scored by other keys than their quiz has now.</summary>
    public static async Task<IReadOnlyList<AttemptRow>> Unsettled(NpgsqlConnection connection, Id<Edition> edition) =>
        (
            await connection.QueryAsync<AttemptRow>(
                $"""
                SELECT {Columns} FROM quiz_attempt a JOIN item i ON i.id = a.item
                WHERE i.edition = @Value AND (a.settled_at IS NULL OR a.scored_by <> i.quiz)
                ORDER BY a.id
                """,
                edition
            )
        ).AsList();

    /// <summary>Begins an attempt.</summary>
    /// <param name="paper">The hash of what is put to the student.</param>
    public static Task Begin(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item,
        Id<Section> section,
        int n,
        string paper,
        Instant at,
        Guid request
    ) =>
        connection.ExecuteAsync(
            """
            WITH attempt AS (
              INSERT INTO quiz_attempt (person, item, section, n, paper, began_at) VALUES (@person, @item, @section, @n, @paper, @at)
            )
            INSERT INTO fact (person, item, section, event, at, recorded_at, by, attempt, request)
            VALUES (@person, @item, @section, 'begun', @at, @at, @person, @n, @request)
            """,
            new
            {
                person = person.Value,
                item = item.Value,
                section = section.Value,
                n,
                paper = Convert.FromHexString(paper),
                at,
                request,
            }
        );

    /// <summary>Adds an answer.</summary>
    /// <param name="answer">JSON; <c>null</c>: cleared again.</param>
    /// <param name="file">The file that it is; null: it is none.</param>
    public static Task Answer(
        NpgsqlConnection connection,
        Id<AttemptRow> attempt,
        string question,
        string answer,
        Id<WorkFileRow>? file,
        Instant at
    ) =>
        connection.ExecuteAsync(
            """
            INSERT INTO quiz_answer (attempt, seq, question, answer, file, at)
            SELECT @attempt, coalesce(max(seq), 0) + 1, @question, @answer::jsonb, @file, @at FROM quiz_answer WHERE attempt = @attempt
            """,
            new
            {
                attempt = attempt.Value,
                question,
                answer,
                file = file?.Value,
                at,
            }
        );

    public static Task End(NpgsqlConnection connection, Id<AttemptRow> attempt, Instant at) =>
        connection.ExecuteAsync("UPDATE quiz_attempt SET ended_at = @at WHERE id = @attempt", new { attempt = attempt.Value, at });

    /// <summary>Keeps what somebody gives for an answer.</summary>
    public static Task Mark(
        NpgsqlConnection connection,
        Id<AttemptRow> attempt,
        string question,
        decimal points,
        string words,
        Id<Person> by,
        Instant at
    ) =>
        connection.ExecuteAsync(
            "INSERT INTO quiz_mark (attempt, question, points, words, by, at) VALUES (@attempt, @question, @points, @words, @by, @at)",
            new
            {
                attempt = attempt.Value,
                question,
                points,
                words,
                by = by.Value,
                at,
            }
        );

    /// <summary>Records the score of an attempt that is over, unless it is the one that was recorded last.</summary>
    public static Task Score(NpgsqlConnection connection, AttemptRow attempt, decimal percent, Id<Person> by, Instant now, Guid request) =>
        connection.ExecuteAsync(
            """
            INSERT INTO fact (person, item, section, event, at, recorded_at, by, attempt, score, request)
            SELECT @person, @item, @section, 'scored', @now, @now, @by, @n, @percent::numeric, @request
            WHERE @percent::numeric IS DISTINCT FROM (
              SELECT f.score FROM fact f
              WHERE f.person = @person AND f.item = @item AND f.attempt = @n AND f.event = 'scored' AND f.voided_at IS NULL
              ORDER BY f.id DESC LIMIT 1)
            """,
            new
            {
                person = attempt.Person.Value,
                item = attempt.Item.Value,
                section = attempt.Section.Value,
                n = attempt.N,
                percent,
                by = by.Value,
                now,
                request,
            }
        );

    /// <summary>Records that an attempt is over, and its score.</summary>
    /// <param name="paper">The hash of the paper by whose keys it is scored.</param>
    /// <param name="finish">When it was over.</param>
    /// <param name="percent">Null: something waits to be read, or there is no score.</param>
    public static Task Settle(
        NpgsqlConnection connection,
        AttemptRow attempt,
        string paper,
        Instant finish,
        decimal? percent,
        Instant now
    ) =>
        connection.ExecuteAsync(
            """
            WITH settled AS (
              UPDATE quiz_attempt SET settled_at = @now, scored_by = @paper
              WHERE id = @attempt AND settled_at IS NULL RETURNING person, item, section, n
            )
            INSERT INTO fact (person, item, section, event, at, recorded_at, by, attempt, score, request)
            SELECT s.person, s.item, s.section, e.event, @finish, @now, s.person, s.n, e.score, gen_random_uuid()
            FROM settled s, (VALUES (1, 'submitted', NULL), (2, 'scored', @percent::numeric)) e (place, event, score)
            WHERE e.place = 1 OR e.score IS NOT NULL
            ORDER BY e.place
            """,
            new
            {
                attempt = attempt.Id.Value,
                paper = Convert.FromHexString(paper),
                finish,
                percent,
                now,
            }
        );

    /// <summary>Records that an attempt was marked again: the earlier score stays where it was, and one that differs is added.</summary>
    /// <param name="paper">The hash of the paper by whose keys it is scored now.</param>
    public static Task Rescore(NpgsqlConnection connection, AttemptRow attempt, string paper, decimal? percent, Instant now) =>
        connection.ExecuteAsync(
            """
            WITH marked AS (
              UPDATE quiz_attempt SET scored_by = @paper WHERE id = @attempt AND scored_by <> @paper RETURNING person, item, section, n
            )
            INSERT INTO fact (person, item, section, event, at, recorded_at, by, attempt, score, request)
            SELECT m.person, m.item, m.section, 'scored', @now, @now, m.person, m.n, @percent::numeric, gen_random_uuid()
            FROM marked m
            WHERE @percent::numeric IS NOT NULL AND @percent::numeric IS DISTINCT FROM (
              SELECT f.score FROM fact f
              WHERE f.person = m.person AND f.item = m.item AND f.attempt = m.n AND f.event = 'scored' AND f.voided_at IS NULL
              ORDER BY f.id DESC LIMIT 1)
            """,
            new
            {
                attempt = attempt.Id.Value,
                paper = Convert.FromHexString(paper),
                percent,
                now,
            }
        );
}
