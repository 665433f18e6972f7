using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Scores;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Work;

namespace Polycline.Web.Scores;

/// <param name="Key">What was given in one go.</param>
public sealed record TakeBackScoresRequest(Guid Key);

/// <param name="Scores">How many.</param>
public sealed record TakeBackScoresAnswer(int Scores, string Sentence) : IAnswer<TakeBackScoresAnswer>
{
    public TakeBackScoresAnswer AsPreview() => this;
}

/// <summary>Takes back scores that were given in one go: what stood before stands again.</summary>
public sealed class TakeBackScores : IWorkCommand<TakeBackScoresRequest, EditionPlan, TakeBackScoresAnswer>
{
    public static string Name => "take-back-scores";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, TakeBackScoresRequest request) => plans.Edition(access);

    public static async Task<TakeBackScoresAnswer> Do(WorkContext work, EditionPlan plan, TakeBackScoresRequest request)
    {
        var (connection, at) = (work.Connection, work.Viewpoint.At);
        var names = await GivenScores.Of(connection, work.Section, request.Key);
        if (names.Count == 0)
            throw Problem.Unknown("key");
        var open = await OpensBy.Open(connection, plan, [.. names.Keys], at);
        var count = await GivenScores.TakeBack(connection, work.Section, request.Key, work.Access.Person.Id, at);
        var after = await OpensBy.Open(connection, plan, [.. names.Keys], at);
        return new(
            count,
            string.Join(' ', [$"{Counting.Counted(count, "score", "scores")} taken back.", .. OpensBy.Told(plan, names, open, after)])
        );
    }
}
