using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.Release;

/// <summary>
/// How an item stands for a student at a moment, in the order in which they are decided. Source: the computation, chapter 5.
/// </summary>
public enum ReleaseState
{
    /// <summary>No section lists the student.</summary>
    NotEnrolled,
    Unpublished,
    Excused,

    /// <summary>Not for this student.</summary>
    NotAssigned,

    /// <summary>Kept back by the section.</summary>
    Held,

    /// <summary>It is to open at a moment that does not come.</summary>
    Unscheduled,
    Upcoming,

    /// <summary>A gate is not met.</summary>
    Locked,
    Closed,
    Overdue,
    Open,

    /// <summary>Begun, then taken away: it stays readable.</summary>
    Withdrawn,
}

/// <summary>What a student sees of an item.</summary>
public enum Sees
{
    Nothing,

    /// <summary>Its title, with its date or what is missing.</summary>
    Title,
    Read,
    Work,
}

/// <summary>How a node of a gate came out.</summary>
public enum Outcome
{
    Met,
    NotMet,

    /// <summary>It does not apply to this student here, and drops out.</summary>
    Waived,
}

/// <summary>A gate's node with its outcome, for showing why.</summary>
/// <param name="Replaced">The item that is not for the student, whose own gate stands here instead of the leaf; null: nothing was
/// replaced.</param>
public sealed record GateTrace(GateNode Node, Outcome Outcome, ImmutableArray<GateTrace> Below, Ref<Item>? Replaced = null);

/// <summary>A gate at one level, as it came out.</summary>
/// <param name="Met">Now, or latched.</param>
/// <param name="Unlocked">A teacher has opened it for this student.</param>
/// <param name="MetSince">When it was met first, where it is latched; null: not yet, or not latched, or from the beginning.</param>
public sealed record GateReason(Level Level, Gate Gate, bool Met, bool Unlocked, Instant? MetSince, GateTrace Trace);

/// <summary>A decision with its reasons.</summary>
public sealed record Decision
{
    /// <summary>The student's section then; null: none lists them.</summary>
    public required Ref<Section>? Section { get; init; }

    public required ReleaseState State { get; init; }

    public required Sees Sees { get; init; }

    /// <summary>What would be decided if the student had not begun; of <see cref="ReleaseState.Withdrawn"/> only.</summary>
    public required ReleaseState? Because { get; init; }

    /// <summary>The level that decided, where one did.</summary>
    public required Level? DecidedBy { get; init; }

    /// <summary>The layer that decided, where one did.</summary>
    public required Layer? DecidedIn { get; init; }

    /// <summary>The item's dates for this student; null: it has none here.</summary>
    public required ItemDates? Dates { get; init; }

    /// <summary>The gates of unit, lesson and item, where there are some and it came to them.</summary>
    public required ImmutableArray<GateReason> Gates { get; init; }

    /// <summary>The leaves in the way, as written; of <see cref="ReleaseState.Locked"/> only.</summary>
    public required ImmutableArray<GateNode> Missing { get; init; }

    /// <summary>The state that decided: the one behind a withdrawal.</summary>
    public ReleaseState Deciding => Because ?? State;
}
