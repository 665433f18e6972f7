using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.Mail;

/// <summary>A letter that waits to be sent.</summary>
/// <param name="Tries">Which try this is, from 1.</param>
public sealed record WaitingLetter(long Id, string Name, string Email, string Subject, string Body, int Tries);

/// <summary>Letters on their way out. When they are sent is told by the machine's time: the demo's clock does not move them.</summary>
public static class MailStore
{
    /// <summary>Leaves a letter to be sent once the transaction is through.</summary>
    public static Task Add(NpgsqlConnection connection, Id<Person> person, string subject, string body) =>
        connection.ExecuteAsync(
            "INSERT INTO mail (person, subject, body) VALUES (@person, @subject, @body)",
            new
            {
                person = person.Value,
                subject,
                body,
            }
        );

    /// <summary>What students of a section have been written about within the last day: the subjects, by student.</summary>
    public static async Task<ILookup<Id<Person>, string>> SinceYesterday(NpgsqlConnection connection, Id<Section> section) =>
        (
            await connection.QueryAsync<(Id<Person> Person, string Subject)>(
                """
                SELECT DISTINCT m.person, m.subject
                FROM mail m JOIN enrolment n ON n.person = m.person AND n.section = @section
                WHERE m.made_at > now() - interval '1 day' AND m.given_up_at IS NULL
                """,
                new { section = section.Value }
            )
        ).ToLookup(row => row.Person, row => row.Subject);

    /// <summary>
    /// The letter that has waited longest for its turn. For three minutes it is the caller's to send; an instance that dies meanwhile
    /// leaves it to whoever asks next.
    /// </summary>
    public static Task<WaitingLetter?> Claim(NpgsqlConnection connection) =>
        connection.QuerySingleOrDefaultAsync<WaitingLetter?>(
            """
            UPDATE mail m SET tries = tries + 1, next_try = now() + interval '3 minutes'
            FROM person p
            WHERE p.id = m.person AND m.id = (
              SELECT id FROM mail
              WHERE sent_at IS NULL AND given_up_at IS NULL AND next_try <= now()
              ORDER BY next_try, id
              LIMIT 1
              FOR UPDATE SKIP LOCKED
            )
            RETURNING m.id, p.name, p.email::text, m.subject, m.body, m.tries
            """
        );

    /// <summary>It has been sent: its text is forgotten.</summary>
    public static Task Sent(NpgsqlConnection connection, long letter) =>
        connection.ExecuteAsync("UPDATE mail SET sent_at = now(), body = '' WHERE id = @letter", new { letter });

    /// <param name="wait">How long until the next try; null: there is none, and its text is forgotten.</param>
    public static Task Failed(NpgsqlConnection connection, long letter, Duration? wait) =>
        connection.ExecuteAsync(
            """
            UPDATE mail SET
              next_try = now() + make_interval(secs => coalesce(@seconds, 0)),
              given_up_at = CASE WHEN @seconds IS NULL THEN now() END,
              body = CASE WHEN @seconds IS NULL THEN '' ELSE body END
            WHERE id = @letter
            """,
            new { letter, seconds = wait?.TotalSeconds }
        );
}
