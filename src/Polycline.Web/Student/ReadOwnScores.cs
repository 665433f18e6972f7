using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Course">The title of the course.</param>
/// <param name="Section">The name of the student's section.</param>
public sealed record OwnScoresAnswer(string Course, string Section, TotalForm Total);

/// <summary>A student's own scores, and what they come to.</summary>
public static class ReadOwnScores
{
    public static async Task<OwnScoresAnswer> Handle(
        long section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop);
        return new(course.Title, course.SectionName, await course.Total(database, stop));
    }
}
