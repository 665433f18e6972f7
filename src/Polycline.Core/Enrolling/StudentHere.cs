using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.Planning;
using Polycline.Core.Release;

namespace Polycline.Core.Enrolling;

/// <summary>A condition on an item that a student does not meet, and why.</summary>
/// <param name="Trace">Its outcomes at the moment.</param>
/// <param name="Standing">The gate as it stands for this student: replaced, waived or unmet where things are not for them.</param>
internal sealed record UnmetGate(GateTrace Trace, SectionGate Standing, GateAtoms? Atoms)
{
    /// <summary>The unmet leaves it comes down to, none under a <c>not</c>.</summary>
    public IEnumerable<GateNode> Wanted() => GateEvaluation.Wanted(Trace);

    /// <summary>Whether it cannot be met at all; false where there are too many ways to tell.</summary>
    public bool CannotBeMet => CannotDoWithout(_ => false);

    /// <summary>Whether it cannot be met with nothing known of these items; false where there are too many ways to tell.</summary>
    public bool CannotDoWithout(Func<Ref<Item>, bool> items) => Atoms is { IsJudged: true } && !Atoms.CanBeMet(items);
}

/// <summary>One student in one section at one moment, without anything that happened later. Source: the computation, chapter 11.</summary>
internal sealed class StudentHere
{
    private readonly PlanSchedule plan;
    private readonly GateEvaluation gates;
    private readonly Dictionary<Ref<Item>, IReadOnlyList<UnmetGate>> unmet = [];

    /// <param name="excused">What is taken to be excused for them.</param>
    public StudentHere(PlanSchedule plan, SectionSchedule schedule, StudentRecord student, Instant at, IEnumerable<Ref<Item>> excused)
    {
        this.plan = plan;
        Schedule = schedule;
        At = at;
        var exceptions = student.Exceptions.ToDictionary();
        foreach (var item in excused)
            exceptions[item] = new ForOneStudent
            {
                Student = student.Student,
                Item = item,
                Excused = true,
            }.Over(exceptions.GetValueOrDefault(item));
        Student = student.Until(at) with { Exceptions = exceptions };
        gates = new(schedule, Student);
    }

    public SectionSchedule Schedule { get; }

    public StudentRecord Student { get; }

    public Instant At { get; }

    public ItemDates? DatesOf(Ref<Item> item) => Schedule.Item(item) is { } here ? Student.DatesOf(Schedule, here) : null;

    /// <summary>The section has it, published, for the student, neither kept back nor without a moment to open at.</summary>
    public bool Can(Ref<Item> item) =>
        Schedule.Item(item) is { Item: { Published: true, Held: false } here }
        && Student.IsFor(here)
        && DatesOf(item) is { Opens.IsUnresolved: false };

    public bool IsDone(Ref<Item> item) => Student.Facts.IsDone(plan.Item(item), At);

    public bool IsClosed(Ref<Item> item) => DatesOf(item)?.Closes.At <= At;

    /// <summary>A discussion that is due or closed.</summary>
    public bool IsOver(Ref<Item> item) =>
        plan.Item(item).Kind == ItemKind.Discussion && (DatesOf(item)?.Due.At <= At || DatesOf(item)?.Closes.At <= At);

    /// <summary>The gates of its unit, its lesson and itself that are not met; none where it was unlocked.</summary>
    public IReadOnlyList<UnmetGate> UnmetOf(Ref<Item> item)
    {
        if (!unmet.TryGetValue(item, out var known))
            unmet[item] = known = [.. FindUnmet(item)];
        return known;
    }

    /// <summary>The items that its wanted leaves name.</summary>
    public IReadOnlySet<Ref<Item>> WantedBy(Ref<Item> item) =>
        UnmetOf(item).SelectMany(gate => gate.Wanted()).Select(leaf => leaf.ItemOf).OfType<Ref<Item>>().ToHashSet();

    private IEnumerable<UnmetGate> FindUnmet(Ref<Item> item)
    {
        if (Schedule.Item(item) is not { Item: var here } || Student.Exceptions.GetValueOrDefault(item) is { Unlocked: true })
            yield break;
        var opens = DatesOf(item)?.Opens.At ?? Instant.MinValue;
        foreach (
            var (gate, from) in new[] { (here.Unit.Gate, Instant.MinValue), (here.Lesson?.Gate, Instant.MinValue), (here.Item.Gate, opens) }
        )
        {
            if (gate is null || gates.Trace(gate, At) is not { Outcome: Outcome.NotMet } trace)
                continue;
            if (gate.IsLatched && gates.FirstMet(gate, from, At) is not null)
                continue;
            yield return Standing(trace);
        }
    }

    /// <summary>A gate as it stands for this student, whether it is met or not.</summary>
    public UnmetGate Standing(GateTrace trace)
    {
        var standing = new SectionGate(new(trace.Node), Schedule, other => !Student.IsFor(Schedule, other));
        return new(trace, standing, standing.Node is null ? null : new(standing.Node, plan.Item));
    }
}
