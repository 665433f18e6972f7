using System.Collections.Immutable;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Web.Student.Quizzes;

namespace Polycline.Demo.School;

/// <summary>What the demo's students answered in quizzes: some of it right, some of it not.</summary>
internal sealed class DemoAttempts
{
    private static readonly Duration Took = Duration.FromMinutes(12);
    private readonly Random chance = new(20261002);
    private readonly HashSet<(long Person, long Item)> sat = [];
    private readonly List<(long Person, long Item, long Section, string Paper, Instant Ended, ImmutableArray<GivenAnswer> Answers)> all =
    [];

    /// <summary>Somebody sat a quiz.</summary>
    /// <param name="hash">What the paper is kept under.</param>
    /// <param name="ended">When they handed it in.</param>
    /// <param name="likely">How likely each answer is right, in per cent.</param>
    /// <returns>When they began, and their score in per cent; null: they have sat it in another section.</returns>
    public (Instant Began, decimal Percent)? Sit(
        long person,
        long item,
        long section,
        string hash,
        QuizPaper paper,
        Instant ended,
        int likely
    )
    {
        if (!sat.Add((person, item)))
            return null;
        var began = ended - Took;
        ImmutableArray<GivenAnswer> answers =
        [
            .. paper.Questions.Select(
                (question, n) =>
                    new GivenAnswer(
                        question.Question.Id,
                        began + Duration.FromMinutes(n + 1),
                        Answered(question.Question.Key, chance.Next(100) < likely)
                    )
            ),
        ];
        all.Add((person, item, section, hash, ended, answers));
        var attempt = new QuizAttempt
        {
            Student = new($"{person}"),
            Item = new($"{item}"),
            Number = 1,
            Began = began,
            Ended = ended,
            Answers = answers,
        };
        var share = PaperMarking.Of(paper, attempt, ExtraTime.None, null).At(ended, PaperMarking.Keys(paper, paper)).Share;
        return (began, ScoreFact.PercentOf(share ?? 0));
    }

    public async Task Store(NpgsqlConnection connection)
    {
        foreach (var (person, item, section, paper, ended, answers) in all)
            await connection.ExecuteAsync(
                """
                WITH attempt AS (
                  INSERT INTO quiz_attempt (person, item, section, n, paper, lot, began_at, ended_at, settled_at, scored_by)
                  VALUES (@person, @item, @section, 1, @paper, @lot, @began, @ended, @ended, @paper) RETURNING id
                )
                INSERT INTO quiz_answer (attempt, seq, question, answer, at)
                SELECT attempt.id, a.seq, a.question, a.answer::jsonb, a.at
                FROM attempt, unnest(@questions, @answers, @at) WITH ORDINALITY a (question, answer, at, seq)
                """,
                new
                {
                    person,
                    item,
                    section,
                    paper = Convert.FromHexString(paper),
                    // The same whenever the demo is loaded.
                    lot = $"{item} {person}",
                    began = ended - Took,
                    ended,
                    questions = answers.Select(answer => answer.Question).ToArray(),
                    answers = answers.Select(answer => PutQuestion.Sent(answer.Answer)?.ToJsonString() ?? "null").ToArray(),
                    at = answers.Select(answer => answer.At).ToArray(),
                }
            );
    }

    private Answer? Answered(QuestionKey key, bool isRight) =>
        key switch
        {
            QuestionKey.OneKey one => new Answer.PickedOption(
                isRight
                    ? one.Right[0]
                    : one.Options.Where(option => !one.Right.Contains(option)).ElementAt(chance.Next(one.Options.Length - one.Right.Length))
            ),
            QuestionKey.ManyKey many => new Answer.ListedOptions(isRight ? many.Right : [.. many.Options.Where(_ => chance.Next(2) == 0)]),
            QuestionKey.TruthKey truth => new Answer.Said(truth.Right == isRight),
            QuestionKey.NumberKey number => new Answer.Typed(Typed(number, isRight)),
            QuestionKey.TextKey text => isRight ? new Answer.Typed(text.Accepted[0]) : null,
            QuestionKey.OrderKey order => new Answer.ListedOptions(
                isRight ? order.Sequence : [.. order.Sequence.OrderBy(_ => chance.Next())]
            ),
            QuestionKey.MatchKey match => new Answer.Matched([
                .. isRight
                    ? match.Pairs
                    : match.Pairs.Select((pair, n) => pair with { Right = match.Pairs[(n + 1) % match.Pairs.Length].Right }),
            ]),
            QuestionKey.GapsKey gaps => new Answer.Filled([.. gaps.Parts.Select((part, n) => Answered(part, isRight || n == 0))]),
            _ => null,
        };

    private static string Typed(QuestionKey.NumberKey number, bool isRight) =>
        (isRight ? number.Value : number.Value + number.Tolerance + 1).PointsShown() + (number.Units.IsEmpty ? "" : $" {number.Units[0]}");
}
