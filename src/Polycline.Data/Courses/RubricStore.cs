using Dapper;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking.Papers;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;

namespace Polycline.Data.Courses;

/// <param name="Where">The course, its edition and the item it was used for last.</param>
/// <param name="Items">How many items have it.</param>
public sealed record RubricRow(WrittenRubric Rubric, string Where, int Items);

/// <summary>Reads where rubrics are used.</summary>
public static class RubricStore
{
    public const int Most = 200;

    private sealed record Row(string Content, string Place, int Items);

    /// <summary>The rubrics of all editions that a person is in the team of; those used last first, up to <see cref="Most"/>.</summary>
    public static async Task<IReadOnlyList<RubricRow>> OfTeams(NpgsqlConnection connection, Id<Person> person) =>
        [
            .. (await connection.QueryAsync<Row>(Sql.Of("Courses", "ReadRubrics"), new { person = person.Value, most = Most })).Select(
                row => new RubricRow(RubricFile.Read(row.Content), row.Place, row.Items)
            ),
        ];

    /// <summary>What was marked by a rubric in the pieces of an item, as each was last given back.</summary>
    public static async Task<IReadOnlyList<GivenByRubric>> Marks(NpgsqlConnection connection, Id<Item> item) =>
        [
            .. (
                await connection.QueryAsync<string>(
                    """
                    SELECT last.mark::text
                    FROM (SELECT DISTINCT ON (w.id) f.mark, f.again
                          FROM work w JOIN feedback f ON f.work = w.id
                          WHERE w.item = @item AND f.taken_back_at IS NULL ORDER BY w.id, f.id DESC) last
                    WHERE last.mark ? 'rubric' AND NOT last.again
                    """,
                    new { item }
                )
            ).Select(mark => PlanParts.Mark(mark).Rubric!),
        ];
}
