using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Planning;

/// <summary>An item of a section with its dates; a skipped one has none.</summary>
public sealed record ScheduledItem(CourseItem Item, ItemDates? Dates);

/// <summary>
/// A section's projection of a course: its meetings, where lessons fall on them, and what follows for every item. Nothing
/// of it is stored. Source: the computation, chapters 2 to 4.
/// </summary>
public sealed class SectionSchedule
{
    // Made when first asked for: most schedules are only read through.
    private Dictionary<Ref<Item>, ScheduledItem>? byItem;
    private Dictionary<Ref<Lesson>, CourseLesson>? lessons;
    private Dictionary<Ref<Unit>, CourseUnit>? units;

    private SectionSchedule(TermDays term, Edition edition, Section section)
    {
        Term = term;
        Section = section;
        Meetings = Calendars.SectionMeetings.Of(term, section.Ref.Name, section.Slots, section.Changes);
        Course = SectionCourse.Of(edition, section);
        Planned = Placement.Of(Lengths(edition, null), Meetings.Meetings, edition.Basis, edition.MinStart);
        var taught = section.Taught.GroupBy(record => record.Lesson).ToDictionary(records => records.Key, records => records.Last());
        Forecast = taught.Count == 0 ? Planned : Placement.Of(Lengths(edition, taught), Meetings.Meetings, edition.Basis, edition.MinStart);
        Anchors = new(term, Meetings, Course, Forecast);
        Items = [.. Course.Items.Select(item => new ScheduledItem(item, item.Skipped ? null : ItemDates.Of(item, Anchors, term)))];
        Findings =
        [
            .. Meetings
                .Findings.Concat(Forecast.Findings)
                .Concat(ItemFindings())
                .OrderBy(finding => finding.Code)
                .ThenBy(finding => finding.Target, StringComparer.Ordinal),
        ];
    }

    public TermDays Term { get; }

    public Section Section { get; }

    public MeetingList Meetings { get; }

    public SectionCourse Course { get; }

    /// <summary>Where lessons fall.</summary>
    public Placement Planned { get; }

    /// <summary>Where they fall given what was really taught.</summary>
    public Placement Forecast { get; }

    public AnchorResolver Anchors { get; }

    /// <summary>In reading order, then those the section added.</summary>
    public ImmutableArray<ScheduledItem> Items { get; }

    /// <summary>By code, then target.</summary>
    public ImmutableArray<Finding> Findings { get; }

    /// <exception cref="MeetingChangeException">A change of meetings cannot be carried out.</exception>
    /// <exception cref="AdjustmentException">An adjustment names a place that is not there.</exception>
    public static SectionSchedule Of(TermDays term, Edition edition, Section section) => new(term, edition, section);

    /// <summary>Null: another section's item.</summary>
    public ScheduledItem? Item(Ref<Item> item) => (byItem ??= Items.ToDictionary(here => here.Item.Ref)).GetValueOrDefault(item);

    public CourseLesson? Lesson(Ref<Lesson> lesson) =>
        (lessons ??= Course.Lessons.ToDictionary(here => here.Ref)).GetValueOrDefault(lesson);

    public CourseUnit? Unit(Ref<Unit> unit) => (units ??= Course.Units.ToDictionary(here => here.Ref)).GetValueOrDefault(unit);

    /// <summary>The gate of an item of this section; null: it has none, or is another section's.</summary>
    public Gate? GateOf(Ref<Item> item) => Item(item)?.Item.Item.Gate;

    /// <summary>What an anchor of a gate comes to in this section; null: it does not.</summary>
    public Instant? MomentOf(Anchor anchor) => Anchors.Resolve(anchor, null, null, null).At;

    private List<LessonToPlace> Lengths(Edition edition, Dictionary<Ref<Lesson>, Taught>? taught)
    {
        var lessons = new List<LessonToPlace>(Course.Lessons.Length);
        foreach (var lesson in Course.Lessons)
        {
            if (lesson.Skipped)
                continue;
            var record = taught?.GetValueOrDefault(lesson.Ref);
            lessons.Add(
                record is null
                    ? new(lesson.Ref, lesson.Length, lesson.Pin)
                    : new(lesson.Ref, ForecastLength(record, lesson.Length, edition), lesson.Pin, record is { Done: true, Took: 0 })
            );
        }
        return lessons;
    }

    private static int ForecastLength(Taught record, int planned, Edition edition) =>
        record.Done
            ? record.Took
            : record.Took + (record.Left ?? Math.Max(planned - record.Took, edition.Basis == Basis.Meetings ? 1 : edition.MinStart));

    private IEnumerable<Finding> ItemFindings()
    {
        foreach (var (item, dates) in Items)
        {
            if (dates is null)
                continue;
            var (opens, due, closes) = (dates.Opens.At, dates.Due.At, dates.Closes.At);
            if (due < opens)
                yield return new(FindingCode.DueBeforeOpens, item.Ref.Name);
            if (closes < due)
                yield return new(FindingCode.ClosesBeforeDue, item.Ref.Name);
            if (item.Lesson is { } lesson && due < Anchors.StartOf(lesson.Ref))
                yield return new(FindingCode.DueBeforeLesson, item.Ref.Name);
            if (due is { } falls && !Term.IsClassDay(falls))
                yield return new(FindingCode.DueOffDay, item.Ref.Name);
            if (dates.DueEarlier)
                yield return new(FindingCode.DueEarlier, item.Ref.Name);
            if (dates.BeyondTerm)
                yield return new(FindingCode.BeyondTerm, item.Ref.Name);
        }
    }
}
