using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>What erasing somebody takes away, and what stays and names nobody.</summary>
public sealed record Erasure
{
    /// <summary>Versions of their work, whose texts go.</summary>
    public required int Texts { get; init; }

    /// <summary>Feedback written to them, whose texts go.</summary>
    public required int Feedback { get; init; }

    public required int Drafts { get; init; }

    /// <summary>What they did and when; it stays.</summary>
    public required int Facts { get; init; }

    /// <summary>Feedback they wrote to others; it stays.</summary>
    public required int FeedbackGiven { get; init; }

    /// <summary>Changes of plans they made; they stay.</summary>
    public required int Changes { get; init; }

    /// <summary>Courses that would have no lead.</summary>
    public required string[] LeadsAlone { get; init; }
}

/// <summary>What came together when two accounts were joined, in numbers.</summary>
/// <param name="Works">Items they handed something in for with the account that went, without those of <paramref name="Merged"/>.</param>
/// <param name="Merged">Items they handed something in for under both accounts.</param>
/// <param name="Facts">What they did with the account that went.</param>
/// <param name="Groups">Groups that came along.</param>
/// <param name="Differences">Exceptions and arrangements that moved to the kept account.</param>
/// <param name="Left">Those that did not, as the kept account has its own.</param>
public sealed record Joined(int Works, int Merged, int Facts, int Groups, int Differences, int Left);

/// <summary>All that is kept about one person: read for them, and erased.</summary>
public static class PersonDataStore
{
    /// <returns>JSON; null: there is no such person.</returns>
    public static Task<string?> All(NpgsqlConnection connection, Id<Person> person) =>
        connection.ExecuteScalarAsync<string?>(Sql.Of("People", "ReadPersonData"), new { person = person.Value });

    public static Task<Erasure> Erasure(NpgsqlConnection connection, Id<Person> person) =>
        connection.QuerySingleAsync<Erasure>(Sql.Of("People", "ReadErasure"), new { person = person.Value });

    /// <summary>Erases it, for good, with what is left of accounts that were joined into this one.</summary>
    public static Task Erase(NpgsqlConnection connection, Id<Person> person, Instant at) =>
        connection.ExecuteAsync(
            """
            SELECT erase_files(id), erase_sheets(id), erase_quizzes(id), erase_person(id, @at), forget_joins(id, @at)
            FROM (
              WITH RECURSIVE same (id) AS (SELECT @person UNION SELECT p.id FROM person p JOIN same ON p.joined_into = same.id)
              SELECT id FROM same
            ) all_of_them
            """,
            new { person = person.Value, at }
        );

    /// <summary>Takes everything of one account to another.</summary>
    public static async Task<Joined> Join(NpgsqlConnection connection, Id<Person> kept, Id<Person> other, Instant at)
    {
        await connection.ExecuteAsync("SELECT join_quizzes(@kept, @other)", new { kept = kept.Value, other = other.Value });
        return JsonSerializer.Deserialize<Joined>(
            await connection.ExecuteScalarAsync<string>(
                "SELECT join_people(@kept, @other, @at)::text",
                new
                {
                    kept = kept.Value,
                    other = other.Value,
                    at,
                }
            ) ?? "{}",
            JsonSerializerOptions.Web
        )!;
    }

    /// <summary>Puts everything back where it was before an account was joined into another.</summary>
    /// <returns>Whether it was.</returns>
    /// <exception cref="PostgresException">PC003: something that was joined has been changed since.</exception>
    public static async Task<bool> Separate(NpgsqlConnection connection, Id<Person> other, Instant at)
    {
        var join = await connection.QuerySingleOrDefaultAsync<(long Id, long Kept)?>(
            "SELECT id, kept FROM person_join WHERE other = @Value AND separated_at IS NULL",
            other
        );
        if (join is { } found)
            await connection.ExecuteAsync(
                "SELECT separate_people(@Id, @at), separate_quizzes(@Kept, @other)",
                new
                {
                    found.Id,
                    found.Kept,
                    at,
                    other = other.Value,
                }
            );
        return join is not null;
    }
}
