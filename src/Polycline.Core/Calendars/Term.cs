using System.Collections.Immutable;
using NodaTime;

namespace Polycline.Core.Calendars;

/// <summary>A school term: when there are classes at all. Source: the computation, chapter 1.</summary>
/// <param name="Name">As the school says it, "Autumn term 2026".</param>
/// <param name="Zone">The IANA zone in which all local times of the term are meant.</param>
/// <param name="First">First date, inclusive.</param>
/// <param name="Last">Last date, inclusive, not before <paramref name="First"/>.</param>
public sealed record Term(string Name, DateTimeZone Zone, LocalDate First, LocalDate Last, SchoolCalendar Calendar)
{
    /// <summary>The local date and time of <paramref name="moment"/> in the term's zone.</summary>
    public LocalDateTime Local(Instant moment) => moment.InZone(Zone).LocalDateTime;
}

/// <summary>What the office sets for a term beside its dates. Closures and extra days outside the term have no effect.</summary>
/// <param name="Weekdays">The weekdays on which classes are held.</param>
/// <param name="Closures">Stretches without classes.</param>
/// <param name="ExtraDays">Class days whatever the weekday and the closures say.</param>
/// <param name="Rotation">What gives every class day its label.</param>
/// <param name="Periods">The periods of an ordinary day.</param>
/// <param name="SpecialDays">Days that run another label or have periods of their own; one for a date at most.</param>
/// <param name="OffDays">Where a due of the course goes that falls on no class day (chapter 4).</param>
public sealed record SchoolCalendar(
    ImmutableArray<IsoDayOfWeek> Weekdays,
    ImmutableArray<Closure> Closures,
    ImmutableArray<ExtraDay> ExtraDays,
    Rotation Rotation,
    ImmutableArray<Period> Periods,
    ImmutableArray<SpecialDay> SpecialDays,
    OffDays OffDays = OffDays.Stay
);

/// <summary>Where a due of the course goes that falls on no class day. Source: the computation, chapter 4.</summary>
public enum OffDays
{
    Stay,

    /// <summary>To the nearest class day before it, at the same time.</summary>
    Back,

    /// <summary>To the nearest class day after it, at the same time.</summary>
    Forward,
}

/// <summary>No classes from <paramref name="From"/> to <paramref name="To"/>, both inclusive.</summary>
public sealed record Closure(LocalDate From, LocalDate To, string Name)
{
    public bool Covers(LocalDate date) => From <= date && date <= To;
}

/// <summary>A class day that beats weekdays and closures.</summary>
public sealed record ExtraDay(LocalDate Date, string Name);

/// <summary>A period of the day, local; <paramref name="End"/> is after <paramref name="Start"/>.</summary>
public sealed record Period(string Name, LocalTime Start, LocalTime End);

/// <summary>A day unlike others; on a date that is no class day it sleeps.</summary>
/// <param name="Runs">The label the day takes instead of its own; null: its own.</param>
/// <param name="Periods">The periods of that day instead of the term's (none: no periods); null: the term's.</param>
public sealed record SpecialDay(LocalDate Date, string? Runs, ImmutableArray<Period>? Periods, string? Name);
