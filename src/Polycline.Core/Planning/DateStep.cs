using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>What a step on the way to a date is.</summary>
public enum DateStepKind
{
    /// <summary>It did open then: nothing else is looked at.</summary>
    Opened,

    /// <summary>Where the anchor begins.</summary>
    Base,
    Meetings,
    Days,
    ClassDays,
    Clock,

    /// <summary>The local time that was wanted does not exist: the clocks skip it.</summary>
    SkippedHour,

    /// <summary>It ran out of the term.</summary>
    TermEnd,

    /// <summary>It fell on no class day, and was moved.</summary>
    OffDay,

    /// <summary>It was announced later, and stays so.</summary>
    Announced,

    /// <summary>A student has more days for everything.</summary>
    Always,

    /// <summary>Nothing comes out.</summary>
    Unresolved,
}

/// <summary>One step on the way to a date. Source: the computation, chapter 11, <i>why</i>.</summary>
/// <param name="Moment">The moment after it; null: there is none.</param>
public sealed record DateStep(DateStepKind Kind, Instant? Moment)
{
    /// <summary>Where it begins; of <see cref="DateStepKind.Base"/>.</summary>
    public AnchorBase? At { get; init; }

    /// <summary>The lesson or unit that <see cref="At"/> is about; null: none.</summary>
    public string? Of { get; init; }

    /// <summary>The ordinal of the meeting that is carried after it; null: none is.</summary>
    public int? Meeting { get; init; }

    /// <summary>How many meetings or class days it goes.</summary>
    public int By { get; init; }

    public int Weeks { get; init; }

    public int Days { get; init; }

    public AnchorClock? Clock { get; init; }

    public OffDays? Rule { get; init; }
}

/// <summary>How the dates of an item came about, step by step.</summary>
public sealed record DateSteps
{
    public List<DateStep> Opens { get; } = [];

    public List<DateStep> Due { get; } = [];

    public List<DateStep> Closes { get; } = [];
}
