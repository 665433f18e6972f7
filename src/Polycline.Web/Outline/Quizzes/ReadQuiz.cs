using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Formats.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Quizzes;

/// <param name="Text">The questions as plain text; empty: there are none yet.</param>
/// <param name="Lines">What is understood of each of its lines.</param>
public sealed record TeamQuizAnswer(string Text, IReadOnlyList<QuizLine> Lines, QuizRules Rules, long Version);

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
        var found = plan.Item(new Id<Item>(item)) is { Kind: ItemKind.Quiz } quiz ? quiz : throw Problem.Unknown();
        var paper = await database.Read(connection => BodyStore.Quiz(connection, found.Quiz), stop);
        var text = paper is null ? "" : QuizText.Write(paper);
        return new(text, text.Length == 0 ? [] : QuizText.Read(text).Lines, RulesOf(paper), plan.Row(found.Ref).Version);
    }

    private static QuizRules RulesOf(QuizPaper? paper) =>
        new(
            paper?.Limit,
            paper is null ? 1 : paper.Attempts,
            EnumNames.Of(paper?.Using ?? AttemptsUsed.Best),
            EnumNames.Of(paper?.Shown ?? AnswersShown.AtOnce),
            paper?.OutOf is { } outOf ? (decimal)outOf.Above / (decimal)outOf.Below : null,
            paper?.MixesQuestions ?? false,
            paper?.MixesOptions ?? false
        );
}
