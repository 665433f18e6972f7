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
            return new()
            {
                Standing = Standing(here, dates, student),
                Open = isRead ? Sees.Read : Sees.Work,
                Before = here.Before == BeforeOpening.Unseen ? Sees.Nothing : Sees.Title,
                Done = DoneBy(here.Item.Kind),
                Opens = opens,
                Due = Ticks.Of(dates?.Due.At ?? Instant.MaxValue),
                Closes = Ticks.Of(dates?.Closes.At ?? Instant.MaxValue),
                DueDay = dates?.Due.At is { } due ? section.Schedule.Term.Local(due).Date.DayNumber() : int.MaxValue,
                UnitGate = unlocked ? GateTable.Open : units[here.Unit.Ref],
                LessonGate = unlocked || here.Lesson is null ? GateTable.Open : lessons[here.Lesson.Ref],
                ItemGate = unlocked ? GateTable.Open : gates.Add(here.Item.Gate, opens),
            };
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
    internal readonly record struct Row
    {
        /// <summary>What is decided already, whatever the moment; null: nothing is.</summary>
        public required Verdict? Standing { get; init; }

        /// <summary>What is seen of it while it is open.</summary>
        public required Sees Open { get; init; }

        /// <summary>What is seen of it before it opens.</summary>
        public required Sees Before { get; init; }

        /// <summary>With one of these done it is never overdue.</summary>
        public required Deeds Done { get; init; }

        /// <summary>In ticks; the smallest value where it is open at once.</summary>
        public required long Opens { get; init; }

        /// <summary>In ticks; the largest value where there is none.</summary>
        public required long Due { get; init; }

        /// <summary>In ticks; the largest value where there is none.</summary>
        public required long Closes { get; init; }

        /// <summary>The local date of the due.</summary>
        public required int DueDay { get; init; }

        public required int UnitGate { get; init; }

        public required int LessonGate { get; init; }

        public required int ItemGate { get; init; }
    }

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
