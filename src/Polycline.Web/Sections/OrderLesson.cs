using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Sections;

/// <param name="After">The lesson that it then comes after; null: where the course has it.</param>
/// <param name="Version">The version of the change of its place that was read; 0: there was none.</param>
public sealed record OrderLessonRequest(Id<Section> Section, Id<Lesson> Lesson, Id<Lesson>? After, long Version);

/// <summary>Takes a lesson after another one in one section, or where the course has it again. It stays a lesson of its unit.</summary>
public sealed class OrderLesson : IPlanningCommand<EditionPlan, OrderLessonRequest>
{
    public static string Name => "order-lesson";

    public static IValidator<OrderLessonRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, OrderLessonRequest request, Viewpoint viewpoint)
    {
        var section = plan.Following(request.Section) ?? throw Problem.Unknown("section");
        var lesson = plan.Needed(request.Lesson, "lesson");
        if (request.After is not { } afterId)
            return Ordering.Decide(plan, section, lesson, null, "", request.Version);
        var after = plan.Needed(afterId, "after");
        return Ordering.Decide(
            plan,
            section,
            lesson,
            new() { ["after"] = after.Lineage },
            $"took “{plan.TitleOf(lesson.Lineage)}” after “{plan.TitleOf(after.Lineage)}”",
            request.Version
        );
    }

    private sealed class Rules : AbstractValidator<OrderLessonRequest>
    {
        public Rules() =>
            RuleFor(request => request.After)
                .Must((request, after) => after != request.Lesson)
                .WithMessage("It cannot come after itself. Choose another one.");
    }
}
