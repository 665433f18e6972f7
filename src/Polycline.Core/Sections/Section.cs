using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Sections;

/// <summary>One class group in one term, following an edition: when it meets, and what it does differently.</summary>
public sealed record Section(
    Ref<Section> Ref,
    string Title,
    ImmutableArray<Slot> Slots,
    ImmutableArray<MeetingChange> Changes,
    ImmutableArray<Adjustment> Adjustments,
    ImmutableArray<Taught> Taught,
    ImmutableArray<OpeningRecord> Opened,
    ImmutableArray<Enrolment> Students
);

/// <summary>One line of a class list: a student, and the first and last day they belong to the section.</summary>
/// <param name="From">Null: from the beginning.</param>
/// <param name="To">Null: for good.</param>
public sealed record Enrolment(Ref<Student> Student, LocalDate? From = null, LocalDate? To = null)
{
    public bool Holds(LocalDate date) => (From is null || From <= date) && (To is null || date <= To);

    /// <summary>Whether some date lies in both.</summary>
    public bool Meets(Enrolment other) =>
        (From is null || other.To is null || From <= other.To) && (To is null || other.From is null || other.From <= To);
}

/// <summary>Somebody with an account.</summary>
public sealed record Person(Id<Person> Id, string Name);
