using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Sections;

namespace Polycline.Data.Courses;

/// <summary>A rubric on somebody's shelf.</summary>
/// <param name="Hash">What its rubric is kept under.</param>
public sealed record KeptRubric(Id<KeptRubric> Id, WrittenRubric Rubric, string Hash, Instant At);

/// <summary>The rubrics on a person's shelf, which are apart from any item.</summary>
public static class KeptRubrics
{
    /// <summary>How many one person can keep.</summary>
    public const int Most = 200;

    private sealed record Row(Id<KeptRubric> Id, string Content, string Hash, Instant KeptAt);

    /// <summary>Those of a person, the one kept last first.</summary>
    public static async Task<IReadOnlyList<KeptRubric>> Of(NpgsqlConnection connection, Id<Person> person) =>
        [
            .. (
                await connection.QueryAsync<Row>(
                    """
                    SELECT k.id, b.data ->> 'Rubric' AS content, encode(k.rubric, 'hex') AS hash, k.kept_at
                    FROM kept_rubric k JOIN body b ON b.hash = k.rubric
                    WHERE k.person = @person ORDER BY k.id DESC
                    """,
                    new { person }
                )
            ).Select(row => new KeptRubric(row.Id, RubricFile.Read(row.Content), row.Hash, row.KeptAt)),
        ];

    /// <summary>Puts a rubric on the shelf, unless it is there already. Its body has to be kept before.</summary>
    public static Task Keep(NpgsqlConnection connection, Id<Person> person, string hash, Instant at) =>
        connection.ExecuteAsync(
            "INSERT INTO kept_rubric (person, rubric, kept_at) VALUES (@person, @hash, @at) ON CONFLICT DO NOTHING",
            new
            {
                person,
                hash = Convert.FromHexString(hash),
                at,
            }
        );

    public static Task TakeOff(NpgsqlConnection connection, Id<Person> person, Id<KeptRubric> kept) =>
        connection.ExecuteAsync("DELETE FROM kept_rubric WHERE id = @kept AND person = @person", new { person, kept });
}
