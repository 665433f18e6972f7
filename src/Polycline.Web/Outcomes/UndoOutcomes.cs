using Polycline.Data.Outcomes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outcomes;

public sealed record UndoOutcomesRequest;

/// <summary>Puts the school's outcomes back as they were before the last import.</summary>
public sealed class UndoOutcomes : IWorkCommand<UndoOutcomesRequest, DoneAnswer>
{
    public static string Name => "undo-outcomes";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, UndoOutcomesRequest request)
    {
        await OutcomeStore.Lock(work.Connection);
        var latest = await OutcomeStore.Latest(work.Connection)
            ?? throw Problem.CannotUndo("There is nothing to undo.", "No outcomes have been imported, or the import is undone already.");
        await OutcomeStore.Undo(work.Connection, latest, work.Viewpoint.At);
        await work.Audit(Name, new { import = latest.Id });
        return new();
    }
}
