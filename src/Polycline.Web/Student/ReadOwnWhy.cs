using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <summary>Why an item is open to a student or not, as short as they need it.</summary>
/// <param name="Words">Such as <c>It opens on Mon 12 Oct, 09:30.</c></param>
/// <param name="Steps">How they stand with what it waits for.</param>
public sealed record OwnWhyAnswer(Id<Item> Item, string Code, string Title, IReadOnlyList<string> Words, IReadOnlyList<OwnWhyStep> Steps);

/// <param name="Item">Where they can go on.</param>
/// <param name="Title">With its code.</param>
/// <param name="Words">Such as <c>it is open to you, due Mon 12 Oct, 09:30</c>.</param>
public sealed record OwnWhyStep(Id<Item> Item, string Title, string Words);

/// <summary>Reads why an item is open to a student or not: nothing that they may not know is named.</summary>
public static class ReadOwnWhy
{
    public static async Task<OwnWhyAnswer> Handle(
        long section,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop);
        var sight = course.See(new Id<Item>(item));
        return new(
            new(item),
            sight.Code,
            sight.Title,
            [.. Words(course, sight)],
            [.. course.Steps(sight).Select(step => new OwnWhyStep(course.IdOf(step), step.Title, step.Words))]
        );
    }

    private static IEnumerable<string> Words(StudentCourse course, Sight sight)
    {
        var missing = course.Missing(sight);
        switch (sight.State)
        {
            case ReleaseState.Upcoming:
                yield return $"It opens on {When(sight.Opens)}.";
                if (missing.Count > 0)
                    yield return $"And only when {string.Join(", and ", missing)}.";
                break;
            case ReleaseState.Locked:
                yield return missing.Count > 0
                    ? $"It opens when {string.Join(", and ", missing)}."
                    : "It is not open to you yet: ask your teacher.";
                break;
            case ReleaseState.Excused:
                yield return "You are excused from it: there is nothing for you to do.";
                break;
            case ReleaseState.Closed:
                yield return $"It closed on {When(sight.Closes)}. You can still read it.";
                break;
            case ReleaseState.Withdrawn:
                yield return "It is no longer open. You can still read it, and what you have begun.";
                break;
            case ReleaseState.Overdue:
                yield return $"It is open to you. It was due on {When(sight.Due)}, and you can still do it.";
                break;
            default:
                yield return sight.Due is null ? "It is open to you." : $"It is open to you, due {When(sight.Due)}.";
                break;
        }

        string? When(NodaTime.Instant? moment) => MomentWords.InWords(moment, course.Zone);
    }
}
