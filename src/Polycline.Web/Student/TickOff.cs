using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Done">False: it is not done after all.</param>
public sealed record TickOffRequest(Id<Item> Item, bool Done);

/// <summary>Ticks an item off where nothing is handed in, or takes the tick back.</summary>
public sealed class TickOff : IWorkCommand<TickOffRequest, CourseOfStudents, DoneAnswer>
{
    public static string Name => "tick-off";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, TickOffRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<DoneAnswer> Do(WorkContext work, CourseOfStudents students, TickOffRequest request)
    {
        var course = await students.SeenBy(work.Connection, work.Access, work.Viewpoint);
        var sight = course.See(request.Item);
        if (sight is not { Asks.Way: AskedWay.Tick, State: ReleaseState.Open or ReleaseState.Overdue })
            throw Problem.NotOpen("Nothing was ticked off.");
        if (sight.IsTicked == request.Done)
            return new();
        await Record(request.Done ? "ticked" : "unticked");
        // What is done by the due counts as handed in, where an item of its kind is not done by being opened.
        if (sight.Kind is ItemKind.Task or ItemKind.Handout)
            await Record(request.Done ? "submitted" : "taken-back");
        return new();

        Task Record(string what) =>
            WorkStore.Record(work.Connection, course.Oneself, request.Item, course.Section, what, work.Viewpoint.At, work.Key);
    }
}
