using Dapper;
using NodaTime;
using Polycline.Data;
using Polycline.Web.SignIn;

namespace Polycline.Demo.School;

/// <summary>Loads Fenwater College into an empty database.</summary>
public static partial class DemoSchool
{
    /// <summary>Where the demo's clock starts: Thursday 8 October 2026, 10:15 in Fenwater.</summary>
    public static readonly Instant Start = Instant.FromUtc(2026, 10, 8, 9, 15);

    public const string Zone = "Europe/Dublin";

    private static readonly object[] Periods = Times("08:40", "09:30", "10:20", "10:40", "11:30", "12:20", "13:10", "14:00", "14:50");

    private static readonly object[] LateStart =
    [
        .. Enumerable
            .Range(0, 6)
            .Select(n => new
            {
                name = $"P{n + 1}",
                start = Clock(600 + (40 * n)),
                end = Clock(640 + (40 * n)),
            }),
    ];

    /// <summary>Loads the school, whole or not at all.</summary>
    /// <returns>False: the database holds a school already, and was left as it is.</returns>
    public static async Task<bool> Load(string ownerConnection, CancellationToken stop)
    {
        await using var database = Database.Open(ownerConnection);
        return await database.Within(
            System.Data.IsolationLevel.Serializable,
            async connection =>
            {
                if (await connection.ExecuteScalarAsync<bool>("SELECT EXISTS (SELECT 1 FROM person)"))
                    return false;
                var school = new Writer(connection, StartSession.Hash(DemoPeople.Password));
                await school.Write();
                await connection.ExecuteAsync(
                    """
                    UPDATE person SET teacher = true
                    WHERE id IN (SELECT person FROM master_member UNION SELECT person FROM section_teacher)
                    """
                );
                // The lead keeps on her shelf what is of use in other courses too.
                await connection.ExecuteAsync(
                    """
                    INSERT INTO kept_rubric (person, rubric, kept_at)
                    SELECT DISTINCT p.id, b.hash, @at FROM person p, body b
                    WHERE p.name = @lead AND b.kind = 'rubric' AND b.data ->> 'Rubric' LIKE '%' || @name || '%'
                    """,
                    new
                    {
                        at = Start - Duration.FromDays(16),
                        lead = DemoPeople.Lead,
                        name = "A forecast from a chart",
                    }
                );
                return true;
            },
            stop
        );
    }

    private static object[] Times(params string[] times) =>
        new (int Start, int End)[] { (0, 1), (1, 2), (3, 4), (4, 5), (6, 7), (7, 8) }
            .Select(
                (period, n) =>
                    (object)
                        new
                        {
                            name = $"P{n + 1}",
                            start = times[period.Start],
                            end = times[period.End],
                        }
            )
            .ToArray();

    private static string Clock(int minutes) => $"{minutes / 60:00}:{minutes % 60:00}";

    private sealed record Mark(string Kind, string From, string To, string Called, object[]? Periods = null);
}
