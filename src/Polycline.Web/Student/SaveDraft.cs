using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Text">Up to 100,000 characters.</param>
/// <param name="Version">The version that was read or saved last; 0: there was none.</param>
public sealed record SaveDraftRequest(Id<Item> Item, string Text, long Version);

/// <param name="Version">Of the draft as it was saved.</param>
public sealed record SavedAnswer(long Version, Moment At) : IAnswer<SavedAnswer>
{
    public SavedAnswer AsPreview() => this;
}

/// <summary>Keeps what a student is writing.</summary>
public sealed class SaveDraft : IWorkCommand<SaveDraftRequest, CourseOfStudents, SavedAnswer>
{
    public const int Longest = 100_000;

    public static string Name => "save-draft";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<SaveDraftRequest> Validator { get; } = new Rules();

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, SaveDraftRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<SavedAnswer> Do(WorkContext work, CourseOfStudents students, SaveDraftRequest request)
    {
        var (connection, at) = (work.Connection, work.Viewpoint.At);
        var course = await students.SeenBy(connection, work.Access, work.Viewpoint);
        // What has closed or was taken away meanwhile keeps what was being written; what has not opened takes nothing.
        var sight = course.See(request.Item);
        if (sight.Kind != ItemKind.Task || !(sight.MayWork || sight.State is ReleaseState.Closed or ReleaseState.Withdrawn))
            throw Problem.NotOpen("Nothing was saved. What you wrote is still on your page.");
        if (await WorkStore.SaveDraft(connection, course.Oneself, request.Item, request.Text, request.Version, at) is { } version)
        {
            // The first thing written is a fact: what someone has begun stays readable to them.
            if (version == 1)
                await WorkStore.Record(connection, course.Oneself, request.Item, course.Section, "begun", at, work.Key);
            return new(version, Moment.Of(at, course.Zone));
        }
        var (_, draft) = await WorkStore.Of(connection, course.Oneself, request.Item, at);
        throw Problem.Changed(new("text", request.Text, draft?.Text, draft?.Version, null, Moment.Of(draft?.SavedAt, course.Zone)));
    }

    private sealed class Rules : AbstractValidator<SaveDraftRequest>
    {
        public Rules() =>
            RuleFor(request => request.Text)
                .MaximumLength(Longest)
                .WithMessage($"This is too long: {Longest:N0} characters at most. Make it shorter, or hand in part of it.");
    }
}
