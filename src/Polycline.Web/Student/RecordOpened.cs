using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

public sealed record RecordOpenedRequest(Id<Item> Item);

/// <param name="Copies">How many files the student now has a copy of, and had none before.</param>
public sealed record OpenedAnswer(int Copies) : IAnswer<OpenedAnswer>
{
    public OpenedAnswer AsPreview() => this;
}

/// <summary>
/// Writes down that a student has opened an item, once for each key, and makes the copies they get. Through a lens nothing is recorded.
/// </summary>
public sealed class RecordOpened : IWorkCommand<RecordOpenedRequest, CourseOfStudents, OpenedAnswer>
{
    public static string Name => "record-opened";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, RecordOpenedRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<OpenedAnswer> Do(WorkContext work, CourseOfStudents students, RecordOpenedRequest request)
    {
        var course = await students.SeenBy(work.Connection, work.Access, work.Viewpoint);
        var sight = course.See(request.Item);
        if (!sight.MayRead)
            throw Problem.NotOpen(sight.State == ReleaseState.Upcoming ? "It has not opened yet." : "A condition is not met yet.");
        await WorkStore.Record(work.Connection, course.Oneself, request.Item, course.Section, "opened", work.Viewpoint.At, work.Key);
        if (sight.State is ReleaseState.Open or ReleaseState.Overdue)
            await SheetBeginning.Begin(work.Connection, request.Item, course.Section, work.Viewpoint.At);
        return new(await OwnCopies.Make(work, course, sight, request.Item));
    }
}
