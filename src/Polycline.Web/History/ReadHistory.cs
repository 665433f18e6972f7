using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.History;

/// <param name="Changes">The latest first.</param>
public sealed record HistoryAnswer(IReadOnlyList<HistoryEntry> Changes);

/// <param name="Words">For a sentence that starts with the author's name.</param>
/// <param name="Mine">The one who asks did it.</param>
/// <param name="Undone">It was taken back.</param>
/// <param name="IsUndo">It took something back itself.</param>
/// <param name="IsRedo">It brought back what had been taken back.</param>
/// <param name="Items">The items it touched.</param>
public sealed record HistoryEntry(
    Id<Batch> Batch,
    string Author,
    bool Mine,
    string Words,
    Moment At,
    bool Undone,
    bool IsUndo,
    bool IsRedo,
    IReadOnlyList<Id<Item>> Items
);

/// <summary>Reads the latest changes of an edition, or of a term.</summary>
public static class ReadHistory
{
    private const int Most = 40;

    public static async Task<HistoryAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The history");
        return await Of(Scope.Of(access.Edition!.Value), access, viewpoint, database, stop);
    }

    public static Task<HistoryAnswer> HandleTerm(
        long term,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    ) => Of(Scope.Of(access.Term!.Value), access, viewpoint, database, stop);

    private static async Task<HistoryAnswer> Of(Scope scope, Access access, Viewpoint viewpoint, Database database, CancellationToken stop)
    {
        var rows = await database.Read(connection => LedgerStore.History(connection, scope, Most), stop);
        return new([
            .. rows.Where(row => row.At <= viewpoint.At)
                .Select(row => new HistoryEntry(
                    row.Id,
                    row.AuthorName,
                    row.Author == viewpoint.Who.Id,
                    row.Words,
                    Moment.Of(row.At, access.Zone),
                    row.UndoneBy is not null,
                    row.IsUndo,
                    row.IsRedo,
                    row.Items
                )),
        ]);
    }
}
