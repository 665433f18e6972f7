using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation;

namespace Polycline.Web.Outline;

/// <param name="Codes">How items are numbered: <c>by-unit</c> or <c>straight</c> through.</param>
/// <param name="Before">What students see of an item before it opens, where it and its unit say nothing: <c>listed</c> or <c>unseen</c>.</param>
/// <param name="Version">The version of the course's own settings that was read.</param>
public sealed record ChangeCourseRequest(string Codes, string Before, long Version);

/// <summary>Says how the items of a course are numbered, and what of them is seen beforehand.</summary>
public sealed class ChangeCourse : IEditionCommand<ChangeCourseRequest, EditionPlan>
{
    public static string Name => "change-course";

    public static May May => May.Team;

    public static IValidator<ChangeCourseRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, ChangeCourseRequest request) => OutlineRules.Load(connection, edition);

    public static Decision Decide(EditionPlan plan, ChangeCourseRequest request, Viewpoint viewpoint)
    {
        var (codes, before) = (Words.Of(plan.Edition.Codes), Words.Of(plan.Edition.Before));
        if (request.Codes != codes && plan.Settings.CodesFixed)
            throw Problem.Field("codes", "Students have seen the codes of this edition: they stay. The next edition can be numbered otherwise.");
        return new Settings()
            .Set("codes", codes, request.Codes, request.Codes == "straight" ? "numbered the items straight through" : "numbered the items by unit")
            .Set("before", before, request.Before, $"had items {BeforeWords.InWords(request.Before)}")
            .Of("edition", plan.Id.Value, request.Version, plan.CourseTitle);
    }

    private sealed class Rules : AbstractValidator<ChangeCourseRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Codes).Must(codes => codes is "by-unit" or "straight").WithMessage("Number by unit or straight through.");
            RuleFor(request => request.Before).Must(before => before is "listed" or "unseen").WithMessage("Say what students see of an item before it opens: listed or unseen.");
        }
    }
}
