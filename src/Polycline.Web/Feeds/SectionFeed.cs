using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Formats;

namespace Polycline.Web.Feeds;

/// <summary>What a calendar tells of one section: its classes with their lessons, and what opens and falls due. A pure function.</summary>
public static class SectionFeed
{
    /// <summary>Everything, for the team.</summary>
    public static IEnumerable<FeedEvent> ForTeam(EditionPlan plan, FollowingSection section)
    {
        var schedule = plan.Schedule.Section(section.Section.Ref);
        var items = schedule
            .Items.Where(item => item.Dates is not null)
            .Select(item =>
                (item.Item.Ref, Name: $"{plan.Schedule.CodeOf[item.Item.Ref]} {item.Item.Item.Title}", item.Dates!.Opens, item.Dates.Due)
            );
        return Classes(plan, section, _ => true, $"{section.Name}: ", null, section.EndedOn)
            .Concat(
                items
                    .SelectMany(item =>
                        Dates(section, item.Ref, $"{section.Name}: {item.Name}", item.Opens.IsGiven ? item.Opens.At : null, item.Due.At)
                    )
                    .Where(one => Within(plan.Term, one.StartsAt, null, section.EndedOn))
            );
    }

    /// <summary>What one student may see of it at a moment; whatever is hidden leaves no trace.</summary>
    /// <param name="from">With <paramref name="to"/>: the dates between which the section lists them.</param>
    public static IEnumerable<FeedEvent> ForStudent(
        EditionPlan plan,
        FollowingSection section,
        StudentRecord record,
        Instant at,
        LocalDate? from,
        LocalDate? to
    )
    {
        var schedule = plan.Schedule.Section(section.Section.Ref);
        var sights = new Sights(plan.Schedule, record).At(at);
        return Classes(plan, section, lesson => IsTold(schedule, lesson, at), "", from, to)
            .Concat(
                sights
                    .SelectMany(sight => Dates(section, sight.Item, $"{sight.Code} {sight.Title}", sight.Opens, sight.Due))
                    .Where(one => Within(plan.Term, one.StartsAt, from, to))
            );
    }

    /// <summary>A student of a section about whom nothing is known: their calendar is what everyone may be told.</summary>
    public static StudentRecord Nobody(FollowingSection section)
    {
        var nobody = new Ref<Core.Courses.Student>("nobody");
        return new(
            nobody,
            new HashSet<string>(),
            null,
            [(section.Section.Ref, new Enrolment(nobody))],
            new Dictionary<Ref<Item>, ForOneStudent>(),
            new([])
        );
    }

    // A lesson that students are told of: published, not kept back, without a condition; where its unit is unseen before it opens, once it
    // has begun.
    private static bool IsTold(SectionSchedule schedule, PlacedLesson placed, Instant at) =>
        schedule.Lesson(placed.Lesson)
            is { Published: true, Held: false, Gate: null, Unit: { Published: true, Held: false, Gate: null } unit }
        && (unit.Before == BeforeOpening.Listed || placed.StartsAt <= at);

    private static IEnumerable<FeedEvent> Classes(
        EditionPlan plan,
        FollowingSection section,
        Func<PlacedLesson, bool> isTold,
        string before,
        LocalDate? from,
        LocalDate? to
    )
    {
        var schedule = plan.Schedule.Section(section.Section.Ref);
        var lessons = schedule
            .Forecast.Lessons.Where(isTold)
            .SelectMany(lesson => lesson.Ordinals.Select(ordinal => (ordinal, lesson.Lesson)))
            .ToLookup(pair => pair.ordinal, pair => schedule.Lesson(pair.Lesson)!.Title);
        foreach (var meeting in schedule.Meetings.Meetings.Where(meeting => Within(plan.Term, meeting.StartsAt, from, to)))
        {
            var titles = lessons[meeting.Ordinal].ToList();
            yield return new(
                Uid(section, meeting.Origin),
                meeting.StartsAt,
                meeting.EndsAt,
                titles.Count == 0 ? $"{before}{plan.CourseTitle}" : $"{before}{Counting.Joined(titles, "and")}",
                $"{plan.CourseTitle}, {section.Name}, class {meeting.Ordinal}",
                false
            );
        }
        foreach (var gone in schedule.Meetings.Cancelled.Where(gone => Within(plan.Term, gone.StartsAt, from, to)))
            yield return new(
                Uid(section, gone.Origin),
                gone.StartsAt,
                gone.EndsAt,
                $"{before}{plan.CourseTitle}: no class",
                $"{plan.CourseTitle}, {section.Name}",
                true
            );
        foreach (var lost in LostToClosures(plan, section, schedule).Where(lost => Within(plan.Term, lost.StartsAt, from, to)))
            yield return new(
                Uid(section, lost.Origin),
                lost.StartsAt,
                lost.EndsAt,
                $"{before}{plan.CourseTitle}: no class",
                $"{plan.CourseTitle}, {section.Name}",
                true
            );
    }

    // A class that a closure takes stays in the calendar, cancelled: whoever had it there is told. Where closures shift what the
    // days after them are called, nobody can say which class it would have been.
    private static IEnumerable<Meeting> LostToClosures(EditionPlan plan, FollowingSection section, SectionSchedule schedule)
    {
        if (plan.Term.Calendar.Rotation is not (Rotation.Weekly or Rotation.ByWeeks { TeachingOnly: false }))
            return [];
        var known = schedule
            .Meetings.Meetings.Select(meeting => meeting.Origin)
            .Concat(schedule.Meetings.Cancelled.Select(gone => gone.Origin))
            .ToHashSet();
        var open = TermDays.Of(plan.Term with { Calendar = plan.Term.Calendar with { Closures = [] } });
        return SectionMeetings
            .Of(open, section.Name, section.Section.Slots, [])
            .Meetings.Where(meeting => !schedule.Term.IsClassDay(meeting.Date) && !known.Contains(meeting.Origin));
    }

    private static IEnumerable<FeedEvent> Dates(FollowingSection section, Ref<Item> item, string name, Instant? opens, Instant? due)
    {
        if (opens is { } opening)
            yield return new($"{section.Id}-{item.Name}-opens@polycline", opening, null, $"{name} opens", null, false);
        if (due is { } falling)
            yield return new($"{section.Id}-{item.Name}-due@polycline", falling, null, $"{name} is due", null, false);
    }

    private static bool Within(Term term, Instant moment, LocalDate? from, LocalDate? to)
    {
        var date = term.Local(moment).Date;
        return (from is null || from <= date) && (to is null || date <= to);
    }

    private static string Uid(FollowingSection section, MeetingOrigin origin) =>
        $"{section.Id}-{origin.Date:uuuuMMdd}-{origin.Slot}@polycline";
}
