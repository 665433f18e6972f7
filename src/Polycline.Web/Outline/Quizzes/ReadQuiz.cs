using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Formats;
using Polycline.Formats.Files;
using Polycline.Formats.Quizzes;
using Polycline.Formats.Quizzes.Qti;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Quizzes;

/// <param name="Text">The questions as plain text; empty: there are none yet.</param>
/// <param name="Lines">What is understood of each of its lines.</param>
/// <param name="Rows">The same questions, field by field.</param>
/// <param name="LeftOut">What a package of QTI 2.2 has no place for, in words.</param>
public sealed record TeamQuizAnswer(
    string Text,
    IReadOnlyList<QuizLine> Lines,
    IReadOnlyList<QuestionForm> Rows,
    IReadOnlyList<string> LeftOut,
    QuizRules Rules,
    long Version
);

/// <summary>A quiz with its keys, for its team.</summary>
public static class ReadQuiz
{
    public static async Task<TeamQuizAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The questions of a quiz");
        var plan = await compiled.Edition(access);
        var found = QuizIn(plan, item);
        var paper = await database.Read(connection => BodyStore.Quiz(connection, found.Quiz), stop);
        var shown = paper?.Reworded(text => QuestionText.Shown(text, $"/api/editions/{edition}/items/{item}"));
        var text = shown is null ? "" : QuizText.Write(shown);
        return new(
            text,
            text.Length == 0 ? [] : QuizText.Read(text).Lines,
            shown is null ? [] : QuestionForm.Of(shown.Questions, shown.Draws),
            paper is null ? [] : new QtiPackage(found.Title, paper).LeftOut,
            RulesOf(paper),
            plan.Row(found.Ref).Version
        );
    }

    /// <summary>The questions as a package of QTI 2.2.</summary>
    public static async Task<IResult> HandlePackage(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The questions of a quiz");
        var found = QuizIn(await compiled.Edition(access), item);
        var (paper, files) = await database.Read(
            async connection =>
                (await BodyStore.Quiz(connection, found.Quiz), found.Quiz is null ? [] : await Pictures.All(connection, found.Quiz)),
            stop
        );
        // What is asked, in the one form in which texts are kept: some was kept before it had to be.
        var asked = (paper ?? throw Problem.Unknown()).Reworded(text =>
            QuestionText.Stored(text, "item", (_, source) => Pictures.HashOf(source) is { } hash ? Pictures.Named(hash) : null)
        );
        var package = new QtiPackage(found.Title, asked);
        var packed = files
            .Where(file => package.FileNames.Contains(file.Hash))
            .Select(file => (new PackedFile(file.Hash, file.Type == FileTypes.Text, () => StoredStream.Of(database, file)), file.Type))
            .ToList();
        return Results.Stream(to => package.Write(to, packed, stop), "application/zip", "questions.zip");
    }

    private static Item QuizIn(EditionPlan plan, long item) =>
        plan.Item(new Id<Item>(item)) is { Kind: ItemKind.Quiz } quiz ? quiz : throw Problem.Unknown();

    private static QuizRules RulesOf(QuizPaper? paper) =>
        new(
            paper?.Limit,
            paper is null ? 1 : paper.Attempts,
            EnumNames.Of(paper?.Using ?? AttemptsUsed.Best),
            EnumNames.Of(paper?.Shown ?? AnswersShown.AtOnce),
            paper?.OutOf is { } outOf ? (decimal)outOf.Above / (decimal)outOf.Below : null,
            paper?.MixesQuestions ?? false,
            paper?.MixesOptions ?? false,
            EnumNames.Of(paper?.ScoreIsShown ?? AnswersShown.AtOnce)
        );
}
