using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>An edition somebody works on.</summary>
public sealed record EditionRow(Id<Edition> Edition, string Course, string Subject, string Title, string State, string Role, int Sections);

/// <summary>A section somebody is a student of.</summary>
public sealed record OwnSectionRow(
    Id<Section> Section,
    string Name,
    string? Course,
    string TermName,
    string TermZone,
    LocalDate From,
    LocalDate To
);

/// <summary>A term, for the office.</summary>
public sealed record TermRow(Id<Term> Term, string Name, string Zone, LocalDate First, LocalDate Last, int Sections);

/// <param name="School">What the school is called; null: it has not been named.</param>
/// <param name="SchoolCourses">Everybody’s that are not past, for the office.</param>
public sealed record OwnPlaces(
    IReadOnlyList<EditionRow> Courses,
    IReadOnlyList<OwnSectionRow> Sections,
    IReadOnlyList<TermRow> Terms,
    string? School,
    IReadOnlyList<EditionRow> SchoolCourses
);

/// <summary>Where somebody can go from their first page.</summary>
public static class PlacesStore
{
    public static async Task<OwnPlaces> Of(NpgsqlConnection connection, Id<Person> person, bool allTerms, bool office)
    {
        await using var results = await connection.QueryMultipleAsync(
            Sql.Of("People", "ReadPlaces"),
            new
            {
                person = person.Value,
                allTerms,
                office,
            }
        );
        return new(
            [.. await results.ReadAsync<EditionRow>()],
            [.. await results.ReadAsync<OwnSectionRow>()],
            [.. await results.ReadAsync<TermRow>()],
            await results.ReadSingleOrDefaultAsync<string?>(),
            [.. await results.ReadAsync<EditionRow>()]
        );
    }
}
