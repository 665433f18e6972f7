using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core.Sections;
using Polycline.Core;

namespace Polycline.Data.Sections;

/// <summary>What a section is, for whoever may know of it.</summary>
public sealed record SectionRow(long Id, string Name, string? Course, string TermName, LocalDate First, LocalDate Last, string[] Teachers);

/// <summary>Reads sections.</summary>
public static class SectionStore
{
    public static Task<SectionRow?> Read(NpgsqlConnection connection, Id<Section> section) =>
        connection.QuerySingleOrDefaultAsync<SectionRow?>(Sql.Of("Sections", "ReadSection"), new { section = section.Value });
}
