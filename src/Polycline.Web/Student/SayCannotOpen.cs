using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.CannotOpen;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Note">What happens when they try: up to 500 characters; it may be empty.</param>
public sealed record SayCannotOpenRequest(Id<Item> Item, string Note);

/// <summary>A student says that they cannot open something. Their teachers find it in Today, with the reason.</summary>
public sealed class SayCannotOpen : IWorkCommand<SayCannotOpenRequest, CourseOfStudents, DoneAnswer>
{
    private const int Longest = 500;

    public static string Name => "say-cannot-open";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<SayCannotOpenRequest> Validator { get; } = new Rules();

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, SayCannotOpenRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<DoneAnswer> Do(WorkContext work, CourseOfStudents students, SayCannotOpenRequest request)
    {
        var course = await students.SeenBy(work.Connection, work.Access, work.Viewpoint);
        var sight = course.See(request.Item);
        await CannotOpenStore.Say(
            work.Connection,
            course.Oneself,
            request.Item,
            course.Section,
            request.Note.Trim(),
            sight.MayRead,
            work.Viewpoint.At
        );
        return new();
    }

    private sealed class Rules : AbstractValidator<SayCannotOpenRequest>
    {
        public Rules() =>
            RuleFor(request => request.Note)
                .Must(note => note.Trim().Length <= Longest)
                .WithMessage($"Say what happens in up to {Longest} characters.");
    }
}
