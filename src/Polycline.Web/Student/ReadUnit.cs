using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <summary>A unit at a glance: made from what the student may know of in it.</summary>
/// <param name="Contents">How much of what: <c>3 pages, 2 tasks and 1 quiz</c>.</param>
/// <param name="Parts">In reading order.</param>
/// <param name="Outcomes">What they should be able to do at its end.</param>
public sealed record StudentUnitAnswer(
    string Course,
    string Section,
    string Title,
    string Contents,
    IReadOnlyList<UnitPart> Parts,
    IReadOnlyList<UnitOutcome> Outcomes
)
{
    /// <summary>What the course calls its levels.</summary>
    public required LevelNames Levels { get; init; }
}

/// <param name="Lesson">Null: what stands in the unit itself.</param>
public sealed record UnitPart(string? Lesson, IReadOnlyList<StudentRow> Items);

/// <summary>One unit, as a student may see it.</summary>
public static class ReadUnit
{
    public static async Task<StudentUnitAnswer> Handle(
        long section,
        long unit,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop);
        var sights = course.All.Where(sight => course.UnitOf(sight) == new Id<Unit>(unit)).ToList();
        // A unit of which they may know nothing is not there.
        if (sights.Count == 0)
            throw Problem.Unknown();
        var parts = new List<UnitPart>();
        foreach (var sight in sights)
            if (parts is [.., var last] && last.Lesson == sight.Lesson)
                parts[^1] = last with { Items = [.. last.Items, ReadNow.RowOf(course, sight)] };
            else
                parts.Add(new(sight.Lesson, [ReadNow.RowOf(course, sight)]));
        return new(
            course.Title,
            course.SectionName,
            sights[0].Unit,
            UnitContents.Of(sights.Select(sight => sight.Kind)),
            parts,
            await UnitContents.Outcomes(
                database,
                sights.Select(sight => (course.OutcomesOf(sight), sight.Code, sight.Progress.IsSettled())),
                stop
            )
        )
        {
            Levels = course.Levels,
        };
    }
}
