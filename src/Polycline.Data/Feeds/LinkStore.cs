using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Ledger;

namespace Polycline.Data.Feeds;

/// <summary>A private link that is in force.</summary>
/// <param name="Kind"><c>section-calendar</c>, <c>teacher-calendar</c> or <c>student-calendar</c>.</param>
/// <param name="Section">Of a section's calendar.</param>
public sealed record LinkRow(string Kind, Id<Person> Person, string PersonName, Id<Section>? Section);

/// <summary>What somebody may have a private link to.</summary>
/// <param name="MadeAt">Since when they have one; null: they have none.</param>
/// <param name="Zone">The school's.</param>
public sealed record LinkChoice(string Kind, Id<Section>? Section, string? SectionName, Instant? MadeAt, string Zone);

/// <summary>A section that a feed tells of.</summary>
public sealed record FeedSection
{
    public required Id<Section> Section { get; init; }

    public required Id<Edition> Edition { get; init; }

    public required long EditionVersion { get; init; }

    public required long TermVersion { get; init; }

    /// <summary>With <see cref="To"/>: the dates between which it lists the student; null: no such end, or no student.</summary>
    public required LocalDate? From { get; init; }

    public required LocalDate? To { get; init; }

    /// <summary>The latest change of its course or term: it only ever grows.</summary>
    public required Id<Batch> Batch { get; init; }

    public required Instant? ChangedAt { get; init; }

    /// <summary>For a person's calendar, whether the term ended over four weeks ago: their calendar is about the present.</summary>
    public required bool IsOver { get; init; }
}

/// <summary>Private links, and what they lead to.</summary>
public static class LinkStore
{
    /// <summary>Null if no such link is in force or its owner may no longer have it.</summary>
    public static Task<LinkRow?> Find(NpgsqlConnection connection, byte[] tokenHash) =>
        connection.QuerySingleOrDefaultAsync<LinkRow?>(
            """
            SELECT l.kind, l.person, p.name AS person_name, l.section
            FROM private_link l
            JOIN person p ON p.id = l.person AND p.removed_at IS NULL
            WHERE l.token_hash = @tokenHash AND l.withdrawn_at IS NULL
              AND (l.section IS NULL OR EXISTS (SELECT 1 FROM section_teacher st WHERE st.section = l.section AND st.person = l.person))
            """,
            new { tokenHash }
        );

    /// <summary>What somebody may have a link to, and since when they have one.</summary>
    public static async Task<IReadOnlyList<LinkChoice>> Of(NpgsqlConnection connection, Id<Person> person) =>
        [
            .. await connection.QueryAsync<LinkChoice>(
                """
                WITH choices AS (
                  SELECT 1 AS place, 'teacher-calendar' AS kind, NULL::bigint AS section, NULL::text AS name
                    WHERE EXISTS (SELECT 1 FROM section_teacher WHERE person = @person)
                  UNION ALL
                  SELECT 2, 'section-calendar', c.id, c.name FROM section_teacher st
                    JOIN section c ON c.id = st.section AND c.edition IS NOT NULL WHERE st.person = @person
                  UNION ALL
                  SELECT 3, 'student-calendar', NULL, NULL WHERE EXISTS (SELECT 1 FROM enrolment WHERE person = @person)
                )
                SELECT c.kind, c.section, c.name AS section_name, l.made_at, (SELECT zone FROM term ORDER BY first DESC LIMIT 1) AS zone
                FROM choices c
                LEFT JOIN private_link l ON l.person = @person AND l.kind = c.kind
                  AND l.section IS NOT DISTINCT FROM c.section AND l.withdrawn_at IS NULL
                ORDER BY c.place, c.name
                """,
                new { person = person.Value }
            ),
        ];

    /// <summary>Ends the link that somebody has, if any.</summary>
    public static Task<int> Withdraw(NpgsqlConnection connection, Id<Person> person, string kind, Id<Section>? section, Instant now) =>
        connection.ExecuteAsync(
            "UPDATE private_link SET withdrawn_at = @now WHERE person = @person AND kind "
                + "= @kind AND section IS NOT DISTINCT FROM @section AND withdrawn_at IS NULL",
            new
            {
                person = person.Value,
                kind,
                section,
                now,
            }
        );

    public static Task Add(
        NpgsqlConnection connection,
        byte[] tokenHash,
        Id<Person> person,
        string kind,
        Id<Section>? section,
        Instant now
    ) =>
        connection.ExecuteAsync(
            """
            INSERT INTO private_link (token_hash, kind, person, section, made_at) VALUES (@tokenHash, @kind, @person, @section, @now);
            INSERT INTO audit (at, who, what, about) VALUES (@now, @person, 'link-made',
              jsonb_build_object('kind', @kind::text, 'section', @section::bigint))
            """,
            new
            {
                tokenHash,
                kind,
                person = person.Value,
                section,
                now,
            }
        );

    /// <summary>The sections that a link tells of, those that follow a course.</summary>
    public static async Task<IReadOnlyList<FeedSection>> Sections(NpgsqlConnection connection, LinkRow link, Instant at) =>
        [
            .. await connection.QueryAsync<FeedSection>(
                Sql.Of("Feeds", "ReadSections"),
                new
                {
                    link.Kind,
                    link.Person,
                    link.Section,
                    at,
                }
            ),
        ];
}
