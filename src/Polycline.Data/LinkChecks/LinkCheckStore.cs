using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;

namespace Polycline.Data.LinkChecks;

/// <summary>What was found when an address was last tried.</summary>
/// <param name="Outcome"><c>open</c>, <c>sign-in</c>, <c>gone</c>, <c>silent</c> or <c>not-tried</c>.</param>
/// <param name="ReachedAt">When it last answered; null: never yet.</param>
public sealed record LinkCheckRow(string Address, string Outcome, Instant CheckedAt, Instant? ReachedAt);

/// <summary>What is known of the addresses that items lead to.</summary>
public static class LinkCheckStore
{
    private const int AtOnce = 200;

    internal static string Statement =>
        "SELECT c.address, c.outcome, c.checked_at, c.reached_at FROM link_check c JOIN item i ON i.address = c.address WHERE i.id = @item";

    /// <summary>Of the address of an item; null: it has none, or it has not been tried.</summary>
    public static Task<LinkCheckRow?> Of(NpgsqlConnection connection, Id<Item> item) =>
        connection.QuerySingleOrDefaultAsync<LinkCheckRow?>(Statement, new { item = item.Value });

    public static Task Keep(NpgsqlConnection connection, string address, string outcome, bool reached, Instant at) =>
        connection.ExecuteAsync(
            """
            INSERT INTO link_check (address, outcome, checked_at, reached_at)
            VALUES (@address, @outcome, @at, CASE WHEN @reached THEN @at END)
            ON CONFLICT (address) DO UPDATE
            SET outcome = excluded.outcome, checked_at = excluded.checked_at,
                reached_at = coalesce(excluded.reached_at, link_check.reached_at)
            """,
            new
            {
                address,
                outcome,
                reached,
                at,
            }
        );

    /// <summary>Addresses in use, some at once, that have not been tried since a moment. What is no longer in use is forgotten.</summary>
    public static async Task<IReadOnlyList<string>> Due(NpgsqlConnection connection, Instant since)
    {
        await connection.ExecuteAsync("DELETE FROM link_check c WHERE NOT EXISTS (SELECT 1 FROM item i WHERE i.address = c.address)");
        return (
            await connection.QueryAsync<string>(
                """
                SELECT DISTINCT i.address
                FROM item i
                JOIN edition e ON e.id = i.edition AND e.state <> 'resting'
                WHERE i.address IS NOT NULL AND i.removed_at IS NULL
                  AND NOT EXISTS (SELECT 1 FROM link_check c WHERE c.address = i.address AND c.checked_at >= @since)
                ORDER BY i.address
                LIMIT @AtOnce
                """,
                new { since, AtOnce }
            )
        ).AsList();
    }
}
