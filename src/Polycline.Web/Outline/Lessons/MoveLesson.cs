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

/// <summary>The items that were removed from lessons, by lesson: they go with it, so that they can be brought back.</summary>
public sealed record RemovedItems(ILookup<Id<Lesson>, (Id<Item> Id, long Version)> Of);

/// <summary>Puts a lesson, with its items, at another place in its unit. Into another unit go its items too.</summary>
public sealed class MoveLesson : IPlanningCommand<EditionPlan, RemovedItems, MoveLessonRequest>
{
    public static string Name => "move-lesson";

    public static async Task<RemovedItems> Read(NpgsqlConnection connection, EditionPlan plan, MoveLessonRequest request) =>
        new(await EditionStore.RemovedFrom(connection, [request.Lesson]));

    public static CommandDecision Decide(EditionPlan plan, RemovedItems removed, MoveLessonRequest request, Viewpoint viewpoint)
    {
        var lesson = plan.Needed(request.Lesson, "lesson");
        var unit = plan.Needed(request.Unit, "unit");
        plan.MayStandIn(lesson.Section, unit);
        var moved = Moving.Decide(
            plan,
            lesson,
            request.Version,
            [Tables.Lessons.Unit.Turns(lesson.Unit, unit.Unit)],
            plan.Siblings(Level.Lesson, unit.Unit, null),
            request.After?.Value
        );
        return moved with { Changes = [.. moved.Changes, .. ItemsOf(plan, lesson, removed, unit.Unit)] };
    }

    /// <summary>What becomes of a lesson's items where it goes into another unit: an item stands in the unit of its lesson.</summary>
    internal static IEnumerable<Change> ItemsOf(EditionPlan plan, TreeRow lesson, RemovedItems removed, Id<Unit> unit) =>
        // (unit, lesson) is one key, checked when all is done.
        lesson.Unit == unit
            ? []
            : plan.Siblings(Level.Item, lesson.Unit, lesson.Lesson)
                .Select(item => (Id: item.As<Item>(), item.Version))
                .Concat(removed.Of[lesson.As<Lesson>()])
                .Select(item => Change.Set(Tables.Items.Table, item.Id, item.Version, Tables.Items.Unit.Turns(lesson.Unit, unit)));
}
