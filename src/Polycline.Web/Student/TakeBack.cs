using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

public sealed record TakeBackRequest(Id<Item> Item);

/// <summary>Takes a hand-in back while the item is open and the teacher has not given it back. Its text is a draft again.</summary>
public sealed class TakeBack : IWorkCommand<TakeBackRequest, CourseOfStudents, DoneAnswer>
{
    public static string Name => "take-back";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, TakeBackRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<DoneAnswer> Do(WorkContext work, CourseOfStudents students, TakeBackRequest request)
    {
        var course = await students.SeenBy(work.Connection, work.Access, work.Viewpoint);
        var sight = course.See(request.Item);
        // What has closed could not be handed in again: it stays with the teacher.
        if (!sight.MayWork || sight.Asks is null or { Way: AskedWay.Tick })
            throw Problem.NotOpen("Nothing was taken back: you could not hand it in again.");
        return await HandInStore.TakeBack(work.Connection, course.Oneself, request.Item, course.Section, work.Viewpoint.At, work.Key) switch
        {
            { Done: true } => new(),
            { By: { } by } => throw Problem.NotYoursToTakeBack(by),
            _ => throw Problem.NothingToTakeBack(),
        };
    }
}
