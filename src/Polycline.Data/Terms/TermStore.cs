using System.Data;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Data.Courses;

namespace Polycline.Data.Terms;

/// <summary>Reads terms, makes and removes them.</summary>
public static class TermStore
{
    private sealed record TermRow(
        string Name,
        string Zone,
        LocalDate First,
        LocalDate Last,
        string Calendar,
        long Version,
        long OwnVersion,
        string Settings
    );

    private sealed record SectionRow
    {
        public required Id<Section> Id { get; init; }
        public required string Name { get; init; }
        public required string Letter { get; init; }
        public required string Subject { get; init; }
        public required string Year { get; init; }
        public required Id<Edition>? Edition { get; init; }
        public required long Version { get; init; }
        public required string Slots { get; init; }
        public required string[] Teachers { get; init; }
        public required int Students { get; init; }
        public required LocalDate? EndedOn { get; init; }
        public required bool Pretend { get; init; }
    }

    /// <summary>The term that runs on a day, or else the next one; null: there is none.</summary>
    public static async Task<TermPlan?> Running(NpgsqlConnection connection, LocalDate day) =>
        await connection.QueryFirstOrDefaultAsync<Id<Term>?>(
            "SELECT id FROM term WHERE last >= @day ORDER BY first, id LIMIT 1",
            new { day }
        )
            is { } term
            ? await Read(connection, term)
            : null;

    /// <summary>Reads a term. In a transaction of the caller's, it must be REPEATABLE READ or hold the term's lock.</summary>
    /// <returns>Null where there is no such term.</returns>
    public static async Task<TermPlan?> Read(NpgsqlConnection connection, Id<Term> term)
    {
        await using var results = await connection.QueryMultipleAsync(Sql.Of("Terms", "ReadTerm"), new { term = term.Value });
        if (await results.ReadSingleOrDefaultAsync<TermRow>() is not { } row)
            return null;
        var days = (await results.ReadAsync<CalendarDayRow>()).AsList();
        var sections = (await results.ReadAsync<SectionRow>()).AsList();
        var changes = (await results.ReadAsync<MeetingChangeRow>()).ToLookup(change => change.Section);
        var editions = await results.ReadAsync<EditionCounters>();
        return new(
            term,
            new(row.Name, DateTimeZoneProviders.Tzdb[row.Zone], row.First, row.Last, PlanParts.Calendar(row.Calendar)),
            row.Version,
            row.OwnVersion,
            row.Settings,
            [.. days],
            [
                .. sections.Select(section => new TermSection
                {
                    Id = section.Id,
                    Name = section.Name,
                    Letter = section.Letter,
                    Subject = section.Subject,
                    Year = section.Year,
                    Edition = section.Edition,
                    Version = section.Version,
                    Slots = PlanParts.Slots(section.Slots),
                    SlotsJson = section.Slots,
                    Teachers = [.. section.Teachers],
                    Students = section.Students,
                    EndedOn = section.EndedOn,
                    Pretend = section.Pretend,
                    Changes = [.. changes[section.Id].Select(change => PlanParts.MeetingChange(change.Change))],
                }),
            ],
            [.. editions]
        );
    }

    /// <summary>Reads a term in a transaction of its own.</summary>
    public static Task<TermPlan?> Read(Database database, Id<Term> term, CancellationToken stop) =>
        database.Within(IsolationLevel.RepeatableRead, connection => Read(connection, term), stop);

    /// <summary>Locks every edition taught in a term, and then the term, against other changes until the transaction ends.</summary>
    /// <param name="stop">Cancels the wait for the locks.</param>
    public static Task Lock(NpgsqlConnection connection, Id<Term> term, CancellationToken stop = default) =>
        connection.ExecuteAsync(
            new(
                "SELECT 1 FROM edition WHERE term = @Value ORDER BY id FOR UPDATE; SELECT 1 FROM term WHERE id = @Value FOR UPDATE",
                term,
                cancellationToken: stop
            )
        );

    /// <param name="settings">Weekdays, rotation, periods and off-days, in the plan file's form.</param>
    public static async Task<Id<Term>> Add(NpgsqlConnection connection, Term term, string settings) =>
        new(
            await connection.ExecuteScalarAsync<long>(
                """
                INSERT INTO term (name, zone, first, last, settings)
                VALUES (@Name, @zone, @First, @Last, @settings::jsonb)
                RETURNING id
                """,
                new
                {
                    term.Name,
                    zone = term.Zone.Id,
                    term.First,
                    term.Last,
                    settings,
                }
            )
        );

    /// <summary>Whether a term of that name is there.</summary>
    public static Task<bool> IsNamed(NpgsqlConnection connection, string name) =>
        connection.ExecuteScalarAsync<bool>("SELECT EXISTS (SELECT 1 FROM term WHERE name = @name)", new { name });

    /// <summary>Removes a term in which nothing stands, with everything marked in it.</summary>
    /// <exception cref="PostgresException">PC003: a section meets in it, or an edition is planned for it.</exception>
    public static Task Remove(NpgsqlConnection connection, Id<Term> term) => connection.ExecuteAsync("SELECT remove_term(@Value)", term);
}
