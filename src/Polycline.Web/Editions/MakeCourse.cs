using FluentValidation;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Terms;
using Polycline.Formats.Schemes;
using Polycline.Web.Calendar;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Editions;

/// <param name="Title">1 to 200 characters.</param>
/// <param name="Term">In which it is taught first.</param>
/// <param name="Basis">What lessons are measured in.</param>
/// <param name="Scheme">
/// A scheme of work to make it from, as text or rows of a spreadsheet: up to 200,000 characters; it may be empty.
/// </param>
/// <param name="Answers">What lines are that were asked about.</param>
/// <param name="Subject">At most 120 characters; it may be empty.</param>
/// <param name="Levels">What its three levels are called; null: unit, lesson and item.</param>
public sealed record MakeCourseRequest(
    string Title,
    Id<Term> Term,
    Basis Basis,
    string Scheme,
    IReadOnlyList<SchemeAnswer> Answers,
    string Subject = "",
    LevelNames? Levels = null
);

/// <param name="Line">From 1.</param>
public sealed record SchemeAnswer(int Line, SchemeLevel Level);

/// <param name="Edition">The course's first edition; null in a preview.</param>
/// <param name="Sentence">What is in it; empty: nothing.</param>
/// <param name="Lines">How each line of the scheme was understood.</param>
public sealed record MakeCourseAnswer(bool Applied, Id<Edition>? Edition, string Sentence, IReadOnlyList<UnderstoodLine> Lines)
    : IAnswer<MakeCourseAnswer>
{
    public MakeCourseAnswer AsPreview() => this with { Applied = false, Edition = null };
}

/// <summary>
/// Makes a course, empty or from a scheme of work, led by whoever makes it. As long as no section follows it, it can be removed again.
/// </summary>
public sealed class MakeCourse : IWorkCommand<MakeCourseRequest, MakeCourseAnswer>
{
    private const int LeastToBegin = 10;
    private const int LongestScheme = 200_000;
    private const int UsualClass = 50;

    public static string Name => "make-course";

    public static May May => May.Teacher;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static IValidator<MakeCourseRequest> Validator { get; } = new Rules();

    public static async Task<MakeCourseAnswer> Do(WorkContext work, MakeCourseRequest request)
    {
        var term = await TermStore.Read(work.Connection, request.Term) ?? throw Problem.Unknown("term");
        if (term.Term.Last < term.Term.Local(work.Viewpoint.Now).Date)
            throw Problem.Field("term", "That term is over. Choose one that is not.");
        var scheme = SchemeReader.Read(request.Scheme, request.Answers.ToDictionary(answer => answer.Line, answer => answer.Level));
        var made = new SchemeCourse(
            request.Title.Trim(),
            new(term.Term.Name, request.Basis, LeastToBegin, CodeStyle.ByUnit, BeforeOpening.Listed, [])
            {
                Levels = request.Levels ?? LevelNames.Plain,
            },
            scheme,
            ClassMinutes(term.Term.Calendar)
        );
        foreach (var body in made.Bodies)
            await BodyStore.Keep(work.Connection, body);
        var edition = await CourseStore.Add(
            work.Connection,
            made.Course,
            request.Term,
            work.Access.Person.Id,
            work.Viewpoint.At,
            request.Subject.Trim()
        );
        await work.Audit("course-made", new { edition = edition.Value });
        return new(true, edition, made.Understood.Count == 0 ? "" : made.Sentence, made.Understood);
    }

    private static int ClassMinutes(SchoolCalendar calendar) =>
        calendar.Periods.IsEmpty
            ? UsualClass
            : (int)
                Math.Max(
                    1,
                    NodaTime.Period.Between(calendar.Periods[0].Start, calendar.Periods[0].End, NodaTime.PeriodUnits.Minutes).Minutes
                );

    private sealed class Rules : AbstractValidator<MakeCourseRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Title).IsTitle();
            RuleFor(request => request.Subject).IsSubject();
            RuleFor(request => request.Levels).AreLevelNames();
            RuleFor(request => request.Scheme)
                .MaximumLength(LongestScheme)
                .WithMessage(
                    $"A scheme of work has at most {LongestScheme:N0} characters. Make a course of its first half, and add the rest."
                );
            RuleFor(request => request.Scheme)
                .Must(scheme => scheme.AsSpan().Count('\n') <= SchemeReader.MostLines)
                .WithMessage($"A scheme of work has at most {SchemeReader.MostLines:N0} lines.");
            RuleFor(request => request.Answers)
                .Must(answers =>
                    answers.Count <= SchemeReader.MostLines && answers.DistinctBy(answer => answer.Line).Count() == answers.Count
                )
                .WithMessage("A line is said to be two things.");
        }
    }
}
