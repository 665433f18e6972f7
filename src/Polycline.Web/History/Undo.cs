using System.Text.Json.Nodes;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.History;

/// <param name="Batch">What to take back; a taking back can itself be taken back.</param>
public sealed record UndoRequest(Id<Batch> Batch);

/// <summary>What an undo decides from.</summary>
/// <param name="Head">The batch; null: there is none of that id here.</param>
public sealed record UndoneBatch(HistoryRow? Head, IReadOnlyList<StandingRow> Rows);

/// <summary>Takes a batch back, where everything it wrote still stands as it wrote it.</summary>
public sealed class Undo : IPlanningCommand<EditionPlan, UndoneBatch, UndoRequest>, IPlanningCommand<TermPlan, UndoneBatch, UndoRequest>
{
    private const string Undid = "undid: ",
        Redid = "redid: ";

    public static string Name => "undo";

    public static Task<UndoneBatch> Read(NpgsqlConnection connection, EditionPlan before, UndoRequest request) =>
        Read(connection, Scope.Of(before.Id), request);

    public static Task<UndoneBatch> Read(NpgsqlConnection connection, TermPlan before, UndoRequest request) =>
        Read(connection, Scope.Of(before.Id), request);

    private static async Task<UndoneBatch> Read(NpgsqlConnection connection, Scope scope, UndoRequest request) =>
        await LedgerStore.Find(connection, scope, request.Batch) is { } found
            ? new(found.Head, await LedgerStore.Standing(connection, found.Changes, request.Batch))
            : new(null, []);

    public static CommandDecision Decide(EditionPlan before, UndoneBatch undone, UndoRequest request, Viewpoint viewpoint) =>
        Decide(undone, request, viewpoint);

    public static CommandDecision Decide(TermPlan before, UndoneBatch undone, UndoRequest request, Viewpoint viewpoint) =>
        Decide(undone, request, viewpoint);

    private static CommandDecision Decide(UndoneBatch plan, UndoRequest request, Viewpoint viewpoint)
    {
        var head = plan.Head ?? throw Problem.Unknown("batch");
        if (head.UndoneBy is not null)
            throw Problem.CannotUndo("That has been undone already.", "Nothing was changed.");
        foreach (var row in plan.Rows.Where(row => !StillStands(row)))
            throw Problem.CannotUndo(
                row.Later is { } later ? $"{later.Author} has since {later.Words}." : "It has been changed since.",
                "Nothing was changed. Undo the later change first."
            );
        return new(
            $"{(head.IsUndo ? Redid : Undid)}{Plain(head.Words)}",
            [
                .. plan
                    .Rows.Reverse()
                    .Select(row => LedgerStore.Inverse(row.Change, row.Change.Table.VersionOf(row.Present) ?? 0, viewpoint.At)),
            ],
            request.Batch
        )
        {
            Act = head.IsUndo ? "Redo" : "Undo",
        };
    }

    // What was done originally, however often it was undone and redone since.
    private static string Plain(string words) =>
        words.StartsWith(Undid, StringComparison.Ordinal) ? words[Undid.Length..]
        : words.StartsWith(Redid, StringComparison.Ordinal) ? words[Redid.Length..]
        : words;

    private static bool StillStands(StandingRow row) =>
        row.Change.After is { } after
            ? row.Present is { } present && after.All(field => JsonNode.DeepEquals(field.Value, present[field.Key]))
            : row.Present is null;
}
