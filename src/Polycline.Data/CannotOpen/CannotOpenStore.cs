using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.CannotOpen;

/// <summary>A student has said that they cannot open something.</summary>
/// <param name="Note">What they said of it; it may be empty.</param>
/// <param name="WasOpen">It was open to them, and something in it was not.</param>
public sealed record CannotOpenRow(
    Id<CannotOpenRow> Id,
    Id<Person> Person,
    Id<Item> Item,
    Id<Section> Section,
    string Note,
    Instant SaidAt,
    bool WasOpen
);

/// <summary>What students have said they cannot open, until it is settled.</summary>
public static class CannotOpenStore
{
    /// <summary>When a student said so of an item; with <c>person</c> and <c>item</c>.</summary>
    internal const string OwnStatement = "SELECT said_at FROM cannot_open WHERE person = @person AND item = @item AND settled_at IS NULL";

    /// <summary>All of an edition that is not settled, the oldest first; with <c>edition</c>.</summary>
    internal const string EditionStatement = """
        SELECT c.id, c.person, c.item, c.section, c.note, c.said_at, c.was_open
        FROM cannot_open c
        JOIN item i ON i.id = c.item
        WHERE i.edition = @edition AND c.settled_at IS NULL
          -- What was shut to them, and they have opened since, has settled itself.
          AND (c.was_open OR NOT EXISTS (SELECT 1 FROM fact f WHERE f.item = c.item AND f.person = c.person AND f.event = 'opened'
                                         AND f.voided_at IS NULL AND f.at > c.said_at))
        ORDER BY c.said_at, c.id
        """;

    /// <summary>Keeps what a student says; said again of the same item, it replaces what they said before.</summary>
    public static Task Say(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item,
        Id<Section> section,
        string note,
        bool wasOpen,
        Instant at
    ) =>
        connection.ExecuteAsync(
            """
            INSERT INTO cannot_open (person, item, section, note, said_at, was_open) VALUES (@person, @item, @section, @note, @at, @wasOpen)
            ON CONFLICT (person, item) WHERE settled_at IS NULL
            DO UPDATE SET note = EXCLUDED.note, said_at = EXCLUDED.said_at, was_open = EXCLUDED.was_open, section = EXCLUDED.section
            """,
            new
            {
                person = person.Value,
                item = item.Value,
                section = section.Value,
                note,
                wasOpen,
                at,
            }
        );

    /// <summary>One that is not settled yet, in an edition; null: there is none.</summary>
    public static async Task<CannotOpenRow?> Of(NpgsqlConnection connection, Id<Edition> edition, Id<CannotOpenRow> id) =>
        (await connection.QueryAsync<CannotOpenRow>(EditionStatement, new { edition = edition.Value })).FirstOrDefault(row => row.Id == id);

    /// <summary>Settles it.</summary>
    public static Task Settle(NpgsqlConnection connection, Id<CannotOpenRow> id, Id<Person> by, Instant at) =>
        connection.ExecuteAsync(
            "UPDATE cannot_open SET settled_at = @at, settled_by = @by WHERE id = @id AND settled_at IS NULL",
            new
            {
                id = id.Value,
                by = by.Value,
                at,
            }
        );
}
