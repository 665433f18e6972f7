using FluentValidation;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Pace;

/// <param name="Lessons">1 to 500, each of them once.</param>
public sealed record ConfirmTaughtRequest(Id<Section> Section, IReadOnlyList<TaughtLesson> Lessons);

/// <param name="Took">What it has taken so far, in what the course is measured in; null: nothing is recorded of it any more.</param>
/// <param name="Left">How much is left of one that is not done; null: what was planned less what it took.</param>
/// <param name="Version">The version of the record that was read; 0: there was none.</param>
public sealed record TaughtLesson(Id<Lesson> Lesson, int? Took, bool Done, int? Left, long Version);

/// <summary>Records what lessons have really taken in a section; the forecast follows.</summary>
public sealed class ConfirmTaught : IPlanningCommand<EditionPlan, ConfirmTaughtRequest>
{
    public static string Name => "confirm-taught";

    public static IValidator<ConfirmTaughtRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ConfirmTaughtRequest request, Viewpoint viewpoint)
    {
        var section = plan.Following(request.Section) ?? throw Problem.Unknown("section");
        var changes = request.Lessons.Select(lesson => Decide(plan, section, lesson, viewpoint)).OfType<Change>().ToList();
        var titles = request.Lessons.Select(lesson => plan.TitleOf(plan.Needed(lesson.Lesson, "lesson").Lineage)).ToList();
        var what = titles.Count == 1 ? $"“{titles[0]}”" : plan.Edition.Levels.Lesson.Counted(titles.Count);
        var (done, act) =
            request.Lessons.All(lesson => lesson.Took is null) ? ("cleared the record of", "Clear the record")
            : request.Lessons.All(lesson => lesson is { Took: not null, Done: false }) ? ("noted as not finished:", "Note as not finished")
            : ("noted as taught:", "Note as taught");
        return changes.Count == 0
            ? new("left what was taught as it is", [])
            : new($"{done} {what} in {section.Name}", changes) { Act = act };
    }

    // Null: it is so already.
    private static Change? Decide(EditionPlan plan, FollowingSection section, TaughtLesson asked, Viewpoint viewpoint)
    {
        var lesson = plan.Needed(asked.Lesson, "lesson");
        var present = plan.Taught.FirstOrDefault(row => row.Section == section.Id && row.Lesson == lesson.Lineage);
        Cell[] key = [Tables.Taught.Section.Is(section.Id), Tables.Taught.Lesson.Is(lesson.Lineage)];
        var left = asked.Done ? null : asked.Left;
        if (present is null && asked.Took is null)
            return null;
        Cell[]? was = present is null ? null : [.. Row(present.Took, present.Done, present.Left, present.At)],
            will = asked.Took is { } took ? [.. Row(took, asked.Done, left, viewpoint.At)] : null;
        if ((present?.Version ?? 0) != asked.Version)
            throw new StaleChangeException(
                will is null ? Change.Delete(asked.Version, [.. key, .. was!]) : Change.Add([.. key, .. will]),
                present is null ? null : new() { ["took"] = present.Took, ["version"] = present.Version }
            );
        if (present is not null && asked.Took == present.Took && asked.Done == present.Done && left == present.Left)
            return null;
        return will is null ? Change.Delete(asked.Version, [.. key, .. was!])
            : was is null ? Change.Add([.. key, .. will])
            : Change.Set(key, asked.Version, [.. was.Zip(will, (before, after) => new Turn(before, after))]);
    }

    private static IEnumerable<Cell> Row(int took, bool done, int? left, Instant at) =>
        [Tables.Taught.Took.Is(took), Tables.Taught.Done.Is(done), Tables.Taught.Left.Is(left), Tables.Taught.At.Is(at)];

    private sealed class Rules : AbstractValidator<ConfirmTaughtRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Lessons)
                .Must(lessons => lessons.Count is > 0 and <= 500)
                .WithMessage("Choose from 1 to 500 at once.");
            RuleFor(request => request.Lessons)
                .Must(lessons => lessons.DistinctBy(lesson => lesson.Lesson).Count() == lessons.Count)
                .WithMessage("One is chosen twice.");
            RuleForEach(request => request.Lessons)
                .Must(lesson => lesson is { Took: null or (>= 0 and <= 10_000), Left: null or (>= 0 and <= 10_000) })
                .WithMessage("What it took and what is left are whole numbers from 0 to 10,000.");
        }
    }
}
