using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <summary>Writes down that a student has opened an item, once for each key. Through a lens nothing is recorded.</summary>
public static class RecordOpened
{
    public static async Task<IResult> Handle(
        long section,
        long item,
        [Microsoft.AspNetCore.Mvc.FromHeader(Name = "Idempotency-Key")] Guid? key,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsOneself();
        var request = Idempotency.Key(key);
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop);
        var sight = course.See(new Id<Item>(item));
        if (!sight.MayRead)
            throw Problem.NotOpen(sight.State == ReleaseState.Upcoming ? "It has not opened yet." : "A condition is not met yet.");
        await database.Read(
            async connection =>
            {
                await WorkStore.Record(connection, course.Oneself, new(item), course.Section, "opened", viewpoint.At, request);
                return true;
            },
            stop
        );
        return Results.NoContent();
    }
}
