using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Today;

namespace Polycline.Web.Today;

/// <summary>Something to check, as a sentence, with where it is mended.</summary>
public sealed record TodayCheck(string Words, TodayMend Mend);

/// <summary>The smallest mend of something to check.</summary>
/// <param name="Words">What is to be done, such as <c>set when it is due</c>.</param>
/// <param name="Screen">
/// Where: <c>dates</c>, <c>outline</c>, <c>sections</c>, <c>conditions</c>, <c>work</c> or <c>one-student</c>; null: nowhere here.
/// </param>
/// <param name="Section">In which section; null: in the course.</param>
/// <param name="Item">The item whose date it is, on <c>dates</c>; of which work is read, on <c>work</c>.</param>
/// <param name="Field">Which date, on <c>dates</c>; what is shown of the section, on <c>sections</c>.</param>
/// <param name="Row">
/// Such as <c>item-12</c> on <c>outline</c>, <c>lesson-7</c> on <c>sections</c>, <c>student-9</c> on <c>one-student</c> and <c>work</c>.
/// </param>
public sealed record TodayMend(string Words, string? Screen, Id<Section>? Section, Id<Item>? Item, string? Field, string? Row);

/// <summary>What was noticed, each with its mend.</summary>
internal sealed class TodayChecks(EditionPlan plan)
{
    private readonly FindingWords words = new(new PlanNames(plan.Schedule).Of, plan.Edition.Basis, plan.Edition.Levels);
    private readonly ILookup<string, PlanFinding> ofPlan = ConditionChecks
        .Everywhere(plan.Schedule)
        .ToLookup(finding => finding.Section ?? "");

    /// <summary>In the course itself.</summary>
    /// <param name="nameOf">The students whom the viewer may know, by person; others are not named, and so not told of.</param>
    /// <param name="on">Who is in two sections after that date: one whose last day is that day is mended.</param>
    public IEnumerable<TodayCheck> OfCourse(Func<Id<Person>, string?> nameOf, LocalDate on) =>
        ofPlan[""].Select(finding => new TodayCheck(words.Of(finding), MendOf(finding))).Concat(Twice(nameOf, on));

    /// <summary>In the conditions of the course itself.</summary>
    public IEnumerable<TodayCheck> OfConditions() => ofPlan[""].Select(finding => new TodayCheck(words.Of(finding), MendOf(finding)));

    /// <summary>Everything that was noticed of units, lessons and items, with the rows it is about.</summary>
    public IEnumerable<RowCheck> ByRow() =>
        ofPlan
            .SelectMany(finding => finding)
            .Select(finding => new RowCheck(RowsOf(finding.Targets), null, words.Of(finding), MendOf(finding)))
            .Concat(
                plan.Sections.SelectMany(section =>
                {
                    var schedule = plan.Schedule.Section(section.Section.Ref);
                    return schedule.Findings.Select(finding => new RowCheck(
                        RowsOf([finding.Target]),
                        section.Name,
                        words.Of(finding),
                        MendOf(finding, section, schedule)
                    ));
                })
            )
            .Where(check => check.Rows.Count > 0);

    private List<string> RowsOf(IEnumerable<string> targets) => [.. targets.Select(RowOf).OfType<string>()];

    /// <summary>Texts that speak of a teacher who is not on the team.</summary>
    public static IEnumerable<TodayCheck> AboutOthers(EditionPlan plan, IReadOnlyList<AboutTeacherRow> texts) =>
        texts
            .Select(text => (Row: plan.Row(text.Item), text.Whom))
            .Where(text => text.Row is not null && plan.IsHere(text.Row))
            .Select(text => new TodayCheck(
                $"“{plan.TitleOf(text.Row!.Lineage)}” is about {text.Whom ?? "whoever wrote it"}, who is not on the team.",
                new("read it, and say that it is about you", "outline", null, null, null, $"item-{text.Row.Id}")
            ));

    private IEnumerable<TodayCheck> Twice(Func<Id<Person>, string?> nameOf, LocalDate on)
    {
        var places = plan
            .Sections.SelectMany(section =>
                section.Listed.Where(listed => listed.To is null || listed.To > on).Select(listed => (Section: section, Listed: listed))
            )
            .ToLookup(place => place.Listed.Person);
        foreach (var person in places.Where(person => person.Count() > 1 && nameOf(person.Key) is not null))
        {
            var shared = person
                .Where(one => person.Any(other => other.Section.Id != one.Section.Id && Meets(one.Listed, other.Listed)))
                .Select(one => one.Section)
                .DistinctBy(section => section.Id)
                .ToList();
            // Where the home section is said, there is nothing to mend.
            if (shared.Count > 1 && !shared.Any(section => plan.People.HomeOf(person.Key)?.Section == section.Id))
                yield return new(
                    $"{nameOf(person.Key)} is in {Core.Wording.Counting.Joined([.. shared.Select(section => section.Name)], "and")} "
                        + $"at the same time; the dates of {shared[0].Name} count.",
                    new("choose the home section, or end one of the two", "one-student", shared[0].Id, null, null, $"student-{person.Key}")
                );
        }

        static bool Meets(ListedStudent one, ListedStudent other) =>
            (one.From is null || other.To is null || one.From <= other.To)
            && (one.To is null || other.From is null || other.From <= one.To);
    }

    /// <summary>In one section.</summary>
    public IEnumerable<TodayCheck> Of(FollowingSection section)
    {
        var schedule = plan.Schedule.Section(section.Section.Ref);
        // What may leave somebody stuck comes before what is out of place.
        return ofPlan[section.Section.Ref.Name]
            .Select(finding => new TodayCheck(words.Of(finding), MendOf(finding)))
            .Concat(Lacking(section, schedule))
            .Concat(
                schedule
                    .Findings.Where(finding => !IsOfLacking(finding, schedule))
                    .Select(finding => new TodayCheck(words.Of(finding), MendOf(finding, section, schedule)))
            );
    }

    // A course that does not fit is one cause, however many lessons and items it leaves without a place.
    private IEnumerable<TodayCheck> Lacking(FollowingSection section, SectionSchedule schedule)
    {
        if (schedule.Forecast.Lacking == 0)
            yield break;
        var items = schedule.Findings.Count(finding => finding.Code == FindingCode.BeyondTerm && IsOfLacking(finding, schedule));
        var lack = plan.Edition.Basis.Counted(schedule.Forecast.Lacking);
        var over = schedule.Forecast.Lessons.Count(lesson => lesson.Overflow > 0);
        var outside =
            items == 0 ? "" : $", and {plan.Edition.Levels.Item.Counted(items)} {(items == 1 ? "falls" : "fall")} out of the term";
        yield return new(
            $"{section.Name} is {lack} short: {plan.Edition.Levels.Lesson.Counted(over)} {(over == 1 ? "does" : "do")} not fit{outside}.",
            new("make it fit: drop, shorten or move something", "sections", section.Id, null, "lessons", null)
        );
    }

    // Lessons that have no room, and items out of the term because of theirs, or of what comes just before its end.
    private static bool IsOfLacking(Finding finding, SectionSchedule schedule) =>
        schedule.Forecast.Lacking > 0
        && (
            finding.Code == FindingCode.Overflow
            || (
                finding.Code == FindingCode.BeyondTerm
                && schedule.Item(new(finding.Target)) is { Dates: { } dates }
                && !new[] { dates.Opens, dates.Due, dates.Closes }.Any(date => date is { Layer: Layer.Section, IsGiven: true })
            )
        );

    private TodayMend MendOf(Finding finding, FollowingSection section, SectionSchedule schedule)
    {
        return finding.Code switch
        {
            FindingCode.Overflow => There("drop, shorten or move something for this section", "lessons"),
            FindingCode.PinMissed or FindingCode.AfterPin => There("put its date back", "lessons") with { Row = RowOf(finding.Target) },
            FindingCode.NoMeetings => There("give it its timetable", "timetable"),
            FindingCode.MeetingOverlap => There("move or cancel one of them", "classes"),
            FindingCode.ChangeIdle => There("put that change back", "classes"),
            FindingCode.ClosesBeforeDue => Date("set when it closes", "closes"),
            FindingCode.BeyondTerm => Date("set another date here, or drop it", Outside(schedule, finding.Target)),
            _ => Date("set when it is due", "due"),
        };

        TodayMend There(string what, string shows) => new(what, "sections", section.Id, null, shows, null);

        TodayMend Date(string what, string field) =>
            plan.Find(finding.Target) is { Level: Level.Item } item
                ? new(what, "dates", section.Id, item.As<Item>(), field, null)
                : There(what, "lessons");
    }

    private TodayMend MendOf(PlanFinding finding) =>
        finding.Code switch
        {
            FindingCode.DoubleEnrolment => new("choose a home section, or end one of the two", null, null, null, null, null),
            FindingCode.SpecialDayIdle => new("ask the office to remove that day", null, null, null, null, null),
            // What hangs on a score stands in the others; the first is what the score is in.
            FindingCode.BranchGap or FindingCode.BranchOverlap => Row(
                "change a condition",
                finding.Targets.ElementAtOrDefault(1) ?? finding.Targets[0]
            ),
            FindingCode.ChoiceUntied => Row("say when it opens", finding.Targets[0]),
            FindingCode.ChoiceGap => Row("look at the choice", finding.Targets[0]),
            _ => Row("change its condition", finding.Targets[0]),
        };

    private TodayMend Row(string what, string target) => new(what, "outline", null, null, null, RowOf(target));

    private string? RowOf(string target) => plan.Find(target) is { } row ? $"{EnumNames.Of(row.Level)}-{row.Id}" : null;

    // Which date it is: one outside the term, one that ran out of it and stands at its very end, or one that has no place.
    private string Outside(SectionSchedule schedule, string target)
    {
        if (schedule.Item(new(target))?.Dates is not { } dates)
            return "opens";
        var end = plan.Term.Last + new LocalTime(23, 59);
        bool IsOutside(ItemDate date) =>
            date.IsUnresolved || (date.At is { } at && plan.Term.Local(at) is var local && (local.Date < plan.Term.First || local >= end));
        return new[] { ("opens", dates.Opens), ("due", dates.Due), ("closes", dates.Closes) }
            .Where(date => IsOutside(date.Item2))
            .Select(date => date.Item1)
            .FirstOrDefault("due");
    }
}
