using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Data.Choices;

/// <summary>What a student picked.</summary>
/// <param name="Option">Null: they took everything back.</param>
/// <param name="By">Whoever picked it for them; null: they themselves.</param>
public sealed record PickRow(Id<Person> Person, string? Option, Instant At, string? By)
{
    /// <summary>The pick as the computation reads it.</summary>
    public Fact Fact(Ref<Item> choice) => new(Person.InPlan(), choice, FactEvent.Picked, At, Option: Option);
}

/// <summary>Picks in choices: only ever added.</summary>
public static class PickStore
{
    /// <summary>What was picked in a choice by some students up to a moment, in the order recorded.</summary>
    /// <param name="locked">Whether no other pick in this choice can come in between until the transaction ends.</param>
    public static async Task<IReadOnlyList<PickRow>> Of(
        NpgsqlConnection connection,
        Id<Item> choice,
        IReadOnlyCollection<Id<Person>> students,
        Instant at,
        bool locked = false
    )
    {
        var values = new
        {
            choice = choice.Value,
            students = students.Select(student => student.Value).ToArray(),
            at,
        };
        // A statement of its own: what it waited for is only seen by a later one.
        if (locked)
            await connection.ExecuteAsync("SELECT pg_advisory_xact_lock(hashtextextended('choice ' || @choice, 0))", values);
        return (
            await connection.QueryAsync<PickRow>(
                """
                SELECT f.person, f.option, f.at, CASE WHEN f.by <> f.person THEN b.name END AS by
                FROM fact f JOIN person b ON b.id = f.by
                WHERE f.item = @choice AND f.person = ANY(@students) AND f.event = 'picked' AND f.voided_at IS NULL AND f.at <= @at
                ORDER BY f.id
                """,
                values
            )
        ).AsList();
    }

    /// <summary>The options of a choice that anybody ever picked.</summary>
    public static async Task<IReadOnlySet<string>> EverPicked(NpgsqlConnection connection, Id<Item> choice) =>
        (
            await connection.QueryAsync<string>(
                "SELECT DISTINCT option FROM fact WHERE item = @Value AND event = 'picked' AND option IS NOT NULL AND voided_at IS NULL",
                choice
            )
        ).ToHashSet(StringComparer.Ordinal);

    /// <summary>Records picks, in their order.</summary>
    /// <param name="options">Null among them takes everything before it back.</param>
    public static Task Record(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> choice,
        Id<Section> section,
        IReadOnlyList<string?> options,
        Id<Person> by,
        Instant at,
        Guid request
    ) =>
        connection.ExecuteAsync(
            """
            INSERT INTO fact (person, item, section, event, at, recorded_at, by, option, request)
            SELECT @person, @choice, @section, 'picked', @at, @at, @by, o.option, CASE o.n WHEN 1 THEN @request ELSE gen_random_uuid() END
            FROM unnest(@options::text[]) WITH ORDINALITY o (option, n)
            ORDER BY o.n
            """,
            new
            {
                person = person.Value,
                choice = choice.Value,
                section = section.Value,
                options = options.ToArray(),
                by = by.Value,
                at,
                request,
            }
        );
}
