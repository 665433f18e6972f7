using Npgsql;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Editions;

public sealed record TakeBackCourseRequest;

/// <summary>Takes back a course that was taken in from a file, as long as no section follows it: nothing of it is left.</summary>
public sealed class TakeBackCourse : IWorkCommand<TakeBackCourseRequest, DoneAnswer>
{
    public static string Name => "take-back-course";

    public static May May => May.Lead;

    public static WorkPlace Place => WorkPlace.Edition;

    public static async Task<DoneAnswer> Do(WorkContext work, TakeBackCourseRequest request)
    {
        try
        {
            await CourseStore.TakeBack(work.Connection, work.Edition);
            await work.Audit("course-taken-back", new { edition = work.Edition.Value });
            return new();
        }
        catch (PostgresException fault) when (fault.SqlState is "PC002")
        {
            throw Problem.CannotUndo("This course was neither made here nor imported.", "Nothing was changed.");
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo("A section follows this course, or it has a next edition.", "Nothing was changed.");
        }
    }
}
