using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Lessons;

/// <param name="Version">The version of the lesson that was read.</param>
public sealed record RemoveLessonRequest(Id<Lesson> Lesson, long Version);

/// <summary>Takes a lesson, with its items, out of the course.</summary>
public sealed class RemoveLesson : IPlanningCommand<EditionPlan, RemoveLessonRequest>
{
    public static string Name => "remove-lesson";

    public static CommandDecision Decide(EditionPlan plan, RemoveLessonRequest request, Viewpoint viewpoint) =>
        Removing.Decide(plan, plan.Needed(request.Lesson, "lesson"), request.Version, viewpoint);
}
