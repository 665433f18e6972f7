using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Quizzes;

namespace Polycline.Web.Foundation.Reading;

/// <summary>One attempt of a student, marked.</summary>
/// <param name="Put">What was put to them.</param>
/// <param name="Keys">What it is marked by.</param>
public sealed record TakenAttempt(AttemptRow Row, QuizPaper Put, AttemptMarking Marking, IReadOnlyList<QuizQuestion> Keys)
{
    public AttemptResult Result(Instant at) => Marking.At(at, Keys);
}

/// <summary>One student's attempts at a quiz at some moment.</summary>
/// <param name="Paper">The quiz as it is now; null: it has no questions, or they are not to be read.</param>
/// <param name="Attempts">The first one first.</param>
public sealed record StudentQuiz(QuizPaper? Paper, IReadOnlyList<TakenAttempt> Attempts, Instant At)
{
    /// <summary>The one that runs; null: none does.</summary>
    public TakenAttempt? Running => Attempts.FirstOrDefault(attempt => !attempt.Marking.IsFinished(At));

    public IEnumerable<TakenAttempt> Finished => Attempts.Where(attempt => attempt.Marking.IsFinished(At));

    /// <summary>How many may still be begun; null: any number.</summary>
    public int? Left => Paper?.Attempts is { } most ? Math.Max(0, most - Attempts.Count) : null;

    /// <summary>What stands; null: nothing.</summary>
    public StandingScore? Score =>
        Paper is null
            ? null
            : QuizScore.Of(
                Paper.Using,
                Paper.OutOf ?? Fraction.Sum(Paper.Questions.Where(one => one.Question.CountsInFull).Select(one => one.Question.Points)),
                [.. Finished.Select(attempt => (attempt.Row.N, attempt.Result(At)))]
            );

    /// <param name="sight">Null: they see nothing of it by now; what they began is marked as it was put.</param>
    /// <param name="student">Null: a pretend student, who has attempted nothing.</param>
    /// <param name="extra">How much more time they have.</param>
    /// <param name="locked">Whether their attempts are to stay as they are until the transaction ends.</param>
    public static async Task<StudentQuiz> Read(
        NpgsqlConnection connection,
        Sight? sight,
        Id<Item> item,
        Id<Person>? student,
        ExtraTime extra,
        Instant at,
        bool locked = false
    )
    {
        var paper = await BodyStore.Quiz(connection, sight?.Quiz);
        if (student is not { } person)
            return new(paper, [], at);
        var (rows, answers) = await QuizStore.Of(connection, person, item, at, locked);
        var papers = new Dictionary<string, QuizPaper>(StringComparer.Ordinal);
        foreach (var hash in rows.Select(row => row.Paper).Distinct())
            papers[hash] = (await BodyStore.Quiz(connection, hash))!;
        return new(paper, [.. rows.Select(row => Taken(row, papers[row.Paper], paper, answers[row.Id], extra, sight?.Closes))], at);
    }

    private static TakenAttempt Taken(
        AttemptRow row,
        QuizPaper put,
        QuizPaper? now,
        IEnumerable<AnswerRow> answers,
        ExtraTime extra,
        Instant? closes
    )
    {
        var questions = put.Questions.ToDictionary(question => question.Question.Id, question => question.Question.Key);
        var attempt = new QuizAttempt
        {
            Student = new($"{row.Person}"),
            Item = new($"{row.Item}"),
            Number = row.N,
            Began = row.BeganAt,
            Ended = row.EndedAt,
            Answers =
            [
                .. answers.Select(answer => new GivenAnswer(
                    answer.Question,
                    answer.At,
                    QuizPaperFile.Answer(questions[answer.Question], answer.Answer)
                )),
            ],
        };
        return new(row, put, PaperMarking.Of(now ?? put, attempt, extra, closes), PaperMarking.Keys(put, now));
    }

    /// <summary>Records the end and the score of what is over and not recorded yet.</summary>
    /// <returns>How many.</returns>
    public async Task<int> Settle(NpgsqlConnection connection)
    {
        var settled = 0;
        foreach (var attempt in Finished.Where(attempt => attempt.Row.SettledAt is null))
        {
            var result = attempt.Result(At);
            await QuizStore.Settle(
                connection,
                attempt.Row,
                attempt.Marking.Finish!.Value,
                result.Share is { } share ? ScoreFact.PercentOf(share) : null,
                At
            );
            settled++;
        }
        return settled;
    }
}
