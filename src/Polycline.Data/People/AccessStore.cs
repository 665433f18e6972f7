using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>
/// Who asks, and what they have to do with the edition, section or term that the address names: one row, read anew at every
/// request, so that removing somebody takes effect at once. Null where the address names none, or none that exists.
/// </summary>
public sealed record AccessRow
{
    public required Id<Person> Person { get; init; }

    public required string PersonName { get; init; }

    public required bool Office { get; init; }

    /// <summary>They may make courses.</summary>
    public required bool Teacher { get; init; }

    public required Id<Edition>? Edition { get; init; }

    public required Id<Master>? Master { get; init; }

    public required string? EditionState { get; init; }

    public required long? EditionVersion { get; init; }

    /// <summary><c>lead</c> or <c>co</c> on the edition's team; null: not of the team.</summary>
    public required string? MemberRole { get; init; }

    public required Id<Section>? Section { get; init; }

    public required long? SectionVersion { get; init; }

    public required bool TeachesSection { get; init; }

    /// <summary>The sections that they teach.</summary>
    public required Id<Section>[] Teaches { get; init; }

    /// <summary>With <see cref="EnrolledTo"/>: the dates, both inclusive, on which they are a student of the section.</summary>
    public required LocalDate[]? EnrolledFrom { get; init; }

    public required LocalDate[]? EnrolledTo { get; init; }

    public required Id<Term>? Term { get; init; }

    public required long? TermVersion { get; init; }

    public required string? TermZone { get; init; }
}

/// <summary>What a lens needs to know of the student it looks through.</summary>
public sealed record LensStudentRow(string Name, Id<Section> Section, Id<Edition> Edition, bool TaughtByViewer);

/// <summary>A student through whose eyes somebody may look; null if the section has none, or no more.</summary>
public sealed record LensPlaceRow(Id<Section> Section, string SectionName, string Letter, Id<Person>? Student, string? Name);

/// <summary>Reads who may do what.</summary>
public static class AccessStore
{
    /// <summary>Null where the session is unknown, over, or its person removed.</summary>
    public static Task<AccessRow?> Find(
        NpgsqlConnection connection,
        byte[] token,
        Id<Edition>? edition,
        Id<Section>? section,
        Id<Term>? term,
        Instant now
    ) =>
        connection.QuerySingleOrDefaultAsync<AccessRow?>(
            Sql.Of("People", "ReadAccess"),
            new
            {
                token,
                edition = edition?.Value,
                section = section?.Value,
                term = term?.Value,
                now,
            }
        );

    /// <summary>
    /// The sections of one master in which <paramref name="student"/> is or was, as <paramref name="viewer"/> may look at them.
    /// </summary>
    public static async Task<IReadOnlyList<LensStudentRow>> LensStudent(
        NpgsqlConnection connection,
        Id<Master> master,
        Id<Person> student,
        Id<Person> viewer
    ) =>
        [
            .. await connection.QueryAsync<LensStudentRow>(
                Sql.Of("People", "ReadLensStudent"),
                new
                {
                    master = master.Value,
                    student = student.Value,
                    viewer = viewer.Value,
                }
            ),
        ];

    /// <summary>
    /// Whether somebody may look as if they were a student of a section that follows a course: its teachers, and the leads of the course.
    /// </summary>
    public static Task<bool> MayPretend(NpgsqlConnection connection, Id<Master> master, Id<Section> section, Id<Person> viewer) =>
        connection.ExecuteScalarAsync<bool>(
            Sql.Of("People", "ReadMayPretend"),
            new
            {
                master = master.Value,
                section = section.Value,
                viewer = viewer.Value,
            }
        );

    /// <summary>The students of an edition whom <paramref name="viewer"/> teaches, or all for a lead, by section.</summary>
    public static async Task<IReadOnlyList<LensPlaceRow>> StudentsOf(
        NpgsqlConnection connection,
        Id<Edition> edition,
        Id<Person> viewer,
        bool lead
    ) =>
        [
            .. await connection.QueryAsync<LensPlaceRow>(
                StudentsStatement,
                new
                {
                    edition = edition.Value,
                    viewer = viewer.Value,
                    lead,
                }
            ),
        ];

    internal static string StudentsStatement => Sql.Of("People", "ReadStudentsOf");

    public static Task<string?> NameOf(NpgsqlConnection connection, Id<Person> person) =>
        connection.ExecuteScalarAsync<string?>("SELECT name FROM person WHERE id = @Value", person);

    /// <summary>The names of some people.</summary>
    public static async Task<IReadOnlyDictionary<Id<Person>, string>> NamesOf(
        NpgsqlConnection connection,
        IReadOnlyCollection<Id<Person>> people
    ) =>
        (
            await connection.QueryAsync<(Id<Person> Id, string Name)>(
                "SELECT id, name FROM person WHERE id = ANY(@people)",
                new { people = people.Select(person => person.Value).ToArray() }
            )
        ).ToDictionary(one => one.Id, one => one.Name);

    /// <summary>Records something that matters for security.</summary>
    /// <param name="what">Such as <c>signed-in</c> or <c>lens-used</c>.</param>
    /// <param name="about">JSON.</param>
    public static Task Audit(NpgsqlConnection connection, Instant at, Id<Person>? who, string what, string about) =>
        connection.ExecuteAsync(
            "INSERT INTO audit (at, who, what, about) VALUES (@at, @who, @what, @about::jsonb)",
            new
            {
                at,
                who = who?.Value,
                what,
                about,
            }
        );
}
