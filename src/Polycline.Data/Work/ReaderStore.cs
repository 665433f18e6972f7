using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Work;

/// <param name="Person">Whose piece it is.</param>
/// <param name="Since">When they said so last.</param>
public sealed record ReaderRow(Id<Item> Item, Id<Person> Person, string By, Instant Since);

/// <summary>Who is reading which piece. It is a courtesy among colleagues, not a lock: it ends by itself.</summary>
public static class ReaderStore
{
    /// <summary>How long somebody counts as reading a piece after they last wrote something on it.</summary>
    public static readonly Duration Lasts = Duration.FromMinutes(30);

    /// <summary>Says that somebody reads a piece, unless somebody else does.</summary>
    /// <param name="over">Takes it over from whoever reads it.</param>
    /// <returns>Who reads it now.</returns>
    public static Task<(Id<Person> By, string Name, Instant Since)> Take(
        NpgsqlConnection connection,
        Id<Item> item,
        Id<Person> person,
        Id<Person> by,
        bool over,
        Instant at
    ) =>
        connection.QuerySingleAsync<(Id<Person>, string, Instant)>(
            """
            WITH taken AS (
              INSERT INTO reader AS r (item, person, by, at) VALUES (@item, @person, @by, @at)
              ON CONFLICT (item, person) DO UPDATE SET by = EXCLUDED.by, at = EXCLUDED.at
              WHERE r.by = @by OR @over OR r.at <= @expired
              RETURNING r.by, r.at
            ), known AS (
              SELECT by, at FROM taken
              UNION ALL SELECT by, at FROM reader WHERE item = @item AND person = @person AND NOT EXISTS (SELECT 1 FROM taken)
            )
            SELECT k.by, p.name, k.at FROM known k JOIN person p ON p.id = k.by
            """,
            new
            {
                item = item.Value,
                person = person.Value,
                by = by.Value,
                over,
                at,
                expired = at - Lasts,
            }
        );

    /// <summary>Somebody reads a piece no longer; null: whoever it is.</summary>
    public static Task End(NpgsqlConnection connection, Id<Item> item, Id<Person> person, Id<Person>? by) =>
        connection.ExecuteAsync(
            "DELETE FROM reader WHERE item = @item AND person = @person AND (@by::bigint IS NULL OR by = @by)",
            new
            {
                item = item.Value,
                person = person.Value,
                by = by?.Value,
            }
        );

    /// <summary>Whether a section has a piece of a student's for an item: something handed in, or an attempt.</summary>
    public static Task<bool> Has(NpgsqlConnection connection, Id<Section> section, Id<Item> item, Id<Person> person) =>
        connection.ExecuteScalarAsync<bool>(
            "SELECT EXISTS (SELECT 1 FROM work WHERE section = @section AND item = @item AND person = @person) "
                + "OR EXISTS (SELECT 1 FROM quiz_attempt WHERE section = @section AND item = @item AND person = @person)",
            new
            {
                section = section.Value,
                item = item.Value,
                person = person.Value,
            }
        );
}
