using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.CannotOpen;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.People;
using Polycline.Data.Today;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Work;

namespace Polycline.Web.Today;

/// <param name="Unit">What a length is told in: <c>classes</c> or <c>minutes</c>.</param>
/// <param name="Sections">In order of name.</param>
/// <param name="Course">What was noticed in the course itself.</param>
/// <param name="Changed">What others changed since the viewer last looked, the latest first.</param>
public sealed record TodayAnswer(
    Moment Moment,
    bool CanChange,
    string Unit,
    IReadOnlyList<TodaySection> Sections,
    IReadOnlyList<TodayCheck> Course,
    IReadOnlyList<TodayChange> Changed
);

/// <param name="Words">Goes on a sentence that starts with the author's name.</param>
public sealed record TodayChange(Id<Batch> Batch, string Author, string Words, Moment At);

public sealed record TodaySection
{
    public required Id<Section> Id { get; init; }

    public required string Name { get; init; }

    public required string Letter { get; init; }

    /// <summary>Of the moment's day.</summary>
    public required IReadOnlyList<TodayClass> Classes { get; init; }

    /// <summary>What opens and falls due from the moment on, for a week.</summary>
    public required IReadOnlyList<TodayDate> Comes { get; init; }

    /// <summary>Lessons that are over, and of which nothing is noted.</summary>
    public required IReadOnlyList<TodayLesson> ToConfirm { get; init; }

    /// <summary>What was noticed there.</summary>
    public required IReadOnlyList<TodayCheck> ToCheck { get; init; }

    /// <summary>How many pieces are waiting for the viewer; null where they may not read this section's work.</summary>
    public required int? Waiting { get; init; }

    /// <summary>Since when the first of them waits.</summary>
    public required string? LongestSince { get; init; }

    /// <summary>What the viewer can open by giving work back, by item; what helps most students first.</summary>
    public required IReadOnlyList<FreeingWork> Freeing { get; init; }

    /// <summary>What students have said they cannot open, the oldest first.</summary>
    public required IReadOnlyList<TodayCannotOpen> CannotOpen { get; init; }

    /// <summary>Who has nothing open while something remains, by reason.</summary>
    public required IReadOnlyList<NothingOpen> NothingOpen { get; init; }
}

public sealed record TodayClass(string Start, string End, string Lesson, bool IsOver);

/// <param name="What"><c>opens</c> or <c>is due</c>.</param>
public sealed record TodayDate(string What, Id<Item> Item, string Code, string Title, Moment At, string Relative);

public sealed record TodayLesson
{
    public required Id<Lesson> Lesson { get; init; }

    public required string Title { get; init; }

    public required string Ended { get; init; }

    /// <summary>The number of the class in which it was to end.</summary>
    public required int Class { get; init; }

    /// <summary>How much it will have taken by the end of that class.</summary>
    public required int Length { get; init; }

    /// <summary>Of what is noted of it already; 0: nothing is.</summary>
    public required long Version { get; init; }

    /// <summary>The lesson after it, for where one went further; null: there is none.</summary>
    public required Id<Lesson>? Next { get; init; }

    public required string? NextTitle { get; init; }

    public required long NextVersion { get; init; }
}

/// <summary>Reads what needs a team member on the moment's day.</summary>
public static class ReadToday
{
    private const int MostChanges = 60;
    private static readonly Duration Ahead = Duration.FromDays(7);

    public static async Task<TodayAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("What needs you");
        var plan = (await compiled.Teaching(access, viewpoint)).Counted;
        var rows = await database.Read(
            connection => TodayStore.Read(connection, plan, access.Person.Id, access.IsLead, viewpoint.At, MostChanges),
            stop
        );
        var answer = Of(
            plan,
            viewpoint,
            rows.Mine,
            rows.Pieces,
            rows.Students,
            rows.Records,
            rows.CannotOpen,
            [
                .. rows.Changes.Where(row =>
                    row.Id.Value > rows.Seen
                    && row.Author != access.Person.Id
                    && row.At <= viewpoint.At
                    && row.Undoes is null
                    && row.UndoneBy is null
                ),
            ]
        );
        return answer with { Course = [.. answer.Course, .. TodayChecks.AboutOthers(plan, rows.AboutOthers)] };
    }

    /// <summary>The answer for an edition at a moment: a pure function.</summary>
    public static TodayAnswer Of(
        EditionPlan plan,
        Viewpoint viewpoint,
        IReadOnlySet<Id<Section>> mine,
        IReadOnlyList<PieceRow> pieces,
        IReadOnlyList<LensPlaceRow> students,
        IReadOnlyDictionary<Id<Person>, StudentRecord> records,
        IReadOnlyList<CannotOpenRow> cannotOpen,
        IReadOnlyList<HistoryRow> changed
    )
    {
        var nameOf = students
            .DistinctBy(row => row.Student)
            .ToDictionary(row => new Ref<Core.Courses.Student>($"{row.Student}"), row => row.Name);
        var waits = new WaitingTold(plan, WhoWaits.Of(plan.Schedule, [.. records.Values], viewpoint.At), nameOf.GetValueOrDefault);
        var bySection = pieces
            .Where(piece => piece.ReturnedAt is null && plan.Row(piece.Item) is not null)
            .ToLookup(piece => piece.Section);
        var (checks, reasons) = (new TodayChecks(plan), new CannotOpenReasons(plan, viewpoint));
        return new(
            Moment.Of(viewpoint.At, plan.Term.Zone),
            plan.State != EditionState.Resting && viewpoint.TakesCommands,
            plan.Edition.Basis == Basis.Meetings ? "classes" : "minutes",
            [.. plan.Sections.Select(SectionOf)],
            [.. checks.OfCourse(person => nameOf.GetValueOrDefault(new($"{person}")), plan.Term.Local(viewpoint.At).Date)],
            [.. changed.Select(row => new TodayChange(row.Id, row.AuthorName, row.Words, Moment.Of(row.At, plan.Term.Zone)))]
        );

        TodaySection SectionOf(FollowingSection section)
        {
            var schedule = plan.Schedule.Section(section.Section.Ref);
            var (local, zone) = (plan.Term.Local(viewpoint.At), plan.Term.Zone);
            var inClass = schedule
                .Forecast.Lessons.SelectMany(lesson => lesson.Ordinals.Select(ordinal => (ordinal, lesson.Lesson)))
                .ToLookup(pair => pair.ordinal, pair => schedule.Lesson(pair.Lesson)!.Title);
            var own = bySection[section.Id].ToList();
            return new()
            {
                Id = section.Id,
                Name = section.Name,
                Letter = section.Letter,
                Classes =
                [
                    .. schedule
                        .Meetings.Meetings.Where(meeting => meeting.Date == local.Date)
                        .Select(meeting => new TodayClass(
                            $"{meeting.Start:HH:mm}",
                            $"{meeting.End:HH:mm}",
                            Counting.Joined([.. inClass[meeting.Ordinal]], "and"),
                            meeting.EndsAt <= viewpoint.At
                        )),
                ],
                Comes = [.. Comes(plan, schedule, viewpoint.At)],
                ToConfirm = [.. ToConfirm(plan, section, schedule, viewpoint.At)],
                ToCheck = [.. checks.Of(section)],
                Waiting = mine.Contains(section.Id) ? own.Count : null,
                LongestSince = own.Count == 0 ? null : MomentWords.Relative(own.Min(piece => piece.HandedInAt), viewpoint.At, zone),
                Freeing = mine.Contains(section.Id) ? waits.Freeing(section) : [],
                CannotOpen =
                [
                    .. cannotOpen
                        .Where(row => row.Section == section.Id && mine.Contains(section.Id) && records.ContainsKey(row.Person))
                        .Select(row =>
                            nameOf.GetValueOrDefault(row.Person.InPlan()) is { } name ? reasons.Of(row, name, records[row.Person]) : null
                        )
                        .OfType<TodayCannotOpen>(),
                ],
                NothingOpen = waits.Nothing(section),
            };
        }
    }

    private static IEnumerable<TodayDate> Comes(EditionPlan plan, SectionSchedule schedule, Instant at) =>
        schedule
            .Items.Where(item => item.Dates is not null && item.Item.Published && !item.Item.Held)
            .SelectMany(item =>
                new (string What, Instant? At, CourseItem Of)[]
                {
                    ("opens", item.Dates!.Opens.At, item.Item),
                    ("is due", item.Dates.Due.At, item.Item),
                }
            )
            .Where(date => date.At > at && date.At <= at + Ahead)
            .OrderBy(date => date.At)
            .ThenBy(date => date.What, StringComparer.Ordinal)
            .Select(date => new TodayDate(
                date.What,
                plan.IdOf(date.Of.Ref),
                plan.Schedule.CodeOf[date.Of.Ref],
                date.Of.Item.Title,
                Moment.Of(date.At!.Value, plan.Term.Zone),
                MomentWords.Relative(date.At.Value, at, plan.Term.Zone)
            ));

    // What is over and not noted, up to the first that is to come.
    private static IEnumerable<TodayLesson> ToConfirm(EditionPlan plan, FollowingSection section, SectionSchedule schedule, Instant at)
    {
        var noted = plan.Taught.Where(row => row.Section == section.Id).ToDictionary(row => row.Lesson);
        var lessons = schedule.Forecast.Lessons.Where(lesson => plan.Find(lesson.Lesson.Name) is not null).ToList();
        for (var n = 0; n < lessons.Count; n++)
        {
            // One that was not finished is asked about again after each class it goes on in, until it is done.
            if (
                lessons[n] is not { EndsAt: { } ended } lesson
                || ended > at
                || noted.GetValueOrDefault(lesson.Lesson.Name) is var record && record is not null && (record.Done || ended <= record.At)
            )
                continue;
            var next = n + 1 < lessons.Count ? lessons[n + 1].Lesson : (Ref<Lesson>?)null;
            var length = record is null ? schedule.Lesson(lesson.Lesson)!.Length : record.Took + (record.Left ?? 1);
            yield return new()
            {
                Lesson = plan.IdOf(lesson.Lesson),
                Title = schedule.Lesson(lesson.Lesson)!.Title,
                Ended = Moment.Of(ended, plan.Term.Zone).Words,
                Class = lesson.End!.Ordinal,
                Length = length,
                Version = record?.Version ?? 0,
                Next = next is { } following ? plan.IdOf(following) : null,
                NextTitle = next is { } then ? schedule.Lesson(then)!.Title : null,
                NextVersion = next is { } after ? noted.GetValueOrDefault(after.Name)?.Version ?? 0 : 0,
            };
        }
    }
}
