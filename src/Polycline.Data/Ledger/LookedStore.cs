using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Ledger;

/// <summary>How far somebody has looked through what changed in a course.</summary>
public static class LookedStore
{
    /// <summary>They have seen everything up to a change. Looking never goes back.</summary>
    public static Task Set(NpgsqlConnection connection, Id<Person> person, Id<Edition> edition, Id<Batch> batch, Instant now) =>
        connection.ExecuteAsync(
            """
            INSERT INTO looked (person, edition, batch, at) VALUES (@person, @edition, @batch, @now)
            ON CONFLICT (person, edition) DO UPDATE SET batch = greatest(looked.batch, excluded.batch), at = excluded.at
            """,
            new
            {
                person = person.Value,
                edition = edition.Value,
                batch = batch.Value,
                now,
            }
        );
}
