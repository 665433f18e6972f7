using FluentValidation;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Calendar;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline;

/// <param name="Codes">How items are numbered: <c>by-unit</c> or <c>straight</c> through.</param>
/// <param name="Before">What students see of an item before it opens, where it and its unit say nothing: <c>listed</c> or
/// <c>unseen</c>.</param>
/// <param name="Levels">What its three levels are called; null: as they are.</param>
/// <param name="Version">The version of the edition's own settings that was read.</param>
/// <param name="Name">What the course is called; null: as it is.</param>
public sealed record ChangeCourseRequest(string Codes, string Before, LevelNames? Levels, long Version, CourseNameForm? Name = null);

/// <param name="Title">1 to 200 characters.</param>
/// <param name="Subject">At most 120 characters; it may be empty.</param>
/// <param name="Version">The version of the course's name that was read.</param>
public sealed record CourseNameForm(string Title, string Subject, long Version);

/// <summary>
/// Says what a course is called, in all its editions; how the items of this one are numbered, what of them is seen beforehand, and what its
/// levels are called.
/// </summary>
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
        var settings = new Settings()
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
        if (request.Name is not { } name)
            return settings;
        var called = new Settings()
            .Set(Tables.Masters.Title, plan.Name.Title, name.Title.Trim(), $"renamed the course {name.Title.Trim()}")
            .Set(Tables.Masters.Subject, plan.Name.Subject, name.Subject.Trim(), "changed the subject of the course")
            .Of(Tables.Masters.Table, plan.Master, name.Version, plan.CourseTitle);
        return called.Changes.Count == 0 ? settings
            : settings.Changes.Count == 0 ? called
            : new($"{called.Words} and {settings.Words}", [.. called.Changes, .. settings.Changes]);
    }

    private sealed class Rules : AbstractValidator<ChangeCourseRequest>
    {
        public Rules()
        {
            When(
                request => request.Name is not null,
                () =>
                {
                    RuleFor(request => request.Name!.Title).IsTitle();
                    RuleFor(request => request.Name!.Subject).IsSubject();
                }
            );
            RuleFor(request => request.Codes)
                .Must(codes => codes is "by-unit" or "straight")
                .WithMessage("Number by unit or straight through.");
            RuleFor(request => request.Before)
                .Must(before => before is "listed" or "unseen")
                .WithMessage("Say what students see of an item before it opens: listed or unseen.");
            RuleFor(request => request.Levels).AreLevelNames();
        }
    }
}
