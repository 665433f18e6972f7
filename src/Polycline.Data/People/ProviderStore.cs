using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>Somebody on their way to the sign-in provider and back.</summary>
public sealed record ProviderTrip(string Nonce, string Verifier, string Next);

/// <summary>An account that may belong to somebody whom the provider vouches for.</summary>
/// <param name="HasIdentity">It is linked to somebody at that provider already.</param>
public sealed record ProviderAccount(Id<Person> Person, string Name, string Email, bool Removed, bool HasIdentity);

/// <summary>Signing in through the school's provider.</summary>
public static class ProviderStore
{
    public static Task Begin(NpgsqlConnection connection, byte[] state, byte[] browser, ProviderTrip trip, Instant now, Instant expires) =>
        connection.ExecuteAsync(
            """
            WITH old AS (DELETE FROM provider_trip WHERE expires_at <= @now)
            INSERT INTO provider_trip (state_hash, browser_hash, nonce, verifier, next, expires_at)
            VALUES (@state, @browser, @Nonce, @Verifier, @Next, @expires)
            """,
            new
            {
                state,
                browser,
                trip.Nonce,
                trip.Verifier,
                trip.Next,
                now,
                expires,
            }
        );

    /// <summary>Ends a trip to the provider, which serves once.</summary>
    /// <returns>Null: this browser began no such trip, or it is over or out of time.</returns>
    public static Task<ProviderTrip?> End(NpgsqlConnection connection, byte[] state, byte[] browser, Instant now) =>
        connection.QuerySingleOrDefaultAsync<ProviderTrip?>(
            """
            DELETE FROM provider_trip WHERE state_hash = @state AND browser_hash = @browser AND expires_at > @now
            RETURNING nonce, verifier, next
            """,
            new
            {
                state,
                browser,
                now,
            }
        );

    /// <summary>The account that is linked to an id at a provider.</summary>
    public static Task<ProviderAccount?> Known(NpgsqlConnection connection, string issuer, string subject) =>
        connection.QuerySingleOrDefaultAsync<ProviderAccount?>(
            """
            SELECT p.id AS person, p.name, p.email::text, p.removed_at IS NOT NULL AS removed, true AS has_identity
            FROM provider_identity i
            JOIN person p ON p.id = i.person
            WHERE i.issuer = @issuer AND i.subject = @subject
            """,
            new { issuer, subject }
        );

    /// <summary>The account of a mail address.</summary>
    public static Task<ProviderAccount?> ByAddress(NpgsqlConnection connection, string issuer, string email) =>
        connection.QuerySingleOrDefaultAsync<ProviderAccount?>(
            """
            SELECT p.id AS person, p.name, p.email::text, p.removed_at IS NOT NULL AS removed,
                   EXISTS (SELECT FROM provider_identity i WHERE i.person = p.id AND i.issuer = @issuer) AS has_identity
            FROM person p
            WHERE p.email = @email::citext
            """,
            new { issuer, email }
        );

    /// <summary>Says by which name a provider knows somebody, for good.</summary>
    public static Task Link(NpgsqlConnection connection, string issuer, string subject, Id<Person> person, Instant at) =>
        connection.ExecuteAsync(
            "INSERT INTO provider_identity (issuer, subject, person, linked_at) VALUES (@issuer, @subject, @person, @at) "
                + "ON CONFLICT DO NOTHING",
            new
            {
                issuer,
                subject,
                person = person.Value,
                at,
            }
        );
}
