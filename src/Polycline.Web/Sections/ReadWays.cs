using System.Collections.Immutable;
using Microsoft.AspNetCore.Mvc;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Sections;

/// <summary>What can be done about lost classes, beside moving everything on. An empty list: there is no such way.</summary>
/// <param name="Spare">What would be taught in spare classes, and when.</param>
/// <param name="Drop">The optional lessons that could be dropped, in order.</param>
/// <param name="Shorten">What would be shortened.</param>
public sealed record WaysAnswer(IReadOnlyList<WayLesson> Spare, IReadOnlyList<WayLesson> Drop, IReadOnlyList<WayLesson> Shorten);

/// <param name="When">The class it would be taught in; of one to drop or to shorten, the class it starts in as things are.</param>
/// <param name="By">How much of it goes, in classes or minutes; 0: nothing.</param>
/// <param name="Meant">It is what would be taken unless another is chosen.</param>
public sealed record WayLesson(Id<Lesson> Id, string Title, string When, int By, bool Meant);

/// <summary>Reads what can be done about the classes of a section from one to another.</summary>
public static class ReadWays
{
    private static readonly LocalDateTimePattern Pattern = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm");

    /// <param name="from">Where the first lost class starts, local: <c>2026-10-14T10:40</c>.</param>
    /// <param name="to">Where the last one starts.</param>
    public static async Task<WaysAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        [FromQuery] Id<Section> section,
        [FromQuery] string from,
        [FromQuery] string to
    )
    {
        viewpoint.NeedsTeam("What can be done about a lost class");
        return Of(await compiled.Edition(access), section, Moment("from", from), Moment("to", to));

        static LocalDateTime Moment(string field, string text) =>
            Pattern.Parse(text) is { Success: true, Value: var value }
                ? value
                : throw Problem.Field(field, "Write it as 2026-10-14T10:40.");
    }

    /// <summary>The answer for an edition: a pure function.</summary>
    public static WaysAnswer Of(EditionPlan plan, Id<Section> section, LocalDateTime from, LocalDateTime to)
    {
        var following = plan.Sections.FirstOrDefault(one => one.Id == section) ?? throw Problem.Unknown("section");
        var schedule = plan.Schedule.Section(following.Section.Ref);
        ImmutableArray<int> ordinals =
        [
            .. schedule
                .Meetings.Meetings.Where(meeting => (meeting.Date + meeting.Start) is var start && start >= from && start <= to)
                .Select(meeting => meeting.Ordinal),
        ];
        if (ordinals.IsEmpty)
            throw Problem.Field("from", $"{following.Name} has no class then.");
        var lost = new LostClasses(schedule, plan.Edition.Basis, ordinals);
        var dropped = lost.Drop().Select(change => change.Lesson).ToHashSet();
        return new(
            [.. lost.UseSpare().Select(use => Lesson(use.Change.Lesson, use.At.StartsAt, 0, true))],
            [.. lost.Droppable.Select(lesson => Lesson(lesson.Ref, StartOf(lesson.Ref), lesson.Length, dropped.Contains(lesson.Ref)))],
            [
                .. lost.Shorten(lesson => plan.Row(lesson).Shortest)
                    .Select(change =>
                        Lesson(change.Lesson, StartOf(change.Lesson), schedule.Lesson(change.Lesson)!.Length - change.Length!.Value, true)
                    ),
            ]
        );

        WayLesson Lesson(Ref<Lesson> lesson, Instant? at, int by, bool meant) =>
            new(plan.IdOf(lesson), plan.TitleOf(lesson.Name), MomentWords.InWords(at, plan.Term.Zone) ?? "", by, meant);

        Instant? StartOf(Ref<Lesson> lesson) => schedule.Forecast.Lessons.FirstOrDefault(placed => placed.Lesson == lesson)?.StartsAt;
    }
}

/// <summary>Ways to make up for lost classes, in words.</summary>
internal static class WaysWords
{
    public static string NoSpare(EditionPlan plan) =>
        $"There are not enough spare classes after it to teach its {plan.Edition.Levels.Lesson.One} "
        + $"in, or part of the {plan.Edition.Levels.Lesson.One} is taught in another class.";

    public static string NoneToDrop(EditionPlan plan) =>
        $"No optional {plan.Edition.Levels.Lesson.One} after it is left that could be dropped for it.";

    public static string NoneShorter(EditionPlan plan) =>
        $"No {plan.Edition.Levels.Lesson.One} after it can be taught in fewer classes. Say in the outline which can.";

    /// <summary><c>“Clouds” is taught in the spare class on 4 Nov instead</c>.</summary>
    public static string Spare(EditionPlan plan, ImmutableArray<SpareUse> uses) =>
        $"{Titles(plan, uses.Select(use => use.Change))} "
        + $"{(uses.Length == 1 ? "is taught in the spare class" : "are taught in the spare classes")} "
        + $"on {Counting.Joined([.. uses.Select(use => Moment.InWords(use.At.Date))], "and")} instead";

    public static string Titles(EditionPlan plan, IEnumerable<Adjustment.OfLesson> lessons) =>
        Counting.Joined([.. lessons.Select(lesson => $"“{plan.TitleOf(lesson.Lesson.Name)}”")], "and");
}
