using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Choices;

/// <summary>A student’s place in the queue for a full option.</summary>
/// <param name="CameUpAt">When a place came free for them; null: they still wait.</param>
public sealed record QueueRow(Id<Person> Person, string Option, Instant At, Instant? CameUpAt);

/// <summary>A choice with somebody of a section in a queue, and the versions from which its plan is compiled.</summary>
public sealed record WaitedFor(Id<Item> Item, Id<Section> Section, Id<Edition> Edition, long Version, long TermVersion);

/// <summary>The queues for full options of choices.</summary>
public static class QueueStore
{
    /// <summary>A section’s students in the queues of a choice, in the order in which they joined.</summary>
    public static async Task<IReadOnlyList<QueueRow>> Of(NpgsqlConnection connection, Id<Item> choice, Id<Section> section) =>
        (
            await connection.QueryAsync<QueueRow>(
                "SELECT person, option, at, came_up_at FROM option_queue WHERE item = @choice AND section = @section ORDER BY id",
                new { choice = choice.Value, section = section.Value }
            )
        ).AsList();

    /// <summary>Adds a student to the end of an option’s queue.</summary>
    public static Task Join(
        NpgsqlConnection connection,
        Id<Item> choice,
        Id<Section> section,
        Id<Person> person,
        string option,
        Instant at
    ) =>
        connection.ExecuteAsync(
            """
            INSERT INTO option_queue (item, section, person, option, at) VALUES (@choice, @section, @person, @option, @at)
            ON CONFLICT DO NOTHING
            """,
            new
            {
                choice = choice.Value,
                section = section.Value,
                person = person.Value,
                option,
                at,
            }
        );

    /// <summary>Takes a student out of some queues of a choice.</summary>
    public static Task Leave(NpgsqlConnection connection, Id<Item> choice, Id<Person> person, IReadOnlyList<string> options) =>
        connection.ExecuteAsync(
            "DELETE FROM option_queue WHERE item = @choice AND person = @person AND option = ANY(@options)",
            new
            {
                choice = choice.Value,
                person = person.Value,
                options = options.ToArray(),
            }
        );

    /// <summary>A place came free for a student.</summary>
    public static Task CameUp(NpgsqlConnection connection, Id<Item> choice, Id<Person> person, string option, Instant at) =>
        connection.ExecuteAsync(
            "UPDATE option_queue SET came_up_at = @at WHERE item = @choice AND person = @person AND option = @option",
            new
            {
                choice = choice.Value,
                person = person.Value,
                option,
                at,
            }
        );

    /// <summary>Choices with somebody in a queue.</summary>
    public static async Task<IReadOnlyList<WaitedFor>> Waiting(NpgsqlConnection connection) =>
        (
            await connection.QueryAsync<WaitedFor>(
                """
                SELECT q.item, q.section, e.id AS edition, e.version, t.version AS term_version
                FROM (SELECT DISTINCT item, section FROM option_queue WHERE came_up_at IS NULL) q
                JOIN section c ON c.id = q.section
                JOIN edition e ON e.id = c.edition
                JOIN term t ON t.id = e.term
                WHERE e.state <> 'resting'
                ORDER BY q.item, q.section
                """
            )
        ).AsList();
}
