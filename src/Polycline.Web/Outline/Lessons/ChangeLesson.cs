using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.Outline.Lessons;

/// <param name="Title">1 to 200 characters; spaces around it are dropped.</param>
/// <param name="Classes">How much it lasts, in what the course is measured in, 0 … 10,000.</param>
/// <param name="Shortest">The least it can do with, when classes are lost; null: it cannot do with less.</param>
/// <param name="Optional">Whether it may be dropped, when classes are lost.</param>
/// <param name="Published">Whether students may know of it and of what is in it.</param>
/// <param name="Version">The version of the lesson that was read.</param>
public sealed record ChangeLessonRequest(
    Id<Lesson> Lesson,
    string Title,
    int Classes,
    int? Shortest,
    bool Optional,
    bool Published,
    long Version
);

/// <summary>Gives a lesson another title or length, publishes it or takes it back: what comes after it moves, in every section.</summary>
public sealed class ChangeLesson : IPlanningCommand<EditionPlan, ChangeLessonRequest>
{
    public static string Name => "change-lesson";

    public static IValidator<ChangeLessonRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ChangeLessonRequest request, Viewpoint viewpoint)
    {
        var row = plan.Needed(request.Lesson, "lesson");
        var lesson = plan.LessonOf(row);
        if (row.Section is not null && !request.Published)
            throw Problem.Field(
                "published",
                $"What belongs to one section only is published through its {plan.Edition.Levels.Item.Many}. Publish those."
            );
        var title = request.Title.Trim();
        var (one, many) = plan.Edition.Basis == Basis.Meetings ? ("class", "classes") : ("minute", "minutes");
        return new Settings()
            .Set(Tables.Lessons.Title, lesson.Title, title, $"renamed “{lesson.Title}” to “{title}”")
            .Set(
                Tables.Lessons.Length,
                lesson.Length,
                request.Classes,
                $"gave “{title}” {Counted(request.Classes, one, many)} instead of {lesson.Length}"
            )
            .Set(
                Tables.Lessons.Shortest,
                row.Shortest,
                request.Shortest,
                request.Shortest is { } least ? $"let “{title}” be cut to {Counted(least, one, many)}" : $"let “{title}” no longer be cut"
            )
            .Set(Tables.Lessons.Optional, lesson.Optional, request.Optional, $"made “{title}” {(request.Optional ? "optional" : "needed")}")
            .Set(
                Tables.Lessons.Published,
                lesson.Published,
                request.Published,
                $"{(request.Published ? "published" : "unpublished")} “{title}”"
            )
            .Of(Tables.Lessons.Table, request.Lesson, request.Version, lesson.Title);
    }

    private sealed class Rules : AbstractValidator<ChangeLessonRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Title).IsTitle();
            RuleFor(request => request.Classes).InclusiveBetween(0, 10_000).WithMessage("From 0 to 10,000.");
            RuleFor(request => request.Shortest)
                .Must((request, shortest) => shortest is null || (shortest >= 0 && shortest <= request.Classes))
                .WithMessage("The shortest it can be is from 0 to its full length.");
        }
    }
}
