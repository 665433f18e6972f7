using Npgsql;
using Polycline.Core;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Notes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline.Notes;

/// <param name="Version">The version of the note that was read.</param>
public sealed record RemoveNoteRequest(Id<NoteRow> Note, long Version);

/// <summary>Removes a note of the team's.</summary>
public sealed class RemoveNote : IPlanningCommand<EditionPlan, NotesOfEdition, RemoveNoteRequest>
{
    public static string Name => "remove-note";

    public static Task<NotesOfEdition> Read(NpgsqlConnection connection, EditionPlan plan, RemoveNoteRequest request) =>
        NotesOfEdition.Read(connection, plan);

    public static CommandDecision Decide(EditionPlan plan, NotesOfEdition notes, RemoveNoteRequest request, Viewpoint viewpoint)
    {
        var note = notes.Needed(request.Note);
        return new(
            $"removed a note from “{plan.TitleOf(note.Place)}”",
            [Change.Remove(Tables.Notes.Table, request.Note, request.Version, viewpoint.At)]
        )
        {
            Told = NotesOfEdition.Reach(plan, note.Place, note.Text, null),
        };
    }
}
