using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Core.Release.Compiled;

/// <summary>
/// What decides release in one section for students who are alike (in the same groups as far as the course asks, without
/// exceptions of their own), or for one who has some: a row for each item, and the gates. It does not change and can be
/// shared. Source: the computation, chapter 5.
/// </summary>
public sealed class ReleaseTable
{
    internal ReleaseTable(SectionTable section, StudentRecord student)
    {
        Section = section;
        var gates = new GateTable(section, student);
        var units = section.Schedule.Course.Units.ToDictionary(unit => unit.Ref, unit => gates.Add(unit.Gate, long.MinValue));
        var lessons = section.Schedule.Course.Lessons.ToDictionary(lesson => lesson.Ref, lesson => gates.Add(lesson.Gate, long.MinValue));
        Dates = [.. section.Schedule.Items.Select(item => student.DatesOf(section.Schedule, item))];
        Rows = [.. section.Schedule.Items.Zip(Dates, (item, dates) => RowOf(item.Item, dates))];
        Gates = gates.LaidOut();
        Start = Replay.StartOf(this);

        Row RowOf(CourseItem here, ItemDates? dates)
        {
            var unlocked = student.Exceptions.GetValueOrDefault(here.Ref) is { Unlocked: true };
            var opens = dates?.Opens.At is { } opening ? Ticks.Of(opening) : long.MinValue;
            var isRead = here.Item.Kind is ItemKind.Page or ItemKind.Link;
            return new(
                Standing(here, dates, student),
                isRead ? Sees.Read : Sees.Work,
                here.Before == BeforeOpening.Unseen ? Sees.Nothing : Sees.Title,
                DoneBy(here.Item.Kind),
                opens,
                Ticks.Of(dates?.Due.At ?? Instant.MaxValue),
                Ticks.Of(dates?.Closes.At ?? Instant.MaxValue),
                dates?.Due.At is { } due ? section.Schedule.Term.Local(due).Date.DayNumber() : int.MaxValue,
                unlocked ? GateTable.Open : units[here.Unit.Ref],
                unlocked || here.Lesson is null ? GateTable.Open : lessons[here.Lesson.Ref],
                unlocked ? GateTable.Open : gates.Add(here.Item.Gate, opens)
            );
        }
    }

    public SectionTable Section { get; }

    /// <summary>By item number, the student's layer included; null: it has none, being skipped.</summary>
    public IReadOnlyList<ItemDates?> Dates { get; }

    /// <summary>By item number.</summary>
    internal Row[] Rows { get; }

    internal GateTable.Layout Gates { get; }

    /// <summary>How its gates stand before anything happened; null: that is being found out.</summary>
    internal Replay.GatesAtStart? Start { get; }

    /// <summary>An item as it stands for the student whatever they do, and when.</summary>
    /// <param name="Standing">What is decided already, whatever the moment; null: nothing is.</param>
    /// <param name="Open">What is seen of it while it is open.</param>
    /// <param name="Before">What is seen of it before it opens.</param>
    /// <param name="Done">With one of these done it is never overdue.</param>
    /// <param name="Opens">In ticks; the least there is where it is open at once.</param>
    /// <param name="Due">In ticks; the greatest there is where there is none.</param>
    /// <param name="Closes">In ticks; the greatest there is where there is none.</param>
    /// <param name="DueDay">The local date of the due.</param>
    internal readonly record struct Row(
        Verdict? Standing,
        Sees Open,
        Sees Before,
        Deeds Done,
        long Opens,
        long Due,
        long Closes,
        int DueDay,
        int UnitGate,
        int LessonGate,
        int ItemGate
    );

    // Decisions 2 to 5: what is so at every moment.
    private static Verdict? Standing(CourseItem here, ItemDates? dates, StudentRecord student)
    {
        if (!here.Published)
            return Verdict.Of(ReleaseState.Unpublished, Sees.Nothing);
        if (student.Exceptions.GetValueOrDefault(here.Ref) is { Excused: true })
            return Verdict.Of(ReleaseState.Excused, Sees.Title);
        if (!student.IsFor(here))
            return Verdict.Of(ReleaseState.NotAssigned, Sees.Nothing);
        if (here.Held)
            return Verdict.Of(ReleaseState.Held, Sees.Nothing);
        return dates!.Opens.IsUnresolved ? Verdict.Of(ReleaseState.Unscheduled, Sees.Nothing) : null;
    }

    private static Deeds DoneBy(ItemKind kind) =>
        kind switch
        {
            ItemKind.Page or ItemKind.Link => Deeds.Opened | Deeds.Ticked,
            ItemKind.Quiz => Deeds.Submitted | Deeds.Scored,
            ItemKind.Choice => Deeds.Picked,
            _ => Deeds.Submitted,
        };
}
