using System.Collections.Immutable;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;

namespace Polycline.Data.Terms;

/// <summary>Something the office marked: a closure, an extra day or a special day.</summary>
/// <param name="Kind"><c>closure</c>, <c>extra</c> or <c>special</c>.</param>
/// <param name="Last">Inclusive; the first date itself unless it is a closure.</param>
/// <param name="Runs">Of a special day: the label it takes; null: its own.</param>
/// <param name="Periods">Of a special day: its periods as JSON, in the plan file's form; null: the term's.</param>
public sealed record CalendarDayRow(
    Id<CalendarDayRow> Id,
    string Kind,
    LocalDate First,
    LocalDate Last,
    string Name,
    string? Runs,
    string? Periods,
    long Version
);

/// <summary>A section that meets in a term, whether or not it follows a course.</summary>
public sealed record TermSection
{
    public required Id<Section> Id { get; init; }

    public required string Name { get; init; }

    public required string Letter { get; init; }

    public required string Subject { get; init; }

    public required string Year { get; init; }

    public required Id<Edition>? Edition { get; init; }

    public required long Version { get; init; }

    public required ImmutableArray<Slot> Slots { get; init; }

    /// <summary>Its slots in the plan file's form, as they are stored.</summary>
    public required string SlotsJson { get; init; }

    /// <summary>The names of those who teach it.</summary>
    public required ImmutableArray<string> Teachers { get; init; }

    /// <summary>How many are listed to the end of the term, or to its own last day.</summary>
    public required int Students { get; init; }

    /// <summary>The last day of one that ended before the term; null: it goes on to the end.</summary>
    public required LocalDate? EndedOn { get; init; }

    /// <summary>A pretend section: a team tries its course in it, and the office does not see it.</summary>
    public required bool Pretend { get; init; }

    public required ImmutableArray<MeetingChange> Changes { get; init; }
}

/// <summary>A term as it stood at one counter, with what a change of it needs.</summary>
/// <param name="Version">Its counter.</param>
/// <param name="OwnVersion">The version of its dates and settings, without what is marked.</param>
/// <param name="Settings">Weekdays, rotation, periods and off-days, in the plan file's form.</param>
/// <param name="Editions">Those that some section of the term follows.</param>
public sealed record TermPlan(
    Id<Term> Id,
    Term Term,
    long Version,
    long OwnVersion,
    string Settings,
    ImmutableArray<CalendarDayRow> Days,
    ImmutableArray<TermSection> Sections,
    ImmutableArray<EditionCounters> Editions
);
