using System.Collections.Immutable;
using NodaTime;

namespace Polycline.Formats.Rosters;

/// <summary>Who is in which section, as a file of somebody else's says it.</summary>
/// <param name="Source">Whose keys they are: the name of the system that wrote the file, or "csv".</param>
/// <param name="Headings">Of a table, in the order of the file; of a zip none.</param>
/// <param name="Faults">Rows that could not be read; the others go all the same.</param>
/// <param name="LeftOut">What the file has beside, in words.</param>
public sealed record Roster(
    string Source,
    ImmutableArray<string> Headings,
    ImmutableArray<RosterPerson> People,
    ImmutableArray<RosterSection> Sections,
    ImmutableArray<RosterPlace> Places,
    ImmutableArray<RosterFault> Faults,
    ImmutableArray<string> LeftOut
);

/// <summary>Where something stands: the file, and its row from 1, the headings being the first.</summary>
public readonly record struct RosterRow(string File, int Number);

/// <param name="Key">What the source calls them; it stays the same when they are renamed.</param>
public sealed record RosterPerson(RosterRow Row, string Key, string Name, string Email, bool Teacher);

/// <param name="Key">What the source calls it.</param>
/// <param name="From">When it is taught, if the file says so; null: it does not.</param>
/// <param name="To">Inclusive.</param>
public sealed record RosterSection(RosterRow Row, string Key, string Name, string Subject, string Year, LocalDate? From, LocalDate? To);

/// <summary>Somebody in a section, as a student or as its teacher.</summary>
/// <param name="From">The first date; null: the file does not say.</param>
/// <param name="To">The last date; null: the file does not say.</param>
public sealed record RosterPlace(RosterRow Row, string Person, string Section, bool Teacher, LocalDate? From, LocalDate? To);

/// <param name="Column">The heading; empty: the whole row.</param>
public sealed record RosterFault(RosterRow Row, string Column, string Reason);

/// <summary>A file is no roster at all.</summary>
public sealed class RosterRefusedException(string message) : Exception(message);
