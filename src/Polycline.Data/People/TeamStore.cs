using Dapper;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>Somebody on the team of a course.</summary>
/// <param name="Role"><c>lead</c>, <c>co</c>, <c>sections</c> or <c>reader</c>.</param>
/// <param name="Invited">They have no password yet.</param>
public sealed record TeamMemberRow(Id<Person> Person, string Name, string Email, string Role, bool Removed, bool Invited);

/// <summary>A section of the edition, and who teaches it.</summary>
/// <param name="Students">How many it lists or has listed.</param>
public sealed record TeamSectionRow(Id<Section> Id, string Name, string Letter, int Students, Id<Person>[] Teachers);

/// <summary>Reads and changes who is on the team of a course. It is read anew at every request, so a change counts at once.</summary>
public static class TeamStore
{
    public static async Task<(IReadOnlyList<TeamMemberRow> Members, IReadOnlyList<TeamSectionRow> Sections)> Read(
        NpgsqlConnection connection,
        Id<Edition> edition
    )
    {
        await using var results = await connection.QueryMultipleAsync(Sql.Of("People", "ReadTeam"), new { edition = edition.Value });
        return ([.. await results.ReadAsync<TeamMemberRow>()], [.. await results.ReadAsync<TeamSectionRow>()]);
    }

    /// <summary>Locks the team of a course until the transaction ends, so that two leads cannot both make way for each other.</summary>
    public static Task Lock(NpgsqlConnection connection, Id<Master> master) =>
        connection.ExecuteAsync("SELECT 1 FROM master_member WHERE master = @Value ORDER BY person FOR UPDATE", master);

    public static Task Set(NpgsqlConnection connection, Id<Master> master, Id<Person> person, string role) =>
        connection.ExecuteAsync(
            """
            INSERT INTO master_member (master, person, role) VALUES (@master, @person, @role)
            ON CONFLICT (master, person) DO UPDATE SET role = excluded.role
            """,
            new
            {
                master = master.Value,
                person = person.Value,
                role,
            }
        );

    public static Task Remove(NpgsqlConnection connection, Id<Master> master, Id<Person> person) =>
        connection.ExecuteAsync(
            "DELETE FROM master_member WHERE master = @master AND person = @person",
            new { master = master.Value, person = person.Value }
        );

    /// <summary>Makes these the sections of an edition that somebody teaches, and no others of it.</summary>
    public static Task Teaches(
        NpgsqlConnection connection,
        Id<Edition> edition,
        Id<Person> person,
        IReadOnlyCollection<Id<Section>> sections
    ) =>
        connection.ExecuteAsync(
            """
            DELETE FROM section_teacher st USING section c
            WHERE c.id = st.section AND c.edition = @edition AND st.person = @person AND NOT st.section = ANY(@sections);
            INSERT INTO section_teacher (section, person)
            SELECT id, @person FROM section WHERE edition = @edition AND id = ANY(@sections) ON CONFLICT DO NOTHING;
            """,
            new
            {
                edition = edition.Value,
                person = person.Value,
                sections = sections.Select(section => section.Value).ToArray(),
            }
        );

    /// <summary>Raises the counter of an edition, so that everybody reads anew who teaches its sections.</summary>
    public static async Task Tell(NpgsqlConnection connection, Id<Edition> edition)
    {
        var version = await connection.ExecuteScalarAsync<long>(
            "UPDATE edition SET version = version + 1 WHERE id = @Value RETURNING version",
            edition
        );
        await Ledger.LedgerStore.Tell(connection, Ledger.Scope.Of(edition), version);
    }
}
