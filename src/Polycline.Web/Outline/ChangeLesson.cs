using System.Text.Json.Nodes;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.Outline;

/// <param name="Title">1 to 200 characters; spaces around it are dropped.</param>
/// <param name="Classes">How many classes it lasts, 0 … 200.</param>
/// <param name="Version">The version of the lesson that was read.</param>
public sealed record ChangeLessonRequest(Id<Lesson> Lesson, string Title, int Classes, long Version);

/// <summary>Gives a lesson another title or length: what comes after it moves, in every section.</summary>
public sealed class ChangeLesson : IEditionCommand<ChangeLessonRequest, EditionPlan>
{
    public static string Name => "change-lesson";

    public static May May => May.Team;

    public static IValidator<ChangeLessonRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, ChangeLessonRequest request) => OutlineRules.Load(connection, edition);

    public static Decision Decide(EditionPlan plan, ChangeLessonRequest request, Viewpoint viewpoint)
    {
        var lineage = plan.Needed(request.Lesson, "lesson").Lineage;
        var lesson = plan.Edition.Units.SelectMany(unit => unit.Lessons).First(lesson => lesson.Ref.Name == lineage);
        var title = request.Title.Trim();
        JsonObject before = [], after = [];
        var done = new List<string>();
        if (lesson.Title != title)
        {
            (before["title"], after["title"]) = (lesson.Title, title);
            done.Add($"renamed “{lesson.Title}” to “{title}”");
        }
        if (lesson.Length != request.Classes)
        {
            (before["length"], after["length"]) = (lesson.Length, request.Classes);
            done.Add($"gave “{title}” {Counted(request.Classes, "class", "classes")} instead of {lesson.Length}");
        }
        return done.Count == 0
            ? new($"left {lesson.Title} as it is", [])
            : new(Joined(done, "and"), [Change.Of("lesson", request.Lesson, request.Version, before, after)]);
    }

    private sealed class Rules : AbstractValidator<ChangeLessonRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Title).IsTitle();
            RuleFor(request => request.Classes).InclusiveBetween(0, 200).WithMessage("A lesson lasts from 0 to 200 classes.");
        }
    }
}
