using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Lessons;

/// <param name="Classes">How many classes it lasts, 0 … 200.</param>
/// <param name="Section">The only section it is to be of; null: of the course, or of whose unit it stands in.</param>
/// <param name="After">The lesson of that unit it comes after; null: first.</param>
public sealed record AddLessonRequest(Id<Unit> Unit, string Title, int Classes, Id<Lesson>? After, Id<Section>? Section);

/// <summary>Adds a lesson: what comes after it moves on.</summary>
public sealed class AddLesson : IPlanningCommand<EditionPlan, AddLessonRequest>
{
    public static string Name => "add-lesson";

    public static IValidator<AddLessonRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, AddLessonRequest request, Viewpoint viewpoint)
    {
        var unit = plan.Needed(request.Unit, "unit");
        var title = request.Title.Trim();
        var owner = plan.OwnerOf(request.Section, unit);
        return new(
            $"added the {plan.Edition.Levels.Lesson.One} “{title}”{plan.OnlyIn(owner)}",
            [
                Change.Add(
                    Tables.Lessons.Edition.Is(plan.Id),
                    Tables.Lessons.Unit.Is(request.Unit),
                    Tables.Lessons.Lineage.Is(plan.NewLineage($"lesson {unit.Id} {title}")),
                    Tables.Lessons.Title.Is(title),
                    Tables.Lessons.Length.Is(request.Classes),
                    Tables.Lessons.Rank.Is(
                        OutlineRules.RankAfter(plan.Siblings(Level.Lesson, unit.Unit, null), request.After?.Value, null)
                    ),
                    Tables.Lessons.Optional.Is(false),
                    Tables.Lessons.Published.Is(true),
                    Tables.Lessons.Section.Is(owner)
                ),
            ]
        );
    }

    private sealed class Rules : AbstractValidator<AddLessonRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Title).IsTitle();
            RuleFor(request => request.Classes).InclusiveBetween(0, 200).WithMessage("From 0 to 200 classes.");
        }
    }
}
