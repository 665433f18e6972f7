using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Formats.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline.Items;

namespace Polycline.Web.Outline.Quizzes;

/// <param name="Text">The questions as plain text; empty: none.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record WriteQuizRequest(Id<Item> Item, string Text, QuizRules Rules, long Version);

/// <summary>How a quiz is taken.</summary>
/// <param name="Limit">Minutes; null: as long as one likes.</param>
/// <param name="Attempts">Null: any number.</param>
/// <param name="Using">Which of them counts: <c>best</c>, <c>latest</c> or <c>mean</c>.</param>
/// <param name="Shown">When students see how they were marked: <c>at-once</c>, <c>after-due</c> or <c>never</c>.</param>
/// <param name="OutOf">What it is worth; null: what its questions add up to.</param>
/// <param name="MixesQuestions">Whether the questions of a page stand in another order for each attempt.</param>
/// <param name="MixesOptions">Whether the answers to choose from do.</param>
/// <param name="ScoreShown">When students see their score, at the latest with the answers; null: with them.</param>
public sealed record QuizRules(
    int? Limit,
    int? Attempts,
    string Using,
    string Shown,
    decimal? OutOf = null,
    bool MixesQuestions = false,
    bool MixesOptions = false,
    string? ScoreShown = null
);

/// <summary>The questions as they are kept.</summary>
/// <param name="Paper">Null: there are none yet.</param>
/// <param name="Pictures">Those that the text may show.</param>
public sealed record KnownQuiz(QuizPaper? Paper, TakenPapers Taken, TextPictures Pictures);

/// <summary>Writes the questions of a quiz, their keys, and how it is taken.</summary>
public sealed class WriteQuiz : IPlanningCommand<EditionPlan, KnownQuiz, WriteQuizRequest>
{
    private const int LongestLimit = 600;
    private const int MostAttempts = 50;

    internal static readonly QuizRules UsualRules = new(null, 1, EnumNames.Of(AttemptsUsed.Best), EnumNames.Of(AnswersShown.AtOnce));

    public static string Name => "write-quiz";

    public static IValidator<WriteQuizRequest> Validator { get; } = new Rules();

    public static async Task<KnownQuiz> Read(NpgsqlConnection connection, EditionPlan plan, WriteQuizRequest request) =>
        new(
            await BodyStore.Quiz(connection, plan.Item(request.Item)?.Quiz),
            await TakenPapers.Read(connection, plan, request.Item),
            await TextPictures.Read(connection, plan.Id, request.Text)
        );

    public static CommandDecision Decide(EditionPlan plan, KnownQuiz known, WriteQuizRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        if (item.Kind != ItemKind.Quiz)
            throw Problem.Field("item", "Only a quiz has questions. Add a quiz for them.");
        var paper = string.IsNullOrWhiteSpace(request.Text) ? null : KeepingIds(known, Written());
        var body = paper is null ? null : new Body(QuizPaperFile.Write(paper), BodyKind.Quiz);
        return item.Quiz == body?.Hash
            ? new($"left the questions of “{item.Title}” as they are", [])
            : new(
                body is null ? $"took the questions out of “{item.Title}”" : $"wrote the questions of “{item.Title}”",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Quiz.Turns(item.Quiz, body?.Hash))],
                null,
                body is null ? [] : [body]
            )
            {
                Act = "Write the questions",
                Besides = paper is null ? "" : MarkedAgain.Told(plan, item, known.Taken, known.Paper, paper, viewpoint.At),
            };

        QuizPaper Written() =>
            PaperOf(request.Text, request.Rules, (element, source) => known.Pictures.Stored(element, source, viewpoint, "text"));
    }

    private static QuizPaper KeepingIds(KnownQuiz known, QuizPaper paper) => known.Paper is { } earlier ? paper.KeepingIds(earlier) : paper;

    /// <summary>A quiz as it is written.</summary>
    /// <exception cref="ProblemException">A line is not understood.</exception>
    /// <param name="media">What the address of a picture, sound or film is kept as; null: it is left out.</param>
    internal static QuizPaper PaperOf(string text, QuizRules rules, Func<string, string, string?> media)
    {
        var read = QuizText.Read(text);
        if (read.Questions is not { } questions)
        {
            var at = read.Lines.ToList().FindIndex(line => line.IsFault);
            throw Problem.Field(
                "text",
                at < 0
                    ? $"A quiz has up to {QuizPaper.MostQuestions} questions. Put some of them in another quiz."
                    : $"Line {at + 1} is not understood. {read.Lines[at].Words}"
            );
        }
        return new()
        {
            Questions = [.. questions.Select(question => question with { Text = Asked(question) })],
            Limit = rules.Limit,
            Attempts = rules.Attempts,
            Using = EnumNames.Parse<AttemptsUsed>(rules.Using),
            Shown = EnumNames.Parse<AnswersShown>(rules.Shown),
            ScoreShown = rules.ScoreShown is { } score && score != rules.Shown ? EnumNames.Parse<AnswersShown>(score) : null,
            OutOf = rules.OutOf is { } outOf ? (Fraction)outOf : (Fraction?)null,
            Draws = read.Draws,
            MixesQuestions = rules.MixesQuestions,
            MixesOptions = rules.MixesOptions,
        };

        string Asked(PaperQuestion question)
        {
            var asked = QuestionText.Stored(question.Text, "text", media);
            return asked.Length > 0
                ? asked
                : throw Problem.Field("text", $"Question {questions.IndexOf(question) + 1} asks nothing. Write what is asked.");
        }
    }

    private sealed class Rules : AbstractValidator<WriteQuizRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Text)
                .MaximumLength(QuizText.LongestText)
                .WithMessage($"This is too long: {QuizText.LongestText:N0} characters at most. Put some questions into another quiz.");
            RuleFor(request => request.Rules.Limit)
                .InclusiveBetween(1, LongestLimit)
                .WithMessage($"Give from 1 to {LongestLimit} minutes, or no limit.");
            RuleFor(request => request.Rules.Attempts)
                .InclusiveBetween(1, MostAttempts)
                .WithMessage($"Give from 1 to {MostAttempts} attempts, or any number.");
            RuleFor(request => request.Rules.Using).Must(Is<AttemptsUsed>).WithMessage(Choose<AttemptsUsed>());
            RuleFor(request => request.Rules.Shown).Must(Is<AnswersShown>).WithMessage(Choose<AnswersShown>());
            RuleFor(request => request.Rules.ScoreShown)
                .Must(score => score is null || Is<AnswersShown>(score))
                .WithMessage(Choose<AnswersShown>());
            RuleFor(request => request.Rules.ScoreShown)
                .Must((request, score) => EnumNames.Parse<AnswersShown>(score!) <= EnumNames.Parse<AnswersShown>(request.Rules.Shown))
                .WithMessage("The answers tell the score. Show the score with them or sooner.")
                .When(request => request.Rules.ScoreShown is { } score && Is<AnswersShown>(score) && Is<AnswersShown>(request.Rules.Shown));
            RuleFor(request => request.Rules.OutOf)
                .Must(outOf => outOf is null or (>= 0.01m and <= MarkedAs.MostOutOf) && decimal.Round(outOf ?? 0, 2) == (outOf ?? 0))
                .WithMessage($"Give a number from 0.01 to {MarkedAs.MostOutOf:N0}, with at most two decimals.");
        }

        private static bool Is<T>(string word)
            where T : struct, Enum => Enum.GetValues<T>().Select(EnumNames.Of).Contains(word);

        private static string Choose<T>()
            where T : struct, Enum => $"Choose one of: {string.Join(", ", Enum.GetValues<T>().Select(EnumNames.Of))}.";
    }
}
