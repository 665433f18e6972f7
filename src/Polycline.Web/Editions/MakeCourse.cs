using FluentValidation;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Data.Courses;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Editions;

/// <param name="Title">1 to 200 characters.</param>
/// <param name="Term">In which it is taught first.</param>
/// <param name="Basis">What lessons are measured in.</param>
public sealed record MakeCourseRequest(string Title, Id<Term> Term, Basis Basis);

/// <param name="Edition">The course's first edition; null in a preview.</param>
public sealed record MakeCourseAnswer(bool Applied, Id<Edition>? Edition) : IAnswer<MakeCourseAnswer>
{
    public MakeCourseAnswer AsPreview() => new(false, null);
}

/// <summary>
/// Makes a course with nothing in it, led by whoever makes it. As long as no section follows it, it can be removed again.
/// </summary>
public sealed class MakeCourse : IWorkCommand<MakeCourseRequest, MakeCourseAnswer>
{
    private const int LeastToBegin = 10;

    public static string Name => "make-course";

    public static May May => May.Teacher;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static IValidator<MakeCourseRequest> Validator { get; } = new Rules();

    public static async Task<MakeCourseAnswer> Do(WorkContext work, MakeCourseRequest request)
    {
        var term = await TermStore.Read(work.Connection, request.Term) ?? throw Problem.Unknown("term");
        if (term.Term.Last < term.Term.Local(work.Viewpoint.Now).Date)
            throw Problem.Field("term", "That term is over. Choose one that is not.");
        var edition = new Edition(term.Term.Name, request.Basis, LeastToBegin, CodeStyle.ByUnit, BeforeOpening.Listed, []);
        var course = new CourseFile(request.Title.Trim(), edition, new Dictionary<string, int>());
        var made = await CourseStore.Add(work.Connection, course, request.Term, work.Access.Person.Id, work.Viewpoint.At);
        await work.Audit("course-made", new { edition = made.Value });
        return new(true, made);
    }

    private sealed class Rules : AbstractValidator<MakeCourseRequest>
    {
        public Rules() => RuleFor(request => request.Title).IsTitle();
    }
}
