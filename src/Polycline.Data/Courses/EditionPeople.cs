using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Data.Courses;

/// <summary>A group of students: named before there are any, filled when they come.</summary>
/// <param name="Members">Persons.</param>
public sealed record GroupRow(Id<GroupRow> Id, string Name, long Version, Id<Person>[] Members);

/// <summary>The section that decides the dates of a student who is in several.</summary>
public sealed record HomeRow(Id<Person> Person, Id<Section> Section, long Version);

/// <summary>One field of an item that is different for one student.</summary>
/// <param name="Item">By lineage.</param>
/// <param name="Field">As the plan file calls it.</param>
/// <param name="Value">JSON in the plan file's form; null: cleared.</param>
/// <param name="Move">The move that gave it, as <see cref="MoveText"/> writes it; empty: none.</param>
public sealed record ExceptionRow(Id<Person> Person, string Item, string Field, string? Value, string Move, long Version);

/// <summary>More time that was agreed for everything.</summary>
/// <param name="Reason">The team's: no student reads it.</param>
public sealed record ArrangementRow(Id<Person> Person, int? DueDays, int? QuizTime, string Reason, long Version);

/// <summary>What an edition knows of single students, row by row, beside who is in which section.</summary>
/// <param name="Groups">In order of name.</param>
public sealed record EditionPeople(
    IReadOnlyList<GroupRow> Groups,
    IReadOnlyList<HomeRow> Homes,
    IReadOnlyList<ExceptionRow> Exceptions,
    IReadOnlyList<ArrangementRow> Arrangements
)
{
    private readonly ILookup<Id<Person>, ExceptionRow> byPerson = Exceptions.ToLookup(row => row.Person);

    /// <summary>The names of the groups that somebody is in.</summary>
    public IReadOnlySet<string> GroupsOf(Id<Person> person) =>
        Groups.Where(group => group.Members.Contains(person)).Select(group => group.Name).ToHashSet(StringComparer.Ordinal);

    public HomeRow? HomeOf(Id<Person> person) => Homes.FirstOrDefault(home => home.Person == person);

    public ArrangementRow? ArrangementOf(Id<Person> person) => Arrangements.FirstOrDefault(row => row.Person == person);

    public IEnumerable<ExceptionRow> RowsOf(Id<Person> person) => byPerson[person];

    /// <summary>
    /// What is different for somebody, as the computation takes it: one entry for each item and move, what moves gave last.
    /// </summary>
    public IEnumerable<ForOneStudent> ExceptionsOf(Id<Person> person) =>
        byPerson[person]
            .GroupBy(row => (row.Item, row.Move))
            .Select(one => Of(person, one.Key.Item, one.Key.Move, [.. one]))
            .OrderBy(exception => exception.Move?.On ?? LocalDate.MinIsoValue);

    private static ForOneStudent Of(Id<Person> person, string item, string move, IReadOnlyList<ExceptionRow> fields)
    {
        Given<Anchor> Date(string field) =>
            fields.FirstOrDefault(row => row.Field == field) is { } row
                ? new(true, row.Value is null ? null : PlanParts.Anchor(row.Value))
                : default;
        bool? Flag(string field) =>
            fields.FirstOrDefault(row => row.Field == field)?.Value is { } value ? JsonSerializer.Deserialize<bool>(value) : null;
        return new()
        {
            Student = person.InPlan(),
            Item = new(item),
            Opens = Date("opens"),
            Due = Date("due"),
            Closes = Date("closes"),
            Excused = Flag("excused"),
            Include = Flag("include"),
            Exclude = Flag("exclude"),
            Unlocked = Flag("unlocked"),
            Move = move.Length == 0 ? null : MoveText.Read(move),
        };
    }
}

/// <summary>A move to another section, as it is kept beside what it gave.</summary>
public static class MoveText
{
    private sealed record Kept(string From, string To, string On);

    public static string Of(MoveMark move) =>
        JsonSerializer.Serialize(new Kept(move.From.Name, move.To.Name, LocalDatePattern.Iso.Format(move.On)));

    public static MoveMark Read(string json) =>
        JsonSerializer.Deserialize<Kept>(json) is { } kept
            ? new(new(kept.From), new(kept.To), LocalDatePattern.Iso.Parse(kept.On).Value)
            : throw new JsonException("There is no move in it.");
}
