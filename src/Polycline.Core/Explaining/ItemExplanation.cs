using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;

namespace Polycline.Core.Explaining;

/// <summary>Why an item that a student's section has is open to them, or is not. Source: the computation, chapter 11, <i>why</i>.</summary>
internal sealed class ItemExplanation
{
    private readonly SectionSchedule schedule;
    private readonly StudentRecord student;
    private readonly Instant at;
    private readonly Term term;
    private readonly CourseItem here;
    private readonly Explain explain;
    private readonly GateEvaluation gates;
    private readonly ItemDates dates;
    private readonly DateSteps steps = new();
    private readonly ForOneStudent? exception;
    private readonly PlanSchedule plan;

    /// <param name="student">Without anything that happened after <paramref name="at"/>.</param>
    public ItemExplanation(PlanSchedule plan, SectionSchedule schedule, StudentRecord student, Ref<Item> item, Instant at)
    {
        this.plan = plan;
        this.schedule = schedule;
        this.student = student;
        this.at = at;
        term = plan.Term.Term;
        here = schedule.Item(item)!.Item;
        explain = new(plan, student);
        gates = new(schedule, student);
        dates = student.Dates(schedule, here, steps);
        exception = student.Exceptions.GetValueOrDefault(item);
    }

    public Explanation Answer()
    {
        var decision = explain.DecideAs(schedule, here, gates, at);
        var isOpen = Explanation.IsOpenIn(decision.State);
        var opens = dates.Opens;
        var reasons = Explain.GatesOf(
            schedule,
            here,
            exception is { Unlocked: true },
            opens.IsUnresolved || at < opens.At ? Instant.MaxValue : opens.At,
            gates,
            at
        );
        var froms = reasons.SelectMany(reason => gates.FromsOf(reason.Trace)).Distinct().ToList();
        ImmutableArray<InTheWay> stands = [.. Stands(reasons)];
        var until = isOpen ? null : Until(froms);
        var search = isOpen ? null : new RemedySearch(plan, schedule, student, here, at, stands, reasons);
        ImmutableArray<Remedy> alone = [.. search?.Alone() ?? []];
        return new()
        {
            Section = decision.Section,
            State = decision.State,
            Because = decision.Because,
            Since = isOpen ? Since(froms) : null,
            Until = until,
            Stands = isOpen ? [] : stands,
            Gates = [.. reasons.Select(Condition)],
            Opens = new(dates.Opens.At, dates.Opens.Layer, [.. steps.Opens]),
            Due = new(dates.Due.At, dates.Due.Layer, [.. steps.Due]),
            Closes = new(dates.Closes.At, dates.Closes.Layer, [.. steps.Closes]),
            Remedies = until is { } opening ? [new Remedy.Wait(opening), .. alone] : alone,
            Together = alone.IsEmpty ? search?.Together() : null,
            QuizTime = here.Item.Kind == ItemKind.Quiz ? student.Always?.QuizTime : null,
        };
    }

    private IEnumerable<InTheWay> Stands(ImmutableArray<GateReason> reasons)
    {
        foreach (var (level, id, alone, layer) in Levels())
            if (!alone.Published)
                yield return new(Obstacle.Unpublished, level, id, layer);
        if (exception is { Excused: true })
            yield return OfItem(Obstacle.Excused, Layer.Student);
        foreach (var (level, id, alone, _) in Levels())
            if (alone.Skipped)
                yield return new(Obstacle.Skipped, level, id, Layer.Section);
        if (exception is { Exclude: true })
            yield return OfItem(Obstacle.LeftOut, Layer.Student);
        else if (!here.Skipped && exception is not { Include: true } && here.For?.Includes(student.Student, student.Groups) == false)
            yield return OfItem(Obstacle.NotAmong, here.ForBy);
        foreach (var (level, id, alone, _) in Levels())
            if (alone.Held)
                yield return new(Obstacle.Held, level, id, Layer.Section);
        if (dates.Opens.IsUnresolved)
            yield return OfItem(Obstacle.Unscheduled, dates.Opens.Layer);
        else if (at < dates.Opens.At)
            yield return OfItem(Obstacle.Upcoming, dates.Opens.Layer) with
            {
                Until = dates.Opens.At,
            };
        foreach (var reason in reasons)
            if (!reason.Met)
                yield return new(
                    Obstacle.Locked,
                    reason.Level,
                    IdOf(reason.Level),
                    LayerOf(reason.Level),
                    Since: History(reason).Since,
                    Until: Later(gates.FromsOf(reason.Trace))
                        .Select(moment => (Instant?)moment)
                        .FirstOrDefault(moment => gates.Trace(reason.Gate, moment!.Value).Outcome != Outcome.NotMet)
                );
        if (dates.Closes.At <= at)
            yield return OfItem(Obstacle.Closed, dates.Closes.Layer) with
            {
                Since = dates.Closes.At,
            };

        InTheWay OfItem(Obstacle what, Layer layer) => new(what, Level.Item, here.Ref.Name, layer);
    }

    private IEnumerable<(Level Level, string Id, Standalone Alone, Layer PublishedBy)> Levels()
    {
        var unit = here.Unit;
        yield return (Level.Unit, unit.Ref.Name, new(unit.Published, unit.Skipped, unit.Held), unit.PublishedBy);
        if (here.Lesson is { } lesson)
            yield return (Level.Lesson, lesson.Ref.Name, lesson.Alone, lesson.PublishedBy);
        yield return (Level.Item, here.Ref.Name, here.Alone, here.PublishedBy);
    }

    private string IdOf(Level level) =>
        level switch
        {
            Level.Unit => here.Unit.Ref.Name,
            Level.Lesson => here.Lesson!.Ref.Name,
            _ => here.Ref.Name,
        };

    private Layer LayerOf(Level level) =>
        level switch
        {
            Level.Unit => here.Unit.IsOwn,
            Level.Lesson => here.Lesson!.IsOwn,
            _ => here.IsOwn,
        }
            ? Layer.Section
            : Layer.Master;

    private ExplainedCondition Condition(GateReason reason) =>
        new()
        {
            Level = reason.Level,
            Id = IdOf(reason.Level),
            Layer = LayerOf(reason.Level),
            Met = reason.Met,
            IsLatched = reason.Gate.IsLatched,
            MetAt = reason.MetSince,
            IsOpened = reason.Unlocked,
            Tree = History(reason),
        };

    // Each part as it was at every moment at which it can have changed.
    private ConditionPart History(GateReason reason)
    {
        Instant[] moments =
        [
            Instant.MinValue,
            .. Happened().Concat(gates.FromsOf(reason.Trace)).Where(moment => moment <= at).Distinct().Order(),
        ];
        return Part([.. moments.Select(moment => gates.Trace(reason.Gate, moment))], moments);
    }

    private static ConditionPart Part(GateTrace[] traces, Instant[] moments)
    {
        var now = traces[^1];
        var changed = Array.FindLastIndex(traces, trace => trace.Outcome != now.Outcome);
        var below = Enumerable.Range(0, now.Below.Length).Select(n => Part([.. traces.Select(trace => trace.Below[n])], moments));
        var isReplaced = now.Replaced is not null;
        return new(
            now.Node,
            now.Outcome,
            changed < 0 ? null : moments[changed + 1],
            isReplaced ? [] : [.. below],
            isReplaced ? below.FirstOrDefault() : null
        );
    }

    private IEnumerable<Instant> Happened() =>
        student
            .Facts.All.Select(fact => fact.At)
            .Concat(schedule.Section.Taught.Where(record => record.At is not null).Select(record => record.At!.Value));

    private IEnumerable<Instant> Later(IEnumerable<Instant> moments) => moments.Where(moment => at < moment).Distinct().Order();

    private bool IsOpenAt(Instant moment) => Explanation.IsOpenIn(explain.DecideAs(schedule, here, gates, moment).State);

    private Instant? Since(List<Instant> froms)
    {
        var begins = student.Stay(term.Local(at).Date).From is { } from ? plan.Term.ToInstant(from.AtMidnight()) : Instant.MinValue;
        Instant[] moments =
        [
            begins,
            .. Happened()
                .Concat(froms)
                .Concat(new[] { dates.Opens.At, dates.Closes.At }.OfType<Instant>())
                .Where(moment => begins < moment && moment <= at)
                .Distinct()
                .Order(),
        ];
        var shut = Array.FindLastIndex(moments, moment => !IsOpenAt(moment));
        var since = moments[Math.Min(shut + 1, moments.Length - 1)];
        return since == Instant.MinValue ? null : since;
    }

    private Instant? Until(List<Instant> froms)
    {
        var last = student.Stay(term.Local(at).Date).To;
        foreach (var moment in Later(froms.Concat(new[] { dates.Opens.At, dates.Closes.At }.OfType<Instant>())))
            if (term.Local(moment).Date > last)
                return null;
            else if (IsOpenAt(moment))
                return moment;
        return null;
    }
}
