using System.Security.Cryptography;
using System.Text;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Ledger;

namespace Polycline.Data.Rosters;

/// <summary>What rosters call people and sections; those that came by none are absent.</summary>
public sealed record RosterKeys(IReadOnlyDictionary<Id<Person>, string> People, IReadOnlyDictionary<Id<Section>, string> Sections);

/// <summary>Somebody whom a roster may mean.</summary>
/// <param name="Key">What the source calls them; null: it has not named them yet.</param>
public sealed record RosterPersonRow(Id<Person> Person, string Name, string Email, bool Removed, bool Teacher, string? Key);

/// <summary>A section of the term.</summary>
public sealed record RosterSectionRow
{
    public required Id<Section> Section { get; init; }

    public required string Name { get; init; }

    public required string Letter { get; init; }

    public required string Subject { get; init; }

    public required string Year { get; init; }

    public required Id<Edition>? Edition { get; init; }

    /// <summary>Its last day, where it ended before the term.</summary>
    public required LocalDate? EndedOn { get; init; }

    /// <summary>What the source calls it; null: it has not named it yet.</summary>
    public required string? Key { get; init; }

    public required Id<Person>[] Teachers { get; init; }
}

/// <summary>A student's place in a section; dates inclusive, null: open.</summary>
public sealed record PlaceRow(long Place, Id<Section> Section, Id<Person> Person, string Name, LocalDate? From, LocalDate? To);

/// <summary>A term's people, sections and places, as far as a roster can be about them.</summary>
public sealed record RosterNow(
    IReadOnlyList<RosterPersonRow> People,
    IReadOnlyList<RosterSectionRow> Sections,
    IReadOnlyList<PlaceRow> Places
);

/// <summary>An import that was made.</summary>
public sealed record RosterImportRow(long Id, Instant At, string By, string File, string Sentence, bool TakenBack);

/// <summary>Reads and writes who is in which section, many at once: each statement takes whole columns.</summary>
public static class RosterStore
{
    public static async Task<RosterNow> Read(
        NpgsqlConnection connection,
        Id<Term> term,
        string source,
        IReadOnlyCollection<string> people,
        IReadOnlyCollection<string> emails
    )
    {
        await using var results = await connection.QueryMultipleAsync(
            Sql.Of("Rosters", "ReadRoster"),
            new
            {
                term = term.Value,
                source,
                people = people.ToArray(),
                emails = emails.ToArray(),
            }
        );
        return new(
            [.. await results.ReadAsync<RosterPersonRow>()],
            [.. await results.ReadAsync<RosterSectionRow>()],
            [.. await results.ReadAsync<PlaceRow>()]
        );
    }

    /// <summary>Adds people who have no password yet.</summary>
    /// <returns>Their ids, in the order given.</returns>
    public static async Task<IReadOnlyList<Id<Person>>> AddPeople(
        NpgsqlConnection connection,
        IReadOnlyList<(string Name, string Email, bool Teacher)> people
    )
    {
        var made = (
            await connection.QueryAsync<(string Email, long Id)>(
                """
                INSERT INTO person (name, email, password_hash, office, teacher)
                SELECT name, email::citext, '', false, teacher FROM unnest(@names, @emails, @teachers) AS added (name, email, teacher)
                RETURNING email::text, id
                """,
                new
                {
                    names = people.Select(person => person.Name).ToArray(),
                    emails = people.Select(person => person.Email).ToArray(),
                    teachers = people.Select(person => person.Teacher).ToArray(),
                }
            )
        ).ToDictionary(row => row.Email, row => new Id<Person>(row.Id), StringComparer.OrdinalIgnoreCase);
        return [.. people.Select(person => made[person.Email])];
    }

    /// <summary>Gives people the names and addresses that a source has for them.</summary>
    public static Task ChangePeople(NpgsqlConnection connection, IReadOnlyList<(Id<Person> Person, string Name, string Email)> people) =>
        connection.ExecuteAsync(
            """
            UPDATE person p SET name = changed.name, email = changed.email::citext
            FROM unnest(@ids, @names, @emails) AS changed (id, name, email) WHERE p.id = changed.id
            """,
            new
            {
                ids = people.Select(person => person.Person.Value).ToArray(),
                names = people.Select(person => person.Name).ToArray(),
                emails = people.Select(person => person.Email).ToArray(),
            }
        );

    /// <summary>Makes them teachers of the school.</summary>
    public static Task MakeTeachers(NpgsqlConnection connection, IReadOnlyList<Id<Person>> people) =>
        connection.ExecuteAsync("UPDATE person SET teacher = true WHERE id = ANY(@people)", new { people = Ids(people) });

    /// <summary>Keeps what a source calls people or sections. A key that stands for something already goes on standing for it.</summary>
    /// <param name="kind"><c>person</c> or <c>section</c>.</param>
    public static Task Name(NpgsqlConnection connection, string source, string kind, IReadOnlyList<(string Key, long About)> keys) =>
        connection.ExecuteAsync(
            """
            INSERT INTO roster_key (source, kind, key, about)
            SELECT @source, @kind, key, about FROM unnest(@keys, @about) AS named (key, about)
            ON CONFLICT (source, kind, key) DO NOTHING
            """,
            new
            {
                source,
                kind,
                keys = keys.Select(one => one.Key).ToArray(),
                about = keys.Select(one => one.About).ToArray(),
            }
        );

    /// <summary>What rosters call people and the sections of an edition; of several names the first in order.</summary>
    public static async Task<RosterKeys> Keys(NpgsqlConnection connection, Id<Edition> edition)
    {
        var keys = (
            await connection.QueryAsync<(string Kind, long About, string Key)>(
                """
                SELECT k.kind, k.about, min(k.key) FROM roster_key k
                WHERE k.kind = 'section' AND k.about IN (SELECT id FROM section WHERE edition = @Value)
                  OR k.kind = 'person' AND k.about IN (
                    SELECT n.person FROM place n JOIN section c ON c.id = n.section WHERE c.edition = @Value)
                GROUP BY k.kind, k.about
                """,
                edition
            )
        ).AsList();
        return new(
            keys.Where(key => key.Kind == "person").ToDictionary(key => new Id<Person>(key.About), key => key.Key),
            keys.Where(key => key.Kind == "section").ToDictionary(key => new Id<Section>(key.About), key => key.Key)
        );
    }

    /// <summary>Takes away what a source calls people or sections.</summary>
    public static Task Unname(NpgsqlConnection connection, string source, string kind, IReadOnlyList<string> keys) =>
        connection.ExecuteAsync(
            "DELETE FROM roster_key WHERE source = @source AND kind = @kind AND key = ANY(@keys)",
            new
            {
                source,
                kind,
                keys = keys.ToArray(),
            }
        );

    /// <summary>Lets people teach sections.</summary>
    public static Task AddTeachers(NpgsqlConnection connection, IReadOnlyList<(Id<Section> Section, Id<Person> Person)> teachers) =>
        connection.ExecuteAsync(
            "INSERT INTO section_teacher (section, person) SELECT * FROM unnest(@sections, @people) ON CONFLICT DO NOTHING",
            new
            {
                sections = teachers.Select(one => one.Section.Value).ToArray(),
                people = teachers.Select(one => one.Person.Value).ToArray(),
            }
        );

    /// <summary>No longer lets people teach sections.</summary>
    public static Task TakeTeachers(NpgsqlConnection connection, IReadOnlyList<(Id<Section> Section, Id<Person> Person)> teachers) =>
        connection.ExecuteAsync(
            "DELETE FROM section_teacher st USING unnest(@sections, @people) AS gone (section, person) "
                + "WHERE st.section = gone.section AND st.person = gone.person",
            new
            {
                sections = teachers.Select(one => one.Section.Value).ToArray(),
                people = teachers.Select(one => one.Person.Value).ToArray(),
            }
        );

    /// <summary>Gives people places in sections.</summary>
    /// <returns>The ids of the places.</returns>
    public static async Task<IReadOnlyList<long>> AddPlaces(
        NpgsqlConnection connection,
        IReadOnlyList<(Id<Section> Section, Id<Person> Person, LocalDate From, LocalDate? To)> places
    ) =>
        [
            .. await connection.QueryAsync<long>(
                """
                INSERT INTO enrolment (section, person, period)
                SELECT section, person, daterange(first, last, '[]')
                FROM unnest(@sections, @people, @first::date[], @last::date[]) AS added (section, person, first, last)
                RETURNING id
                """,
                new
                {
                    sections = places.Select(place => place.Section.Value).ToArray(),
                    people = places.Select(place => place.Person.Value).ToArray(),
                    first = places.Select(place => place.From).ToArray(),
                    last = places.Select(place => place.To).ToArray(),
                }
            ),
        ];

    /// <summary>Sets the last dates of places, inclusive; null: open.</summary>
    public static Task EndPlaces(NpgsqlConnection connection, IReadOnlyList<(long Place, LocalDate? To)> places) =>
        connection.ExecuteAsync(
            """
            UPDATE enrolment n SET period = daterange(lower(n.period), ended.last, '[]'), version = version + 1
            FROM unnest(@places, @last::date[]) AS ended (place, last) WHERE n.id = ended.place
            """,
            new { places = places.Select(place => place.Place).ToArray(), last = places.Select(place => place.To).ToArray() }
        );

    /// <summary>Takes places away of people who have done nothing in the section since.</summary>
    /// <returns>Which could be taken away.</returns>
    public static async Task<IReadOnlyList<long>> RemovePlaces(NpgsqlConnection connection, IReadOnlyCollection<long> places) =>
        [
            .. await connection.QueryAsync<long>(
                """
                DELETE FROM enrolment n WHERE n.id = ANY(@places)
                  AND NOT EXISTS (SELECT 1 FROM fact f WHERE f.person = n.person AND f.section = n.section)
                  AND NOT EXISTS (SELECT 1 FROM draft d JOIN item i ON i.id = d.item JOIN section c ON c.id = n.section
                                  WHERE d.person = n.person AND i.edition = c.edition)
                RETURNING n.id
                """,
                new { places = places.ToArray() }
            ),
        ];

    /// <summary>Raises the counters of the editions that these sections follow, so that everybody reads them anew.</summary>
    public static async Task Tell(NpgsqlConnection connection, IReadOnlyCollection<Id<Section>> sections)
    {
        var raised = await connection.QueryAsync<(long Edition, long Version)>(
            """
            UPDATE edition SET version = version + 1
            WHERE id IN (SELECT edition FROM section WHERE id = ANY(@sections)) RETURNING id, version
            """,
            new { sections = Ids(sections) }
        );
        foreach (var (edition, version) in raised)
            await LedgerStore.Tell(connection, Scope.Of(new Id<Edition>(edition)), version);
    }

    /// <summary>Keeps what an import wrote.</summary>
    public static Task<long> Keep(
        NpgsqlConnection connection,
        Id<Term> term,
        Id<Person> by,
        Instant at,
        string file,
        string sentence,
        string written
    ) =>
        connection.ExecuteScalarAsync<long>(
            """
            INSERT INTO roster_import (at, by, term, file, sentence, written)
            VALUES (@at, @by, @term, @file, @sentence, @written::jsonb) RETURNING id
            """,
            new
            {
                at,
                by = by.Value,
                term = term.Value,
                file,
                sentence,
                written,
            }
        );

    /// <summary>The latest imports into a term, newest first.</summary>
    public static async Task<IReadOnlyList<RosterImportRow>> Imports(NpgsqlConnection connection, Id<Term> term) =>
        [
            .. await connection.QueryAsync<RosterImportRow>(
                """
                SELECT r.id, r.at, p.name AS by, r.file, r.sentence, r.taken_back_at IS NOT NULL AS taken_back
                FROM roster_import r JOIN person p ON p.id = r.by WHERE r.term = @Value ORDER BY r.id DESC LIMIT 20
                """,
                term
            ),
        ];

    /// <summary>What an import into a term wrote, locked; null where there is none that is in force.</summary>
    public static Task<string?> Written(NpgsqlConnection connection, Id<Term> term, long import) =>
        connection.ExecuteScalarAsync<string?>(
            "SELECT written::text FROM roster_import WHERE id = @import AND term = @Value AND taken_back_at IS NULL FOR UPDATE",
            new { import, term.Value }
        );

    public static Task TakenBack(NpgsqlConnection connection, long import, Instant at) =>
        connection.ExecuteAsync("UPDATE roster_import SET taken_back_at = @at WHERE id = @import", new { import, at });

    /// <summary>What the columns of a table with these headings were last said to be; null: nothing yet.</summary>
    public static Task<string?> Columns(NpgsqlConnection connection, string headings) =>
        connection.ExecuteScalarAsync<string?>("SELECT value FROM setting WHERE key = @key", new { key = KeyOf(headings) });

    /// <summary>Remembers what the columns of a table with these headings are.</summary>
    public static Task RememberColumns(NpgsqlConnection connection, string headings, string columns) =>
        connection.ExecuteAsync(
            "INSERT INTO setting (key, value) VALUES (@key, @columns) ON CONFLICT (key) DO UPDATE SET value = excluded.value",
            new { key = KeyOf(headings), columns }
        );

    private static string KeyOf(string headings) =>
        $"roster-columns {Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(headings)))}";

    private static long[] Ids<T>(IReadOnlyCollection<Id<T>> ids) => [.. ids.Select(id => id.Value)];
}
