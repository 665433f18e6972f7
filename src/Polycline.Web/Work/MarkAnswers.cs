using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Quizzes;
using Polycline.Data.Students;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="N">Which attempt it is.</param>
public sealed record MarkAnswersRequest(Id<Item> Item, Id<Person> Student, int N, IReadOnlyList<AnswerGiven> Answers);

/// <param name="Points">0 to 10,000, with at most two decimals; more than the question’s own are possible.</param>
/// <param name="Words">Up to 5,000 characters; it may be empty.</param>
public sealed record AnswerGiven(string Question, decimal Points, string Words = "");

/// <param name="Given">False if this was only a preview and nothing was written.</param>
/// <param name="Opens">What opens for the student by it.</param>
public sealed record MarkAnswersAnswer(bool Given, string Name, IReadOnlyList<string> Opens, string Sentence) : IAnswer<MarkAnswersAnswer>
{
    public MarkAnswersAnswer AsPreview() => this with { Given = false };
}

/// <summary>Gives points for answers of an attempt at a quiz that a person reads. Given again, the later ones count.</summary>
public sealed class MarkAnswers : IWorkCommand<MarkAnswersRequest, EditionPlan, MarkAnswersAnswer>
{
    private const int Longest = 5_000;

    public static string Name => "mark-answers";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<MarkAnswersRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, MarkAnswersRequest request) => plans.Edition(access);

    public static async Task<MarkAnswersAnswer> Do(WorkContext work, EditionPlan plan, MarkAnswersRequest request)
    {
        var (connection, viewpoint) = (work.Connection, work.Viewpoint);
        var item = plan.Item(request.Item) is { Kind: ItemKind.Quiz } quiz ? quiz : throw Problem.Unknown("item");
        var attempt = (await Attempts()).FirstOrDefault(one => one.Row.N == request.N && one.Row.Section == work.Section)
            ?? throw Problem.Unknown("student");
        if (!attempt.Marking.IsFinished(viewpoint.At))
            throw Problem.NotOpen("This attempt is still under way. Read it once it is handed in.");
        for (var n = 0; n < request.Answers.Count; n++)
            if (attempt.Asked.All(put => put.Asked.Question.Id != request.Answers[n].Question))
                throw Problem.Unknown($"answers[{n}].question");
        var before = await OpensBy.Open(connection, plan, request.Student, viewpoint.At);
        foreach (var answer in request.Answers)
            await QuizStore.Mark(
                connection,
                attempt.Row.Id,
                answer.Question,
                answer.Points,
                answer.Words.Trim(),
                work.Access.Person.Id,
                viewpoint.At
            );
        await ReaderStore.End(connection, request.Item, request.Student, null);
        var result = (await Attempts()).First(one => one.Row.N == request.N).Result(viewpoint.At);
        if (result.Share is { } share)
            await QuizStore.Score(connection, attempt.Row, ScoreFact.PercentOf(share), work.Access.Person.Id, viewpoint.At, work.Key);
        var opens = OpensBy.Since(plan, before, await OpensBy.Open(connection, plan, request.Student, viewpoint.At));
        var name = await AccessStore.NameOf(connection, request.Student) ?? "";
        var left = result.Waiting.Count();
        return new(
            true,
            name,
            opens,
            left > 0
                ? $"{name} has {ScoreWords.PointsOf(result.Points, result.OutOf)} so far; "
                    + $"{Counting.Counted(left, "answer is", "answers are")} still to be read."
                : $"{name} has {ScoreWords.PointsOf(result.Points, result.OutOf)} in this attempt"
                    + (OpensBy.Words(opens) is { } words ? $", {words}." : "; nothing depends on it.")
        );

        async Task<IReadOnlyList<TakenAttempt>> Attempts()
        {
            var (records, _) = await StudentStore.Read(connection, plan, [request.Student], viewpoint.At);
            if (!records.TryGetValue(request.Student, out var record))
                throw Problem.Unknown("student");
            var sight = new Sights(plan.Schedule, record).At(viewpoint.At).FirstOrDefault(one => one.Item == item.Ref);
            var terms = new QuizTerms(item.Quiz, sight?.Closes, new(record.Always?.QuizTime ?? 0, 0));
            return (await StudentQuiz.Read(connection, terms, request.Item, request.Student, viewpoint.At, locked: true)).Attempts;
        }
    }

    private sealed class Rules : AbstractValidator<MarkAnswersRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Answers)
                .Must(answers => answers.Count is >= 1 and <= Core.Marking.Papers.QuizPaper.MostQuestions)
                .WithMessage("Give points for at least one answer.")
                .Must(answers => answers.Select(answer => answer.Question).Distinct().Count() == answers.Count)
                .WithMessage("The same answer is here twice.");
            RuleForEach(request => request.Answers)
                .ChildRules(answer =>
                {
                    answer
                        .RuleFor(one => one.Points)
                        .Must(points => points is >= 0 and <= MarkedAs.MostOutOf && decimal.Round(points, 2) == points)
                        .WithMessage($"Give a number from 0 to {MarkedAs.MostOutOf:N0}, with at most two decimals.");
                    answer
                        .RuleFor(one => one.Words)
                        .MaximumLength(Longest)
                        .WithMessage($"This is too long: {Longest:N0} characters at most. Make it shorter.");
                });
        }
    }
}
