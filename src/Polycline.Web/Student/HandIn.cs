using FluentValidation;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Text">Up to 100,000 characters; it may be empty where there is something else.</param>
/// <param name="PressedAt">When it was first sent, as the page knows it, in UTC; null: just now. It is shown, and decides nothing.</param>
/// <param name="Files">Those that go with it, at most 30, in their order; null: none.</param>
/// <param name="Links">Addresses of pages, at most 20; null: none.</param>
/// <param name="Entries">Those of a log, at most 400; null: none.</param>
/// <param name="Copies">What was written in copies that are texts or tables; those not named keep what was written in them.</param>
/// <param name="Judged">What they say of it by its rubric, where that is asked for; what no longer fits the rubric is left out.</param>
public sealed record HandInRequest(
    Id<Item> Item,
    string Text,
    string? PressedAt,
    IReadOnlyList<ListedFile>? Files = null,
    IReadOnlyList<string>? Links = null,
    IReadOnlyList<LogEntry>? Entries = null,
    IReadOnlyList<CopyText>? Copies = null,
    IReadOnlyList<LevelGiven>? Judged = null
) : IWritten;

/// <param name="HandedIn">False: the item had closed. It is kept as a draft, and the team sees it.</param>
/// <param name="N">Which hand-in of it this is; 0: none.</param>
public sealed record HandInAnswer(bool HandedIn, int N, Moment At) : IAnswer<HandInAnswer>
{
    public HandInAnswer AsPreview() => this with { HandedIn = false };
}

/// <summary>Hands in. The time at which it arrives counts; sent again under the same key it is done once.</summary>
public sealed class HandIn : IWorkCommand<HandInRequest, CourseOfStudents, HandInAnswer>
{
    private static readonly Duration Noticeable = Duration.FromMinutes(1);

    public static string Name => "hand-in";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<HandInRequest> Validator { get; } = new Rules();

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, HandInRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<HandInAnswer> Do(WorkContext work, CourseOfStudents students, HandInRequest request)
    {
        var (connection, now) = (work.Connection, work.Viewpoint.At);
        var claimed = Claimed(request.PressedAt, now);
        var course = await students.SeenBy(connection, work.Access, work.Viewpoint);
        var sight = course.See(request.Item);
        var at = Moment.Of(now, course.Zone);
        if (sight is { MayWork: true, Asks.Way: not AskedWay.Tick })
            return new(
                true,
                await HandInStore.HandIn(
                    connection,
                    course.Oneself,
                    request.Item,
                    course.Section,
                    await WhatIsWritten.KeepWhole(work, course.Oneself, request.Item, sight, request),
                    now,
                    claimed,
                    work.Key,
                    course.HandsInWith(request.Item)
                ),
                at
            );
        if (sight.State != ReleaseState.Closed || sight.Asks is null or { Way: AskedWay.Tick })
            throw Problem.NotOpen("Nothing was handed in. What you wrote is still on your page.");
        var written = await WhatIsWritten.KeepWhole(work, course.Oneself, request.Item, sight, request);
        await WorkStore.KeepMissed(connection, course.Oneself, request.Item, written, now, claimed);
        return new(false, 0, at);
    }

    // Told only where it makes a difference.
    private static Instant? Claimed(string? pressed, Instant now)
    {
        if (pressed is null)
            return null;
        var claimed =
            InstantPattern.ExtendedIso.Parse(pressed) is { Success: true, Value: var moment } && Bounds.Holds(moment)
                ? moment
                : throw Problem.Field("pressedAt", "This must be a moment in UTC, such as 2026-10-08T09:15:00Z.");
        return now - claimed > Noticeable ? claimed : null;
    }

    private sealed class Rules : AbstractValidator<HandInRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Text)
                .Must(
                    (request, text) =>
                        Bounds.IsVisible(text) || request.Files?.Count > 0 || request.Links?.Count > 0 || request.Entries?.Count > 0
                )
                .WithMessage("There is nothing to hand in yet: write something, or add a file or a link first.");
            this.AreWritten();
        }
    }
}
