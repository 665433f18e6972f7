using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Text">Up to 100,000 characters.</param>
/// <param name="Version">The version that was read or saved last; 0: there was none.</param>
/// <param name="Files">Those that go with it, at most 30, in their order; null: none.</param>
/// <param name="Links">Addresses of pages, at most 20; null: none.</param>
/// <param name="Entries">Those of a log, at most 400; null: none.</param>
/// <param name="Copies">What was written in copies that are texts or tables; those not named keep what was written in them.</param>
/// <param name="Judged">What they say of it by its rubric, where that is asked for; what no longer fits the rubric is left out.</param>
public sealed record SaveDraftRequest(
    Id<Item> Item,
    string Text,
    long Version,
    IReadOnlyList<ListedFile>? Files = null,
    IReadOnlyList<string>? Links = null,
    IReadOnlyList<LogEntry>? Entries = null,
    IReadOnlyList<CopyText>? Copies = null,
    IReadOnlyList<LevelGiven>? Judged = null
) : IWritten;

/// <param name="Version">Of the draft as it was saved.</param>
/// <param name="Files">Its files, each now one of the student's own.</param>
/// <param name="StillAsked">What is asked for and is not there yet, in words.</param>
public sealed record SavedAnswer(long Version, Moment At, IReadOnlyList<FileAnswer> Files, IReadOnlyList<string> StillAsked)
    : IAnswer<SavedAnswer>
{
    public SavedAnswer AsPreview() => this;
}

/// <summary>Keeps what a student is writing.</summary>
public sealed class SaveDraft : IWorkCommand<SaveDraftRequest, CourseOfStudents, SavedAnswer>
{
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
        if (
            sight.Asks is null or { Way: AskedWay.Tick }
            || !(sight.MayWork || sight.State is ReleaseState.Closed or ReleaseState.Withdrawn)
        )
            throw Problem.NotOpen("Nothing was saved. What you wrote is still on your page.");
        var written = await WhatIsWritten.Keep(work, course.Oneself, request.Item, sight, request);
        if (await WorkStore.SaveDraft(connection, course.Oneself, request.Item, written, request.Version, at) is { } version)
        {
            // The first thing written is a fact: what someone has begun stays readable to them.
            if (version == 1)
                await WorkStore.Record(connection, course.Oneself, request.Item, course.Section, "begun", at, work.Key);
            var own = await WorkStore.Of(connection, course.Oneself, request.Item, at);
            var files = own.Listed(own.Draft?.Files);
            return new(
                version,
                Moment.Of(at, course.Zone),
                WorkFiles.Answer(files, work.Section.Value, request.Item),
                StillAsked.Of(
                    sight.Asks,
                    written.Text,
                    files,
                    written.Links,
                    written.Entries,
                    sight.Rubric is null || written.Judged?.IsWhole == true
                )
            );
        }
        var (_, draft) = await WorkStore.Of(connection, course.Oneself, request.Item, at);
        throw Problem.Changed(new("text", request.Text, draft?.Text, draft?.Version, null, Moment.Of(draft?.SavedAt, course.Zone)));
    }

    private sealed class Rules : AbstractValidator<SaveDraftRequest>
    {
        public Rules() => this.AreWritten();
    }
}
