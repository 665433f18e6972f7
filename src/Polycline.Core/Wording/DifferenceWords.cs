using NodaTime;
using NodaTime.Text;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Wording;

/// <summary>
/// What a section does differently from the course, in words that go on after its title or its class. Source: the computation, chapters 2
/// to 4.
/// </summary>
/// <param name="titleOf">The title of the unit or lesson of that id.</param>
public sealed class DifferenceWords(Func<string, string> titleOf, Basis basis, LevelNames levels)
{
    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("ddd d MMM");
    private static readonly LocalTimePattern Time = LocalTimePattern.CreateWithInvariantCulture("HH:mm");
    private readonly AnchorWords anchors = new(titleOf, levels);

    /// <summary>Of an adjustment that gives one field: <c>kept back</c>, <c>lasts 3 classes instead of 2</c>.</summary>
    /// <param name="course">What the course says there; null: nothing.</param>
    /// <param name="onUnit">Whether the item is directly on a unit.</param>
    public string Of(Adjustment difference, object? course, bool onUnit = false) =>
        difference switch
        {
            Adjustment.OfUnit { Order: { } order } => $"is the {Nth(order)} {levels.Unit.One} here",
            Adjustment.OfUnit unit => Flags(unit.Skip, unit.Hold, unit.Published),
            Adjustment.OfLesson { After: { } after } => $"comes after “{titleOf(after.Name)}” here",
            Adjustment.OfLesson { Length: { } length } =>
                $"lasts {InBasis(length)}{(course is int planned ? $" instead of {planned}" : "")}",
            Adjustment.OfLesson { Pin: { } date } => $"is fixed to {Day.Format(date)}",
            Adjustment.OfLesson lesson => Flags(lesson.Skip, lesson.Hold, lesson.Published),
            Adjustment.OfItem { Opens: { Is: true } opens } => Timed(
                "opens",
                "opens as soon as it is published",
                opens.Value,
                course as Anchor,
                onUnit
            ),
            Adjustment.OfItem { Due: { Is: true } due } => Timed("is due", "has no due date", due.Value, course as Anchor, onUnit),
            Adjustment.OfItem { Closes: { Is: true } closes } => Timed("closes", "does not close", closes.Value, course as Anchor, onUnit),
            Adjustment.OfItem { For.Is: true } => "is for other students here",
            Adjustment.OfItem { Lesson: { } lesson } => $"goes with “{titleOf(lesson.Name)}”",
            Adjustment.OfItem item => Flags(item.Skip, item.Hold, item.Published),
            _ => "belongs to this section only",
        };

    /// <summary>Of a class: <c>cancelled on Thu 8 Oct</c>.</summary>
    public static string Of(MeetingChange change) =>
        change switch
        {
            MeetingChange.Cancel cancel => $"cancelled on {On(cancel.Date, cancel.Start)}",
            MeetingChange.Move move => $"moved from {On(move.Date, move.Start)} to {On(move.ToDate, move.ToStart)}",
            _ => $"added on {On(((MeetingChange.Extra)change).Date, ((MeetingChange.Extra)change).Start)}",
        };

    /// <summary>Of a slot: <c>every Monday, P1</c>, <c>A Friday, P5 and P6, until Fri 30 Oct</c>.</summary>
    public static string Of(Slot slot)
    {
        var at = slot switch
        {
            Slot.InPeriods of => Joined([.. of.Periods], "and"),
            Slot.AtTimes of => $"{Time.Format(of.Start)} to {Time.Format(of.End)}",
            _ => "",
        };
        var words = $"{DayInWords(slot.Day)}, {at}";
        if (slot.Counts != 1)
            words += $", counts as {slot.Counts}";
        if (slot.From is { } from)
            words += $", from {Day.Format(from)}";
        return slot.Until is { } until ? $"{words}, until {Day.Format(until)}" : words;
    }

    /// <summary>A label of the rotation: <c>every Monday</c>, <c>Friday of week A</c>, <c>day 3</c>.</summary>
    public static string DayInWords(string label)
    {
        var dash = label.LastIndexOf('-');
        var weekday = WeekdayOf(label[(dash + 1)..]);
        return weekday is null ? $"day {label}"
            : dash < 0 ? $"every {weekday}"
            : $"{weekday} of week {label[..dash]}";
    }

    private static string? WeekdayOf(string label) =>
        Enum.GetValues<IsoDayOfWeek>()
            .Where(day => day != IsoDayOfWeek.None && string.Equals($"{day}"[..3], label, StringComparison.OrdinalIgnoreCase))
            .Select(day => $"{day}")
            .FirstOrDefault();

    private static string On(LocalDate date, LocalTime? time) =>
        time is { } start ? $"{Day.Format(date)}, {Time.Format(start)}" : Day.Format(date);

    private string InBasis(int length) => basis.Counted(length);

    private string Timed(string verb, string without, Anchor? here, Anchor? course, bool onUnit)
    {
        var first = here is null ? without : $"{verb} {anchors.Of(here, onUnit)}";
        return course is null ? first : $"{first}, not {anchors.Of(course, onUnit)}";
    }

    private static string Flags(bool? skip, bool? hold, bool? published) =>
        (skip, hold, published) switch
        {
            (true, _, _) => "is dropped here",
            (_, true, _) => "is kept back",
            (_, _, true) => "is published here",
            (_, _, false) => "is not published here",
            _ => "is as in the course",
        };
}
