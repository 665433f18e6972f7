using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Sections;

/// <summary>What a section is, for whoever may know of it.</summary>
public sealed record SectionRow(
    Id<Section> Id,
    string Name,
    string? Course,
    string TermName,
    LocalDate First,
    LocalDate Last,
    bool Pretend,
    string[] Teachers
);

/// <summary>A section that may come to follow a course.</summary>
/// <param name="Holds">The course that it alone follows until now; null: none.</param>
public sealed record JoinableRow(Id<Section> Id, string Name, string Letter, long Version, string? Holds);

/// <summary>A section that is about to be made.</summary>
/// <param name="Slots">When it meets, in the plan file's form.</param>
public sealed record SectionToAdd(string Name, string Letter, string Subject, string Year, string Slots);

/// <summary>Reads sections, makes and removes them.</summary>
public static class SectionStore
{
    public static Task<SectionRow?> Read(NpgsqlConnection connection, Id<Section> section) =>
        connection.QuerySingleOrDefaultAsync<SectionRow?>(Sql.Of("Sections", "ReadSection"), new { section = section.Value });

    /// <summary>The sections of a term that somebody teaches and that follow nothing, or alone a course that they lead.</summary>
    public static async Task<IReadOnlyList<JoinableRow>> Joinable(
        NpgsqlConnection connection,
        Id<Term> term,
        Id<Person> teacher,
        Id<Edition> edition
    ) =>
        [
            .. await connection.QueryAsync<JoinableRow>(
                """
                SELECT c.id, c.name, c.letter, c.version, m.title AS holds
                FROM section c
                JOIN section_teacher st ON st.section = c.id AND st.person = @teacher
                LEFT JOIN edition e ON e.id = c.edition
                LEFT JOIN master m ON m.id = e.master
                WHERE c.term = @term
                  AND (c.edition IS NULL
                    OR (c.edition <> @edition
                      AND NOT EXISTS (
                        SELECT 1 FROM section other WHERE other.edition = c.edition AND other.id <> c.id AND other.pretend IS NULL)
                      AND EXISTS (SELECT 1 FROM master_member mm WHERE mm.master = e.master AND mm.person = @teacher AND mm.role = 'lead')))
                ORDER BY c.name
                """,
                new
                {
                    term = term.Value,
                    teacher = teacher.Value,
                    edition = edition.Value,
                }
            ),
        ];

    /// <summary>Whether each of these people has an account that is in use.</summary>
    public static async Task<bool> AreInUse(NpgsqlConnection connection, IReadOnlyCollection<Id<Person>> people) =>
        await connection.ExecuteScalarAsync<int>(
            "SELECT count(*) FROM person WHERE id = ANY(@people) AND removed_at IS NULL",
            new { people = people.Select(person => person.Value).ToArray() }
        ) == people.Count;

    /// <summary>Removes a section that follows nothing and has never had a student.</summary>
    /// <exception cref="PostgresException">PC003: something stands in it.</exception>
    public static Task Remove(NpgsqlConnection connection, Id<Section> section) =>
        connection.ExecuteAsync("SELECT remove_section(@Value)", section);

    /// <summary>Removes those of these sections that follow nothing and have no students any more.</summary>
    /// <returns>Which were removed.</returns>
    /// <exception cref="PostgresException">PC003: something else stands in one of them.</exception>
    public static async Task<IReadOnlySet<Id<Section>>> RemoveEmpty(
        NpgsqlConnection connection,
        IReadOnlyCollection<Id<Section>> sections
    ) =>
        (
            await connection.QueryAsync<Id<Section>>(
                """
                WITH empty AS MATERIALIZED (
                  SELECT id FROM section c
                  WHERE id = ANY(@sections) AND edition IS NULL AND NOT EXISTS (SELECT 1 FROM enrolment n WHERE n.section = c.id)
                )
                SELECT id FROM empty, LATERAL (SELECT remove_section(id)) AS removed
                """,
                new { sections = sections.Select(section => section.Value).ToArray() }
            )
        ).ToHashSet();

    /// <summary>Makes a section that follows nothing yet.</summary>
    public static async Task<Id<Section>> Add(
        NpgsqlConnection connection,
        Id<Term> term,
        SectionToAdd section,
        IReadOnlyCollection<Id<Person>> teachers
    )
    {
        var made = await connection.ExecuteScalarAsync<long>(
            """
            INSERT INTO section (name, letter, subject, year, slots, term)
            VALUES (@Name, @Letter, @Subject, @Year, @Slots::jsonb, @term)
            RETURNING id
            """,
            new
            {
                section.Name,
                section.Letter,
                section.Subject,
                section.Year,
                section.Slots,
                term = term.Value,
            }
        );
        await connection.ExecuteAsync(
            "INSERT INTO section_teacher (section, person) SELECT @section, unnest(@teachers)",
            new { section = made, teachers = teachers.Select(person => person.Value).ToArray() }
        );
        return new(made);
    }
}
