using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.PlanFiles;

namespace Polycline.Data.Terms;

/// <summary>A term as it stood at one counter.</summary>
public sealed record StoredTerm(Term Term, long Version);

/// <summary>Reads terms.</summary>
public static class TermStore
{
    private sealed record TermRow(string Name, string Zone, LocalDate First, LocalDate Last, string Calendar, long Version);

    /// <returns>Null where there is no such term.</returns>
    public static async Task<StoredTerm?> Read(NpgsqlConnection connection, Id<Term> term)
    {
        var row = await connection.QuerySingleOrDefaultAsync<TermRow?>(
            "SELECT name, zone, first, last, calendar::text, version FROM term WHERE id = @Value", term);
        return row is null
            ? null
            : new(new(row.Name, DateTimeZoneProviders.Tzdb[row.Zone], row.First, row.Last, PlanParts.Calendar(row.Calendar)), row.Version);
    }
}
