using FluentValidation;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline;

/// <param name="Codes">How items are numbered: <c>by-unit</c> or <c>straight</c> through.</param>
/// <param name="Before">What students see of an item before it opens, where it and its unit say nothing: <c>listed</c> or
/// <c>unseen</c>.</param>
/// <param name="Levels">What its three levels are called; null: as they are.</param>
/// <param name="Version">The version of the course's own settings that was read.</param>
public sealed record ChangeCourseRequest(string Codes, string Before, LevelNames? Levels, long Version);

/// <summary>Says how the items of a course are numbered, what of them is seen beforehand, and what its levels are called.</summary>
public sealed class ChangeCourse : IPlanningCommand<EditionPlan, ChangeCourseRequest>
{
    public static string Name => "change-course";

    public static IValidator<ChangeCourseRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ChangeCourseRequest request, Viewpoint viewpoint)
    {
        var (codes, before) = (EnumNames.Of(plan.Edition.Codes), EnumNames.Of(plan.Edition.Before));
        if (request.Codes != codes && plan.Settings.CodesFixed)
            throw Problem.Field(
                "codes",
                "Students have seen the codes of this edition: they stay. The next edition can be numbered otherwise."
            );
        var named = request.Levels ?? plan.Edition.Levels;
        return new Settings()
            .Set(
                Tables.Editions.Codes,
                codes,
                request.Codes,
                $"numbered the {named.Item.Many} {(request.Codes == "straight" ? "straight through" : $"by {named.Unit.One}")}"
            )
            .Set(Tables.Editions.Before, before, request.Before, $"had {named.Item.Many} {BeforeWords.InWords(request.Before)}")
            .Set(
                Tables.Editions.Levels,
                plan.Edition.Levels,
                named,
                $"called its levels {named.Unit.One}, {named.Lesson.One} and {named.Item.One}"
            )
            .Of(Tables.Editions.Table, plan.Id, request.Version, plan.CourseTitle);
    }

    private sealed class Rules : AbstractValidator<ChangeCourseRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Codes)
                .Must(codes => codes is "by-unit" or "straight")
                .WithMessage("Number by unit or straight through.");
            RuleFor(request => request.Before)
                .Must(before => before is "listed" or "unseen")
                .WithMessage("Say what students see of an item before it opens: listed or unseen.");
            RuleFor(request => request.Levels)
                .Custom(
                    (levels, context) =>
                    {
                        foreach (var (at, message) in levels?.Faults() ?? [])
                            context.AddFailure($"levels.{at}", message);
                    }
                );
        }
    }
}
