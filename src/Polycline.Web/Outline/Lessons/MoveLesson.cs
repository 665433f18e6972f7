using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Lessons;

/// <param name="Unit">The unit it then stands in.</param>
/// <param name="After">The lesson it then comes after; null: first.</param>
/// <param name="Version">The version of the lesson that was read.</param>
public sealed record MoveLessonRequest(Id<Lesson> Lesson, Id<Unit> Unit, Id<Lesson>? After, long Version);

/// <param name="Removed">Items that were removed from the lesson.</param>
public sealed record MoveLessonPlan(EditionPlan Course, IReadOnlyList<(long Id, long Version)> Removed);

/// <summary>Puts a lesson, with its items, at another place in its unit. Into another unit go its items too.</summary>
public sealed class MoveLesson : IEditionCommand<MoveLessonRequest, MoveLessonPlan>
{
    public static string Name => "move-lesson";

    public static May May => May.Team;

    public static IValidator<MoveLessonRequest> Validator { get; } = new InlineValidator<MoveLessonRequest>();

    public static async Task<MoveLessonPlan> Load(NpgsqlConnection connection, Id<Edition> edition, MoveLessonRequest request) =>
        new(await OutlineRules.Load(connection, edition), await EditionStore.RemovedFrom(connection, request.Lesson));

    public static CommandDecision Decide(MoveLessonPlan read, MoveLessonRequest request, Viewpoint viewpoint)
    {
        var plan = read.Course;
        var lesson = plan.Needed(request.Lesson, "lesson");
        var unit = plan.Needed(request.Unit, "unit");
        plan.MayStandIn(lesson.Section, unit);
        var moved = Moving.Decide(
            plan,
            lesson,
            request.Version,
            new() { ["unit"] = (lesson.Unit, unit.Id) },
            plan.Siblings("lesson", unit.Id, null),
            request.After?.Value
        );
        if (lesson.Unit == unit.Id)
            return moved;
        // An item stands in the unit of its lesson: (unit, lesson) is one key, checked when all is done.
        var items = plan.Siblings("item", lesson.Unit, lesson.Id)
            .Select(item => (item.Id, item.Version))
            .Concat(read.Removed)
            .Select(item =>
                Change.Of<Item>("item", new(item.Id), item.Version, new() { ["unit"] = lesson.Unit }, new() { ["unit"] = unit.Id })
            );
        return moved with { Changes = [.. moved.Changes, .. items] };
    }
}
