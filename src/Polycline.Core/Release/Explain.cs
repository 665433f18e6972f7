using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.Release;

/// <summary>
/// How items stand for one student: plain and recursive, the specification in code, with every reason. Source: the
/// computation, chapter 5, <i>Decision</i>.
/// </summary>
public sealed class Explain(PlanSchedule plan, StudentRecord student)
{
    private readonly Dictionary<Ref<Section>, GateEvaluation> evaluations = [];

    /// <summary>The decision on an item at a moment: the first that applies.</summary>
    public Decision Decide(Ref<Item> item, Instant at)
    {
        if (student.SectionAt(plan.Term.Term, at) is not { } section)
            return new()
            {
                Section = null,
                State = ReleaseState.NotEnrolled,
                Sees = Sees.Nothing,
                Because = null,
                DecidedBy = null,
                DecidedIn = null,
                Dates = null,
                Gates = [],
                Missing = [],
            };
        return DecideIn(section, item, at);
    }

    /// <summary>The decision as if a section were the student's at that moment, whichever list them.</summary>
    public Decision DecideIn(Ref<Section> section, Ref<Item> item, Instant at)
    {
        var schedule = plan.Section(section);
        if (schedule.Item(item) is not { Item: var here } scheduled)
            return Withdrawing(item, at, Elsewhere(item) with { Section = section });
        var dates = student.DatesOf(schedule, scheduled);
        var gates = evaluations.TryGetValue(section, out var known) ? known : evaluations[section] = new(schedule, student);
        return Withdrawing(item, at, Decide(schedule, here, dates, gates, at) with { Section = section, Dates = dates });
    }

    /// <summary>The decision as if an item stood in a section as it is given here.</summary>
    public Decision DecideAs(SectionSchedule schedule, CourseItem here, GateEvaluation gates, Instant at)
    {
        var dates = here.Skipped ? null : student.Dates(schedule, here);
        return Withdrawing(here.Ref, at, Decide(schedule, here, dates, gates, at) with { Section = schedule.Section.Ref, Dates = dates });
    }

    // An item that another section added counts as published and skipped.
    private Decision Elsewhere(Ref<Item> item) =>
        student.Exceptions.GetValueOrDefault(item) is { Excused: true }
            ? Decided(ReleaseState.Excused, Sees.Title, Level.Item, Layer.Student)
            : Decided(ReleaseState.NotAssigned, Sees.Nothing, Level.Item, Layer.Section);

    private Decision Decide(SectionSchedule schedule, CourseItem here, ItemDates? dates, GateEvaluation evaluation, Instant at)
    {
        var exception = student.Exceptions.GetValueOrDefault(here.Ref);
        if (!here.Published)
            return Decided(
                ReleaseState.Unpublished,
                Sees.Nothing,
                LevelOf(here, unit => !unit.Published, lesson => !lesson.Published),
                PublishedBy(here)
            );
        if (exception is { Excused: true })
            return Decided(ReleaseState.Excused, Sees.Title, Level.Item, Layer.Student);
        if (!student.IsFor(here))
            return Decided(
                ReleaseState.NotAssigned,
                Sees.Nothing,
                here.Skipped ? LevelOf(here, unit => unit.Skipped, lesson => lesson.Skipped) : Level.Item,
                exception is { Exclude: true } ? Layer.Student
                    : here.Skipped ? Layer.Section
                    : here.ForBy
            );
        if (here.Held)
            return Decided(ReleaseState.Held, Sees.Nothing, LevelOf(here, unit => unit.Held, lesson => lesson.Held), Layer.Section);
        var (opens, due, closes) = (dates!.Opens, dates.Due, dates.Closes);
        if (opens.IsUnresolved)
            return Decided(ReleaseState.Unscheduled, Sees.Nothing, Level.Item, opens.Layer);
        if (at < opens.At)
        {
            // The item's own gate is latched from its opening only, so before that it is judged as it stands. What may never be
            // theirs is not announced to them.
            var ahead = GatesOf(schedule, here, exception is { Unlocked: true }, Instant.MaxValue, evaluation, at);
            var isHidden = ahead.Any(gate => !gate.Met && gate.Gate.IsHidden);
            return Decided(
                ReleaseState.Upcoming,
                here.Before == BeforeOpening.Unseen || isHidden ? Sees.Nothing : Sees.Title,
                Level.Item,
                opens.Layer
            ) with
            {
                Gates = ahead,
            };
        }
        var gates = GatesOf(schedule, here, exception is { Unlocked: true }, opens.At, evaluation, at);
        if (gates.Any(gate => !gate.Met))
            return Decided(
                ReleaseState.Locked,
                gates.Any(gate => !gate.Met && gate.Gate.IsHidden) ? Sees.Nothing : Sees.Title,
                gates.First(gate => !gate.Met).Level,
                null
            ) with
            {
                Gates = gates,
                Missing = [.. gates.Where(gate => !gate.Met).SelectMany(gate => GateEvaluation.Missing(gate.Trace))],
            };
        if (closes.At is { } closing && at >= closing)
            return Decided(ReleaseState.Closed, Sees.Read, Level.Item, closes.Layer) with { Gates = gates };
        var work = here.Item.Kind is ItemKind.Page or ItemKind.Link ? Sees.Read : Sees.Work;
        return (
            IsOverdue(here.Item, due.At, at)
                ? Decided(ReleaseState.Overdue, work, Level.Item, due.Layer)
                : Decided(ReleaseState.Open, work, Level.Item, opens.Layer)
        ) with
        {
            Gates = gates,
        };
    }

    private bool IsOverdue(Item item, Instant? due, Instant at) =>
        at > due && !student.Facts.IsDone(item, at) && !(plan.Term.Term.Local(due.Value).Date <= student.JoinedOn);

    // What someone has begun stays readable to them.
    private Decision Withdrawing(Ref<Item> item, Instant at, Decision decision) =>
        decision.State
            is ReleaseState.Unpublished
                or ReleaseState.Held
                or ReleaseState.Unscheduled
                or ReleaseState.Upcoming
                or ReleaseState.Locked
                or ReleaseState.NotAssigned
        && student.Facts.HasBegun(item, at)
            ? decision with
            {
                State = ReleaseState.Withdrawn,
                Because = decision.State,
                Sees = Sees.Read,
                Missing = [],
            }
            : decision;

    /// <summary>How the gates of an item's unit, its lesson and itself come out.</summary>
    /// <param name="opens">When the item opens, from which on its own gate is latched; null: from the beginning.</param>
    internal static ImmutableArray<GateReason> GatesOf(
        SectionSchedule schedule,
        CourseItem here,
        bool unlocked,
        Instant? opens,
        GateEvaluation evaluation,
        Instant at
    )
    {
        var reasons = ImmutableArray.CreateBuilder<GateReason>();
        Add(Level.Unit, here.Unit.Gate, Instant.MinValue);
        Add(Level.Lesson, here.Lesson?.Gate, Instant.MinValue);
        Add(Level.Item, here.Item.Gate, opens ?? Instant.MinValue);
        return reasons.ToImmutable();

        void Add(Level level, Gate? gate, Instant from)
        {
            if (gate is null)
                return;
            var trace = evaluation.Trace(gate, at);
            var since = gate.IsLatched ? evaluation.FirstMet(gate, from, at) : null;
            reasons.Add(
                new(
                    level,
                    gate,
                    unlocked || trace.Outcome != Outcome.NotMet || since is not null,
                    unlocked,
                    since > Instant.MinValue ? since : null,
                    trace
                )
            );
        }
    }

    private static Level LevelOf(CourseItem here, Func<CourseUnit, bool> unit, Func<CourseLesson, bool> lesson) =>
        unit(here.Unit) ? Level.Unit
        : here.Lesson is { } on && lesson(on) ? Level.Lesson
        : Level.Item;

    private static Layer PublishedBy(CourseItem here) =>
        !here.Unit.Published ? here.Unit.PublishedBy
        : here.Lesson is { Published: false } lesson ? lesson.PublishedBy
        : here.PublishedBy;

    private static Decision Decided(ReleaseState state, Sees sees, Level level, Layer? layer) =>
        new()
        {
            Section = null,
            State = state,
            Sees = sees,
            Because = null,
            DecidedBy = level,
            DecidedIn = layer,
            Dates = null,
            Gates = [],
            Missing = [],
        };
}
