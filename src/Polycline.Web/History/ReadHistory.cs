using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.History;

/// <param name="Changes">The latest first.</param>
public sealed record HistoryAnswer(IReadOnlyList<HistoryEntry> Changes);

public sealed record HistoryEntry
{
    public required Id<Batch> Batch { get; init; }

    public required string Author { get; init; }

    /// <summary>The one who asks did it.</summary>
    public required bool Mine { get; init; }

    /// <summary>Goes on a sentence that starts with the author's name.</summary>
    public required string Words { get; init; }

    public required Moment At { get; init; }

    /// <summary>It was taken back.</summary>
    public required bool Undone { get; init; }

    /// <summary>It is an undo.</summary>
    public required bool IsUndo { get; init; }

    /// <summary>It brought back what an undo had taken away.</summary>
    public required bool IsRedo { get; init; }

    /// <summary>The items it touched.</summary>
    public required IReadOnlyList<Id<Item>> Items { get; init; }
}

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
                .Select(row => new HistoryEntry
                {
                    Batch = row.Id,
                    Author = row.AuthorName,
                    Mine = row.Author == viewpoint.Who.Id,
                    Words = row.Words,
                    At = Moment.Of(row.At, access.Zone),
                    Undone = row.UndoneBy is not null,
                    IsUndo = row.IsUndo,
                    IsRedo = row.IsRedo,
                    Items = row.Items,
                }),
        ]);
    }
}
