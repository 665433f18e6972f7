using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.CannotOpen;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.People;
using Polycline.Data.Students;
using Polycline.Data.Work;

namespace Polycline.Data.Today;

/// <summary>A text about a teacher.</summary>
/// <param name="Whom">Their name; null: nobody has said of whom it speaks.</param>
public sealed record AboutTeacherRow(Id<Core.Courses.Item> Item, string? Whom);

/// <summary>What a team member's day is put together from, beside the plan.</summary>
/// <param name="Mine">The sections whose work is theirs.</param>
/// <param name="Students">Everybody their sections have ever listed.</param>
/// <param name="Records">Of those students.</param>
/// <param name="AboutOthers">Texts about a teacher who is not on the team.</param>
/// <param name="CannotOpen">What students have said they cannot open, of all sections.</param>
/// <param name="Seen">The last change they have looked at; 0: none yet.</param>
/// <param name="Changes">The latest changes of the edition, newest first.</param>
public sealed record TodayRows(
    IReadOnlySet<Id<Section>> Mine,
    IReadOnlyList<PieceRow> Pieces,
    IReadOnlyList<LensPlaceRow> Students,
    IReadOnlyDictionary<Id<Person>, StudentRecord> Records,
    IReadOnlyList<AboutTeacherRow> AboutOthers,
    IReadOnlyList<CannotOpenRow> CannotOpen,
    long Seen,
    IReadOnlyList<HistoryRow> Changes
);

/// <summary>Reads a team member's day in one round trip.</summary>
public static class TodayStore
{
    /// <param name="lead">Then all sections are theirs.</param>
    /// <param name="most">How many changes at most.</param>
    public static async Task<TodayRows> Read(
        NpgsqlConnection connection,
        EditionPlan plan,
        Id<Person> viewer,
        bool lead,
        Instant at,
        int most
    )
    {
        var scope = Scope.Of(plan.Id);
        await using var results = await connection.QueryMultipleAsync(
            Sql.Together(
                WorkStore.EditionStatements,
                AccessStore.StudentsStatement,
                StudentStore.Statements,
                """
                SELECT i.id AS item, p.name AS whom FROM item i JOIN edition e ON e.id = i.edition LEFT JOIN person p ON p.id = i.about_whom
                WHERE i.edition = @edition AND i.about_teacher AND i.removed_at IS NULL AND NOT EXISTS
                  (SELECT 1 FROM master_member m WHERE m.master = e.master AND m.person = i.about_whom) ORDER BY i.rank, i.id
                """,
                CannotOpenStore.EditionStatement,
                "SELECT batch FROM looked WHERE person = @viewer AND edition = @edition",
                LedgerStore.HistoryStatement
            ),
            new
            {
                edition = plan.Id.Value,
                viewer = viewer.Value,
                lead,
                at,
                students = (Id<Person>[]?)null,
                scope.Kind,
                scope.Key,
                most,
            }
        );
        var (mine, pieces, _) = await WorkStore.EditionFrom(results);
        var students = (await results.ReadAsync<LensPlaceRow>()).Where(row => row.Student is not null).ToList();
        var theirs = students.Select(row => row.Student!.Value).ToHashSet();
        var (records, _) = await StudentStore.From(results, plan, null);
        return new(
            mine,
            pieces,
            students,
            records.Where(record => theirs.Contains(record.Key)).ToDictionary(),
            [.. await results.ReadAsync<AboutTeacherRow>()],
            [.. await results.ReadAsync<CannotOpenRow>()],
            await results.ReadSingleOrDefaultAsync<long?>() ?? 0,
            [.. await results.ReadAsync<HistoryRow>()]
        );
    }
}
