using System.Text.Json;
using System.Text.Json.Nodes;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.Courses;

/// <summary>A section that follows an edition.</summary>
public sealed record FollowingSection
{
    public required Id<Section> Id { get; init; }

    public required string Name { get; init; }

    /// <summary>What its line is marked with.</summary>
    public required string Letter { get; init; }

    /// <summary>Whom it lists or has listed.</summary>
    public required IReadOnlyList<ListedStudent> Listed { get; init; }

    public required long Version { get; init; }

    /// <summary>Since when it follows the edition; null: from the beginning.</summary>
    public required LocalDate? FollowsFrom { get; init; }

    /// <summary>Its last day, if it ends before its term; null: it runs to the end.</summary>
    public required LocalDate? EndedOn { get; init; }

    /// <summary>The made-up students of a pretend section, which has no real ones; null: it is a real section.</summary>
    public required IReadOnlyList<PretendStudent>? Pretend { get; init; }

    /// <summary>When it meets, in the plan file's form.</summary>
    public required string Slots { get; init; }

    public required IReadOnlyList<string> Teachers { get; init; }

    /// <summary>As the computation knows it, without its students.</summary>
    public required Section Section { get; init; }

    /// <summary>Its students as of a date: persons, those who are still to join among them, without those who have left.</summary>
    public IReadOnlyList<Id<Person>> PeopleOn(LocalDate date) =>
        [.. Listed.Where(one => one.To is null || one.To >= date).Select(one => one.Person).Distinct()];

    /// <summary>Whether somebody is in it on a date.</summary>
    public bool Lists(Id<Person> person, LocalDate date) =>
        Listed.Any(one => one.Person == person && (one.From is null || one.From <= date) && (one.To is null || one.To >= date));

    /// <summary>How many they are.</summary>
    public int StudentsOn(LocalDate date) => PeopleOn(date).Count;
}

/// <summary>A student of a pretend section.</summary>
/// <param name="Facts">What is made out to have happened, as it stands in an address: <c>12.score.65~14.given-back</c>.</param>
public sealed record PretendStudent(string Name, string Facts)
{
    /// <summary>Reads the students stored with a section; null: it is not a pretend section.</summary>
    public static IReadOnlyList<PretendStudent>? Read(string? json) =>
        json is null ? null : JsonSerializer.Deserialize<List<PretendStudent>>(json, JsonSerializerOptions.Web);

    /// <summary>The form in which they are stored.</summary>
    public static JsonNode Json(IEnumerable<PretendStudent> students) =>
        JsonSerializer.SerializeToNode(students, JsonSerializerOptions.Web)!;
}

/// <summary>One line of a class list: a person, and the first and last day they belong to the section.</summary>
/// <param name="From">Null: from the beginning.</param>
/// <param name="To">Null: for good.</param>
public sealed record ListedStudent(Id<ListedStudent> Place, Id<Person> Person, LocalDate? From, LocalDate? To, long Version)
{
    public bool Holds(LocalDate date) => (From is null || From <= date) && (To is null || date <= To);
}

/// <summary>One row of a section's differences.</summary>
/// <param name="Value">JSON; null: cleared.</param>
public sealed record AdjustmentRow(Id<Section> Section, string Target, AdjustedField Field, string? Value, long Version);

/// <summary>What a lesson has really taken in a section.</summary>
/// <param name="Left">How much is left of one that is not done; null: what was planned less what it took.</param>
public sealed record TaughtRow(Id<Section> Section, string Lesson, int Took, bool Done, int? Left, Instant At, long Version);

/// <summary>One change of a section's classes, in the order in which they apply.</summary>
/// <param name="Change">In the plan file's form.</param>
public sealed record MeetingChangeRow(Id<Section> Section, int Seq, string Change, long Version);

/// <summary>One change of a section's order, in the order in which they apply.</summary>
/// <param name="Target">The unit or lesson that is put elsewhere.</param>
/// <param name="Change">In the plan file's form, without its target: <c>order</c> or <c>after</c>.</param>
public sealed record OrderChangeRow(Id<Section> Section, int Seq, string Target, string Change, long Version);

/// <summary>That an item has opened in a section.</summary>
/// <param name="Due">The due then announced.</param>
public sealed record OpenedRow(Id<Section> Section, string Item, Instant At, Instant? Due);

/// <summary>What sections do differently from the course, and what became of it there, row by row.</summary>
/// <param name="Adjustments">One a field.</param>
/// <param name="Orders">Section by section, in turn.</param>
/// <param name="Taught">What was taught, section by section.</param>
/// <param name="MeetingChanges">What sections change in their classes, in turn.</param>
/// <param name="Opened">What has opened.</param>
public sealed record SectionRows(
    IReadOnlyList<AdjustmentRow> Adjustments,
    IReadOnlyList<OrderChangeRow> Orders,
    IReadOnlyList<TaughtRow> Taught,
    IReadOnlyList<MeetingChangeRow> MeetingChanges,
    IReadOnlyList<OpenedRow> Opened
);
