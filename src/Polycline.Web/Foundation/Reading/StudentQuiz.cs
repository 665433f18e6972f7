using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Quizzes;

namespace Polycline.Web.Foundation.Reading;

/// <summary>One attempt of a student, marked.</summary>
/// <param name="Put">What was put to them.</param>
/// <param name="Keys">What it is marked by.</param>
/// <param name="Marks">What was given for answers that somebody read, in the order of time.</param>
public sealed record TakenAttempt(
    AttemptRow Row,
    QuizPaper Put,
    AttemptMarking Marking,
    IReadOnlyList<QuizQuestion> Keys,
    IReadOnlyList<AnswerMarkRow> Marks
)
{
    public AttemptResult Result(Instant at) => Marking.At(at, Keys);

    /// <summary>What was put to them, in their order.</summary>
    public IReadOnlyList<PlacedQuestion> Asked => Put.PutTo(Row.Lot);
}

/// <summary>On what terms a student takes a quiz.</summary>
/// <param name="Paper">The hash of its questions; null: it has none, or they are not to be read.</param>
/// <param name="Closes">When it closes for them; null: never.</param>
/// <param name="Extra">How much more time they have.</param>
public sealed record QuizTerms(string? Paper, Instant? Closes, ExtraTime Extra);

/// <summary>One student's attempts at a quiz at some moment.</summary>
/// <param name="Paper">The quiz as it is now; null: it has no questions, or they are not to be read.</param>
/// <param name="Attempts">The first one first.</param>
public sealed record StudentQuiz(QuizTerms Terms, QuizPaper? Paper, IReadOnlyList<TakenAttempt> Attempts, Instant At)
{
    /// <summary>The attempt under way; null: there is none.</summary>
    public TakenAttempt? Running => Attempts.FirstOrDefault(attempt => !attempt.Marking.IsFinished(At));

    public IEnumerable<TakenAttempt> Finished => Attempts.Where(attempt => attempt.Marking.IsFinished(At));

    /// <summary>How many may still be begun; null: any number.</summary>
    public int? Left => Paper?.Attempts is { } most ? Math.Max(0, most - Attempts.Count) : null;

    /// <summary>What stands; null: nothing.</summary>
    public StandingScore? Score =>
        Paper is null ? null : QuizScore.Of(Paper.Using, Paper.Worth, [.. Finished.Select(attempt => (attempt.Row.N, attempt.Result(At)))]);

    /// <param name="student">Null: a pretend student, who has attempted nothing.</param>
    /// <param name="locked">Whether their attempts are to stay as they are until the transaction ends.</param>
    public static async Task<StudentQuiz> Read(
        NpgsqlConnection connection,
        QuizTerms terms,
        Id<Item> item,
        Id<Person>? student,
        Instant at,
        bool locked = false
    )
    {
        var paper = await BodyStore.Quiz(connection, terms.Paper);
        if (student is not { } person)
            return new(terms, paper, [], at);
        var rows = await QuizStore.Of(connection, person, item, at, locked);
        return Of(terms, paper, person, rows, await Papers(connection, rows), at);
    }

    /// <summary>What was put in some attempts, by what it is kept under.</summary>
    public static async Task<IReadOnlyDictionary<string, QuizPaper>> Papers(NpgsqlConnection connection, AttemptRows rows)
    {
        var papers = new Dictionary<string, QuizPaper>(StringComparer.Ordinal);
        foreach (var hash in rows.Attempts.Select(row => row.Paper).Distinct())
            papers[hash] = (await BodyStore.Quiz(connection, hash))!;
        return papers;
    }

    /// <param name="paper">The quiz by which it is marked; null: by what was put.</param>
    /// <param name="rows">Attempts, others' too.</param>
    public static StudentQuiz Of(
        QuizTerms terms,
        QuizPaper? paper,
        Id<Person> student,
        AttemptRows rows,
        IReadOnlyDictionary<string, QuizPaper> papers,
        Instant at
    ) =>
        new(
            terms,
            paper,
            [
                .. rows
                    .Attempts.Where(row => row.Person == student)
                    .Select(row =>
                        Taken(
                            row,
                            papers[row.Paper],
                            paper,
                            rows.Answers[row.Id],
                            [.. rows.Marks.Where(mark => mark.Person == student && mark.N == row.N)],
                            terms
                        )
                    ),
            ],
            at
        );

    private static TakenAttempt Taken(
        AttemptRow row,
        QuizPaper put,
        QuizPaper? now,
        IEnumerable<AnswerRow> answers,
        IReadOnlyList<AnswerMarkRow> marks,
        QuizTerms terms
    )
    {
        var item = new Ref<Item>($"{row.Item}");
        return new(
            row,
            put,
            PaperMarking.Of(
                now ?? put,
                row.Marked(item, put, answers),
                terms.Extra,
                terms.Closes,
                [.. marks.Select(mark => mark.Marked(item))]
            ),
            PaperMarking.Keys(put, now),
            marks
        );
    }

    /// <summary>Records the end and the score of what is over, and the new score of what was scored by other keys.</summary>
    public async Task Settle(NpgsqlConnection connection)
    {
        foreach (var attempt in Finished)
        {
            var percent = attempt.Result(At).Share is { } share ? ScoreFact.PercentOf(share) : (decimal?)null;
            if (attempt.Row.SettledAt is null)
                await QuizStore.Settle(
                    connection,
                    attempt.Row,
                    Terms.Paper ?? attempt.Row.Paper,
                    attempt.Marking.Finish!.Value,
                    percent,
                    At
                );
            else if (Terms.Paper is { } paper && attempt.Row.ScoredBy != paper)
                await QuizStore.Rescore(connection, attempt.Row, paper, percent, At);
        }
    }
}
