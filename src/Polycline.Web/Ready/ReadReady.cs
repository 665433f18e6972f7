using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Today;

namespace Polycline.Web.Ready;

/// <summary>Whether what comes in a section is ready: everything to mend, by kind.</summary>
/// <param name="From">The moment it is asked for.</param>
/// <param name="Until">The end of what was looked at.</param>
/// <param name="Items">How many items open or are due until then.</param>
/// <param name="Groups">Only those with something in them, in the order in which they are best mended.</param>
public sealed record ReadinessAnswer(
    Id<Section> Section,
    string Name,
    string Letter,
    Moment From,
    Moment Until,
    int Items,
    IReadOnlyList<ReadinessGroup> Groups
);

/// <param name="Title">What they have in common, such as <c>No rubric</c>.</param>
public sealed record ReadinessGroup(string Title, IReadOnlyList<TodayCheck> Checks);

/// <summary>Is it ready? What is missing or wrong in one section for the next two weeks, or for the rest of the term.</summary>
public static class ReadReady
{
    private const int MostPerDay = 20;
    private static readonly Duration TwoWeeks = Duration.FromDays(14);

    /// <param name="term">Until the end of the term, and what has no date too; else for two weeks.</param>
    /// <param name="perDay">A day with more dues than this has too many.</param>
    public static async Task<ReadinessAnswer> Handle(
        long edition,
        long section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop,
        bool term = false,
        int perDay = 3
    )
    {
        viewpoint.NeedsTeam("Whether a section is ready");
        if (perDay is < 1 or > MostPerDay)
            throw Problem.Field("perDay", $"Choose from 1 to {MostPerDay} a day.");
        var plan = await compiled.Teaching(access, viewpoint);
        var here = plan.Counted.Following(new(section)) ?? throw Problem.Unknown();
        var files = await database.Read(connection => ItemFileStore.ItemsWithFiles(connection, plan.Id), stop);
        var taught = await TaughtSection.Read(database, plan, access, viewpoint.At, stop);
        var end = plan.Schedule.Term.End;
        var until = term || viewpoint.At + TwoWeeks > end ? Instant.Max(end, viewpoint.At) : viewpoint.At + TwoWeeks;
        var page = new Page(plan, here, new(viewpoint.At, until), term)
        {
            Files = files,
            Students = taught.FirstOrDefault(one => one.Section.Id == here.Id)?.Students ?? [],
        };
        return new(
            here.Id,
            here.Name,
            here.Letter,
            Moment.Of(viewpoint.At, plan.Term.Zone),
            Moment.Of(until, plan.Term.Zone),
            page.Coming,
            [.. page.Groups(perDay).Where(group => group.Checks.Count > 0)]
        );
    }

    private sealed class Page(EditionPlan plan, FollowingSection section, Interval within, bool isWhole)
    {
        private readonly SectionSchedule schedule = plan.Schedule.Section(section.Section.Ref);
        private readonly PlanNames names = new(plan.Schedule);

        public required IReadOnlySet<Id<Item>> Files { get; init; }

        public required IReadOnlyList<TaughtStudent> Students { get; init; }

        public int Coming => schedule.Items.Count(here => !here.Item.Skipped && Readiness.Comes(here, within));

        public IEnumerable<ReadinessGroup> Groups(int perDay)
        {
            var lacks = Readiness.Of(schedule, item => Files.Contains(plan.IdOf(item)), within, isWhole).ToLookup(one => one.Lack);
            var checks = new TodayChecks(plan);
            yield return new("Students who cannot open what they need", [.. Stuck()]);
            foreach (var (lack, title) in Titles)
                yield return new(title, [.. lacks[lack].Select(one => Check(lack, one.Item))]);
            yield return new("Too much on one day", [.. Crowded(perDay)]);
            yield return new(
                "Dates, conditions and classes to check",
                [.. checks.Of(section).Concat(checks.OfConditions()).DistinctBy(check => check.Words)]
            );
        }

        private static readonly (Lack, string)[] Titles =
        [
            (Lack.Content, "No text and no file"),
            (Lack.Address, "Links that lead nowhere"),
            (Lack.Questions, "No questions"),
            (Lack.Options, "Nothing to choose from"),
            (Lack.Asks, "Due, with nothing to hand in"),
            (Lack.Due, "For marks, never due"),
            (Lack.Rubric, "For marks, no rubric"),
            (Lack.Place, "No date"),
            (Lack.Published, "Not published"),
        ];

        private TodayCheck Check(Lack lack, Ref<Item> item)
        {
            var id = plan.IdOf(item);
            return new(
                LackWords.Of(lack, names.Of(item.Name)),
                lack == Lack.Place
                    ? new(LackWords.Mend(lack), "dates", section.Id, id, "due", null)
                    : new(LackWords.Mend(lack), "outline", null, null, null, $"item-{id}")
            );
        }

        // What falls due while somebody it is for waits for its condition.
        private IEnumerable<TodayCheck> Stuck()
        {
            var explained = Students.Select(student => new Explain(plan.Schedule, student.Record)).ToList();
            foreach (var here in schedule.Items)
            {
                if (here.Item is not { Skipped: false, Published: true } || here.Dates?.Due.At is not { } due || !within.Contains(due))
                    continue;
                var locked = explained.Count(explain => explain.Decide(here.Item.Ref, within.Start).Deciding == ReleaseState.Locked);
                if (locked == 0)
                    continue;
                var day = Moment.Of(due, plan.Term.Zone).Words;
                yield return new(
                    $"{Counting.Counted(locked, "student", "students")} can’t open “{names.Of(here.Item.Ref.Name)}” yet, due {day}.",
                    new("see who, and why", "conditions", null, null, null, here.Item.Ref.Name)
                );
            }
        }

        private IEnumerable<TodayCheck> Crowded(int most)
        {
            foreach (var (day, due) in Readiness.Crowded(schedule, at => plan.Term.Local(at).Date, within, most))
                yield return new(
                    $"{due.Count} are due on {Moment.InWords(day, day)}: "
                        + $"{Counting.Joined([.. due.Select(item => names.Of(item.Name))], "and")}.",
                    new("move one of them", "dates", section.Id, plan.IdOf(due[^1]), "due", null)
                );
        }
    }
}
