using System.Text.Json.Nodes;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.History;

/// <param name="Batch">What to take back; a taking back can itself be taken back.</param>
public sealed record UndoRequest(Id<Batch> Batch);

/// <summary>What an undo decides from.</summary>
/// <param name="Head">The batch; null: there is none of that id here.</param>
public sealed record UndoPlan(HistoryRow? Head, IReadOnlyList<UndoRow> Rows);

/// <param name="Present">The row as it is now; null: there is none.</param>
/// <param name="Later">The latest later batch that touched the same fields; null: none did.</param>
public sealed record UndoRow(Change Change, JsonObject? Present, HistoryRow? Later);

/// <summary>Takes a batch back, where everything it wrote still stands as it wrote it.</summary>
public sealed class Undo : IEditionCommand<UndoRequest, UndoPlan>, ITermCommand<UndoRequest, UndoPlan>
{
    private const string Undid = "undid: ",
        Redid = "redid: ";

    public static string Name => "undo";

    public static May May => May.Team;

    public static IValidator<UndoRequest> Validator { get; } = new InlineValidator<UndoRequest>();

    public static Task<UndoPlan> Load(NpgsqlConnection connection, Id<Edition> edition, UndoRequest request) =>
        Load(connection, Scope.Of(edition), request);

    public static Task<UndoPlan> Load(NpgsqlConnection connection, Id<Term> term, UndoRequest request) =>
        Load(connection, Scope.Of(term), request);

    private static async Task<UndoPlan> Load(NpgsqlConnection connection, Scope scope, UndoRequest request)
    {
        if (await LedgerStore.Find(connection, scope, request.Batch) is not { } found)
            return new(null, []);
        var rows = new List<UndoRow>();
        foreach (var change in found.Changes)
            rows.Add(
                new(change, await LedgerStore.Present(connection, change), await LedgerStore.LaterChange(connection, change, request.Batch))
            );
        return new(found.Head, rows);
    }

    public static CommandDecision Decide(UndoPlan plan, UndoRequest request, Viewpoint viewpoint)
    {
        var head = plan.Head ?? throw Problem.Unknown("batch");
        if (head.UndoneBy is not null)
            throw Problem.CannotUndo("That is undone already.", "Nothing was changed.");
        foreach (var row in plan.Rows.Where(row => !StillStands(row)))
            throw Problem.CannotUndo(
                row.Later is { } later ? $"{later.AuthorName} has since {later.Words}." : "It has been changed since.",
                "Nothing was changed. Undo the later change first."
            );
        return new(
            $"{(head.IsUndo ? Redid : Undid)}{Plain(head.Words)}",
            [
                .. plan
                    .Rows.Reverse()
                    .Select(row => LedgerStore.Inverse(row.Change, LedgerTable.Of(row.Change).VersionOf(row.Present) ?? 0, viewpoint.At)),
            ],
            request.Batch
        )
        {
            Act = head.IsUndo ? "Redo" : "Undo",
        };
    }

    // What was done at first, without how often it was taken back since.
    private static string Plain(string words) =>
        words.StartsWith(Undid, StringComparison.Ordinal) ? words[Undid.Length..]
        : words.StartsWith(Redid, StringComparison.Ordinal) ? words[Redid.Length..]
        : words;

    private static bool StillStands(UndoRow row) =>
        row.Change.After is { } after
            ? row.Present is { } present && after.All(field => JsonNode.DeepEquals(field.Value, present[field.Key]))
            : row.Present is null;
}
