using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;

namespace Polycline.Data.Scores;

/// <summary>What was last given in one go in a section.</summary>
/// <param name="Scores">How many.</param>
public sealed record GivingRow(Id<Section> Section, Guid Given, int Scores, string By, Instant At);

/// <summary>Scores that are given in the table, all in the caller's transaction.</summary>
public static class GivenScores
{
    /// <param name="given">What all that are given in one go have in common.</param>
    public static Task Give(
        NpgsqlConnection connection,
        Id<Section> section,
        Id<Person> person,
        Id<Item> item,
        GivenMark mark,
        Id<Person> by,
        Instant at,
        Guid given
    ) =>
        connection.ExecuteAsync(
            Sql.Of("Scores", "Give"),
            new
            {
                section = section.Value,
                person = person.Value,
                item = item.Value,
                mark = PlanParts.Json(mark),
                score = MarkShare.FactOf(mark),
                by = by.Value,
                at,
                given,
            }
        );

    /// <summary>To whom something was given in one go that is not taken back, with their names.</summary>
    public static async Task<IReadOnlyDictionary<Id<Person>, string>> Of(NpgsqlConnection connection, Id<Section> section, Guid given) =>
        (
            await connection.QueryAsync<(Id<Person> Person, string Name)>(
                "SELECT DISTINCT p.id, p.name FROM fact f JOIN person p ON p.id = f.person "
                    + "WHERE f.given = @given AND f.section = @section AND f.voided_at IS NULL",
                new { given, section = section.Value }
            )
        ).ToDictionary(one => one.Person, one => one.Name);

    /// <summary>Takes back what was given in one go. 0: nothing of it is there any more.</summary>
    public static Task<int> TakeBack(NpgsqlConnection connection, Id<Section> section, Guid given, Id<Person> by, Instant at) =>
        connection.ExecuteScalarAsync<int>(
            "SELECT take_back_scores(@given, @section, @by, @at)",
            new
            {
                given,
                section = section.Value,
                by = by.Value,
                at,
            }
        );

    /// <summary>
    /// What is so once students' earlier scores count at no moment, and only the latest does. They count on unless that is
    /// <paramref name="lasting"/>.
    /// </summary>
    /// <param name="scored">Whose scores in which item.</param>
    /// <param name="reason">The request that does it, with which it can be taken back.</param>
    /// <param name="look">What is asked then.</param>
    public static async Task<T> WithoutEarlier<T>(
        NpgsqlConnection connection,
        IReadOnlyList<(Id<Person> Person, Id<Item> Item)> scored,
        Id<Person> by,
        Instant at,
        Guid reason,
        bool lasting,
        Func<Task<T>> look
    )
    {
        await connection.ExecuteAsync("SAVEPOINT earlier_scores");
        foreach (var (person, item) in scored)
            await connection.ExecuteAsync(
                "SELECT void_earlier_scores(@person, @item, @by, @at, @reason)",
                new
                {
                    person = person.Value,
                    item = item.Value,
                    by = by.Value,
                    at,
                    reason,
                }
            );
        var seen = await look();
        await connection.ExecuteAsync(lasting ? "RELEASE SAVEPOINT earlier_scores" : "ROLLBACK TO SAVEPOINT earlier_scores");
        return seen;
    }

    internal static string Statement => Sql.Of("Scores", "ReadGivings");
}
