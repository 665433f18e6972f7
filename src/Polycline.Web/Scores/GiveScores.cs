using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Plans;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Scores;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Work;

namespace Polycline.Web.Scores;

/// <param name="Scores">1 to 500, one at most for each student and item.</param>
/// <param name="Close">
/// True: what is open to a student only because of an earlier score that is replaced closes. False: it stays open.
/// </param>
public sealed record GiveScoresRequest(IReadOnlyList<GivenScore> Scores, bool Close = false);

/// <param name="Value">Points or percent, as the item is marked; null: a level.</param>
/// <param name="Level">The name of a level; null: points or percent.</param>
public sealed record GivenScore(Id<Item> Item, Id<Person> Student, decimal? Value = null, string? Level = null);

/// <param name="Given">False if this was only a preview and nothing was written.</param>
/// <param name="Scores">How many are new or another; those that stand already are left as they are.</param>
/// <param name="Sentence">How many, and what opens, closes and stays open by it.</param>
/// <param name="Stays">Whether anything stays open only because of an earlier score.</param>
public sealed record GiveScoresAnswer(bool Given, int Scores, string Sentence, bool Stays) : IAnswer<GiveScoresAnswer>
{
    public GiveScoresAnswer AsPreview() => this with { Given = false };
}

/// <summary>
/// Gives scores to students of a section, without words: for what they handed in, or for what they did on paper. All that are given in one
/// go can be taken back, under the key of the request that gave them.
/// </summary>
public sealed class GiveScores : IWorkCommand<GiveScoresRequest, EditionPlan, GiveScoresAnswer>
{
    private const int Most = 500;

    public static string Name => "give-scores";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<GiveScoresRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, GiveScoresRequest request) => plans.Edition(access);

    public static async Task<GiveScoresAnswer> Do(WorkContext work, EditionPlan plan, GiveScoresRequest request)
    {
        var (connection, at, section) = (work.Connection, work.Viewpoint.At, work.Section);
        var rows = await ScoreStore.Read(connection, plan, work.Access.Person.Id, work.Access.IsLead, at);
        var names = rows.Students.Where(student => student.Section == section).ToDictionary(one => one.Student, one => one.Name);
        var given = new List<(GivenScore Score, GivenMark Mark, bool IsNew)>();
        for (var n = 0; n < request.Scores.Count; n++)
        {
            var score = request.Scores[n];
            var mark = MarkOf(plan, score, $"scores[{n}]");
            if (!names.TryGetValue(score.Student, out var name) || Here(rows.Marks, score.Student, section) is null)
                throw Problem.Unknown($"scores[{n}].student");
            var piece = Theirs(rows.Marks, plan, score, name, $"scores[{n}]");
            var before = piece?.Score(at);
            if (before is null || piece!.Waiting(at).Any() || before.Share != MarkShare.Of(mark) || before.Level != mark.Level)
                given.Add((score, mark, before is null));
        }
        if (given.Count == 0)
            return new(true, 0, "These scores are already there.", false);
        var people = given.Select(one => one.Score.Student).Distinct().ToList();
        var open = await OpensBy.Open(connection, plan, people, at);
        foreach (var (score, mark, _) in given)
            await GivenScores.Give(connection, section, score.Student, score.Item, mark, work.Access.Person.Id, at, work.Key);
        var after = await OpensBy.Open(connection, plan, people, at);
        var stays = await OpensBy.ByEarlierScores(
            work,
            plan,
            [.. given.Where(one => !one.IsNew && MarkShare.Of(one.Mark) is not null).Select(one => (one.Score.Student, one.Score.Item))],
            after,
            request.Close
        );
        return new(
            true,
            given.Count,
            string.Join(
                ' ',
                [
                    Counted(given.Count(one => one.IsNew), given.Count(one => !one.IsNew), request.Scores.Count - given.Count),
                    .. OpensBy.Told(plan, names, open, after, stays, request.Close),
                ]
            ),
            stays.Count > 0
        );
    }

    private static string Counted(int added, int changed, int same)
    {
        var parts = new List<string>();
        if (added > 0)
            parts.Add(Counting.Counted(added, "new score", "new scores"));
        if (changed > 0)
            parts.Add(added > 0 ? $"{changed} changed" : Counting.Counted(changed, "changed score", "changed scores"));
        if (same > 0)
            parts.Add($"{same} as before");
        return $"{Counting.Joined(parts, "and")}.";
    }

    private static GivenMark MarkOf(EditionPlan plan, GivenScore score, string at)
    {
        var item = plan.Item(score.Item) ?? throw Problem.Unknown($"{at}.item");
        if (item.Marked is not { } marked)
            throw Problem.Field($"{at}.item", $"“{item.Title}” isn’t set up for marks. In Outline, choose how it is marked.");
        var mark = new GivenMark(marked, score.Value, score.Level);
        return MarkShare.Fits(mark)
            ? mark
            : throw Problem.Field(
                $"{at}.value",
                marked.Form == MarkForm.Scale
                    ? $"“{item.Title}” is marked {MarkWords.Of(marked)}. Choose one of these."
                    : $"Give a number from 0 to {MarkedAs.MostOutOf:N0}, with at most two decimals."
            );
    }

    private static MarkedSection? Here(CourseMarks marks, Id<Person> student, Id<Section> section) =>
        marks.Course.SectionOf(student.InPlan()) is { } here && here.Section == section.InPlan() ? here : null;

    private static Piece? Theirs(CourseMarks marks, EditionPlan plan, GivenScore score, string name, string at)
    {
        var item = plan.Item(score.Item)!;
        var standing = marks.Of(score.Student.InPlan(), item.Ref);
        var why =
            standing.IsSkipped ? "their section doesn’t have it"
            : standing.Verdict is { State: ReleaseState.Excused } or { Because: ReleaseState.Excused } ? "they are excused from it"
            : standing.Verdict.State == ReleaseState.NotAssigned ? "it isn’t for them"
            : null;
        return why is null
            ? marks.Course.PieceOf(score.Student.InPlan(), item.Ref)
            : throw Problem.Field($"{at}.item", $"{name} can’t have a score in “{item.Title}”: {why}.");
    }

    private sealed class Rules : AbstractValidator<GiveScoresRequest>
    {
        public Rules() =>
            RuleFor(request => request.Scores)
                .Must(scores => scores.Count is >= 1 and <= Most)
                .WithMessage($"Give 1 to {Most} scores at a time.")
                .Must(scores => scores.Select(score => (score.Item, score.Student)).Distinct().Count() == scores.Count)
                .WithMessage("One student has two scores for the same item. Keep one of them.");
    }
}
