using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>Somebody with an account, as the office sees them.</summary>
public sealed record PersonRow
{
    public required Id<Person> Person { get; init; }

    public required string Name { get; init; }

    public required string Email { get; init; }

    public required bool Office { get; init; }

    /// <summary>They may make courses.</summary>
    public required bool Teacher { get; init; }

    /// <summary>They have not set a password yet.</summary>
    public required bool Invited { get; init; }

    public required bool Removed { get; init; }

    /// <summary>The name and address of the account that this one was joined into; null: none.</summary>
    public required string? JoinedInto { get; init; }

    /// <summary>When they were signed in last; null: never.</summary>
    public required Instant? LastIn { get; init; }

    /// <summary>How many sessions they have open.</summary>
    public required int Sessions { get; init; }

    /// <summary>How many courses they are on the team of.</summary>
    public required int Courses { get; init; }

    /// <summary>How many sections they teach.</summary>
    public required int Teaches { get; init; }

    /// <summary>The sections that list them today.</summary>
    public required string[] Sections { get; init; }
}

/// <summary>An account that has a mail address already.</summary>
public sealed record KnownPerson(Id<Person> Person, string Name, string Email, bool Removed, bool Staff);

/// <summary>Accounts: reads and writes them.</summary>
public static class PersonStore
{
    /// <summary>Everybody, in order of name.</summary>
    public static async Task<IReadOnlyList<PersonRow>> All(NpgsqlConnection connection, Instant now) =>
        [.. await connection.QueryAsync<PersonRow>(Sql.Of("People", "ReadPeople"), new { now })];

    /// <summary>Whether the school has any account yet.</summary>
    public static Task<bool> HasAny(NpgsqlConnection connection) =>
        connection.ExecuteScalarAsync<bool>("SELECT EXISTS (SELECT FROM person)");

    /// <summary>Those who have one of these mail addresses, deactivated accounts too.</summary>
    public static async Task<IReadOnlyList<KnownPerson>> WithAddresses(NpgsqlConnection connection, IReadOnlyCollection<string> emails) =>
        [
            .. await connection.QueryAsync<KnownPerson>(
                """
                SELECT id AS person, name, email::text, removed_at IS NOT NULL AS removed, teacher OR office AS staff
                FROM person
                WHERE email = ANY(@emails::citext[])
                """,
                new { emails = emails.ToArray() }
            ),
        ];

    /// <summary>The mail address that somebody signs in with.</summary>
    public static async Task<string> Email(NpgsqlConnection connection, Id<Person> person) =>
        await connection.ExecuteScalarAsync<string>("SELECT email::text FROM person WHERE id = @Value", person) ?? "";

    /// <param name="passwordHash">Empty if they have been invited and have not chosen a password yet.</param>
    public static async Task<Id<Person>> Add(
        NpgsqlConnection connection,
        string name,
        string email,
        string passwordHash,
        bool office,
        bool teacher = false
    ) =>
        new(
            await connection.ExecuteScalarAsync<long>(
                """
                INSERT INTO person (name, email, password_hash, office, teacher)
                VALUES (@name, @email::citext, @passwordHash, @office, @teacher)
                RETURNING id
                """,
                new
                {
                    name,
                    email,
                    passwordHash,
                    office,
                    teacher,
                }
            )
        );

    /// <returns>Null if there is no such account. It is locked.</returns>
    public static Task<KnownPerson?> Locked(NpgsqlConnection connection, Id<Person> person) =>
        connection.QuerySingleOrDefaultAsync<KnownPerson?>(
            "SELECT id AS person, name, email::text, removed_at IS NOT NULL AS removed, teacher OR office AS staff "
                + "FROM person WHERE id = @Value FOR UPDATE",
            person
        );

    /// <summary>Whether an account was joined into another.</summary>
    public static Task<bool> IsJoined(NpgsqlConnection connection, Id<Person> person) =>
        connection.ExecuteScalarAsync<bool>("SELECT joined_into IS NOT NULL FROM person WHERE id = @Value", person);

    public static Task SetPassword(NpgsqlConnection connection, Id<Person> person, string hash) =>
        connection.ExecuteAsync("UPDATE person SET password_hash = @hash WHERE id = @person", new { person = person.Value, hash });

    public static Task SetOffice(NpgsqlConnection connection, Id<Person> person, bool office) =>
        connection.ExecuteAsync("UPDATE person SET office = @office WHERE id = @person", new { person = person.Value, office });

    public static Task SetTeacher(NpgsqlConnection connection, Id<Person> person, bool teacher) =>
        connection.ExecuteAsync("UPDATE person SET teacher = @teacher WHERE id = @person", new { person = person.Value, teacher });

    /// <param name="removedAt">Null: the account is in use again.</param>
    public static Task SetRemoved(NpgsqlConnection connection, Id<Person> person, Instant? removedAt) =>
        connection.ExecuteAsync("UPDATE person SET removed_at = @removedAt WHERE id = @person", new { person = person.Value, removedAt });
}
