using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.Explaining;

/// <summary>What can stand between a student and an item.</summary>
public enum Obstacle
{
    /// <summary>No section lists them.</summary>
    NotEnrolled,

    /// <summary>Another section added it.</summary>
    OtherSection,
    Unpublished,
    Excused,
    Skipped,

    /// <summary>This student alone is left out.</summary>
    LeftOut,

    /// <summary>It is for other students only.</summary>
    NotAmong,
    Held,

    /// <summary>Its opening is set to a moment that never comes.</summary>
    Unscheduled,
    Upcoming,
    Locked,
    Closed,
}

/// <summary>One thing in the way, judged as if nothing else were.</summary>
/// <param name="Id">Of the unit, lesson or item it is about.</param>
/// <param name="Since">Since when, where that can be said.</param>
/// <param name="Until">Until when with nothing done further, where that is known.</param>
public sealed record InTheWay(Obstacle What, Level? Level, string? Id, Layer? Layer, Instant? Since = null, Instant? Until = null);

/// <summary>A part of a condition as it stands, and since when.</summary>
/// <param name="Since">Null: from the beginning.</param>
/// <param name="Replaced">What stands here instead of a leaf on an item that is not for the student.</param>
public sealed record ConditionPart(
    GateNode Node,
    Outcome Outcome,
    Instant? Since,
    ImmutableArray<ConditionPart> Below,
    ConditionPart? Replaced
);

/// <summary>The condition on a unit, a lesson or an item, met or not.</summary>
public sealed record ExplainedCondition
{
    public required Level Level { get; init; }

    public required string Id { get; init; }

    public required Layer Layer { get; init; }

    public required bool Met { get; init; }

    public required bool IsLatched { get; init; }

    /// <summary>When it was met first, where it is latched; null: not yet, not latched, or from the beginning.</summary>
    public required Instant? MetAt { get; init; }

    /// <summary>A teacher has opened it for this student.</summary>
    public required bool IsOpened { get; init; }

    public required ConditionPart Tree { get; init; }
}

/// <summary>A date with how it came about.</summary>
/// <param name="Layer">Who gave it; null: there is none.</param>
public sealed record ExplainedDate(Instant? At, Layer? Layer, ImmutableArray<DateStep> Steps)
{
    public static readonly ExplainedDate None = new(null, null, []);
}

/// <summary>
/// Why a student can or cannot see an item at a moment, and what would open it. Source: the computation, chapter 11, <i>why</i>.
/// </summary>
public sealed record Explanation
{
    /// <summary>The student's section then; null: none lists them.</summary>
    public required Ref<Section>? Section { get; init; }

    public required ReleaseState State { get; init; }

    public required ReleaseState? Because { get; init; }

    /// <summary>Since when it is open; null: it is not, or always was.</summary>
    public Instant? Since { get; init; }

    /// <summary>When it will open with nothing done further; null: it is open, or that is not known.</summary>
    public Instant? Until { get; init; }

    /// <summary>Everything in the way; what decides comes first.</summary>
    public required ImmutableArray<InTheWay> Stands { get; init; }

    /// <summary>Of unit, lesson and item.</summary>
    public ImmutableArray<ExplainedCondition> Gates { get; init; } = [];

    public ExplainedDate Opens { get; init; } = ExplainedDate.None;

    public ExplainedDate Due { get; init; } = ExplainedDate.None;

    public ExplainedDate Closes { get; init; } = ExplainedDate.None;

    /// <summary>What alone would open it, from what touches nobody else to what touches everybody.</summary>
    public ImmutableArray<Remedy> Remedies { get; init; } = [];

    /// <summary>What would open it together where nothing does alone; else null.</summary>
    public ImmutableArray<Remedy>? Together { get; init; }

    /// <summary>How much more time the student has in a quiz, in percent; null: none was agreed, or it is no quiz.</summary>
    public int? QuizTime { get; init; }

    /// <summary>Whether the student can open it.</summary>
    public bool IsOpen => IsOpenIn(State);

    /// <summary>Asks it. Facts and taught records after <paramref name="at"/> are not known.</summary>
    public static Explanation Of(PlanSchedule plan, StudentRecord student, Ref<Item> item, Instant at)
    {
        var known = student.Until(at);
        if (known.SectionAt(plan.Term.Term, at) is not { } section)
            return new()
            {
                Section = null,
                State = ReleaseState.NotEnrolled,
                Because = null,
                Stands = [new(Obstacle.NotEnrolled, null, null, null)],
            };
        if (plan.Section(section).Item(item) is null)
            return OfAnothers(new Explain(plan, known).DecideIn(section, item, at), item, known);
        return new ItemExplanation(plan, At(plan, section, at), known, item, at).Answer();
    }

    internal static bool IsOpenIn(ReleaseState state) => state is ReleaseState.Open or ReleaseState.Overdue;

    private static Explanation OfAnothers(Decision decision, Ref<Item> item, StudentRecord student)
    {
        var excused = student.Exceptions.GetValueOrDefault(item) is { Excused: true };
        return new()
        {
            Section = decision.Section,
            State = decision.State,
            Because = decision.Because,
            Stands =
            [
                new(Obstacle.OtherSection, Level.Item, item.Name, Layer.Section),
                .. excused ? [new InTheWay(Obstacle.Excused, Level.Item, item.Name, Layer.Student)] : Array.Empty<InTheWay>(),
            ],
        };
    }

    // The section without what was taught later.
    private static SectionSchedule At(PlanSchedule plan, Ref<Section> section, Instant at)
    {
        var schedule = plan.Section(section);
        return schedule.Section.Taught.Any(record => record.At > at)
            ? SectionSchedule.Of(
                plan.Term,
                plan.Edition,
                schedule.Section with
                {
                    Taught = [.. schedule.Section.Taught.Where(record => !(record.At > at))],
                }
            )
            : schedule;
    }
}
