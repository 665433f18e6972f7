using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Notes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Notes;

/// <param name="NextTime">It is for whoever teaches the course next time.</param>
/// <param name="Text">1 to 2,000 characters.</param>
/// <param name="Version">The version of the note that was read.</param>
public sealed record ChangeNoteRequest(Id<NoteRow> Note, bool NextTime, string Text, long Version);

/// <summary>Rewords a note of the team's, or has it wait for next time.</summary>
public sealed class ChangeNote : IPlanningCommand<EditionPlan, NotesOfEdition, ChangeNoteRequest>
{
    public static string Name => "change-note";

    public static IValidator<ChangeNoteRequest> Validator { get; } = new Rules();

    public static Task<NotesOfEdition> Read(NpgsqlConnection connection, EditionPlan plan, ChangeNoteRequest request) =>
        NotesOfEdition.Read(connection, plan);

    public static CommandDecision Decide(EditionPlan plan, NotesOfEdition notes, ChangeNoteRequest request, Viewpoint viewpoint)
    {
        var note = notes.Needed(request.Note);
        var text = request.Text.Trim();
        var title = plan.TitleOf(note.Place);
        return new Settings()
            .Set(Tables.Notes.Text, note.Text, text, $"reworded a note on “{title}”")
            .Set(
                Tables.Notes.NextTime,
                note.NextTime,
                request.NextTime,
                request.NextTime ? $"kept a note on “{title}” for next time" : $"made a note on “{title}” one for now"
            )
            .Of(Tables.Notes.Table, request.Note, request.Version, title) with
        {
            Told = NotesOfEdition.Reach(plan, note.Place, note.Text, text),
        };
    }

    private sealed class Rules : AbstractValidator<ChangeNoteRequest>
    {
        public Rules() => RuleFor(request => request.Text).IsNote();
    }
}

/// <summary>What holds for the text of every note.</summary>
internal static class NoteRules
{
    /// <summary>1 to 2,000 characters, some of them visible.</summary>
    public static void IsNote<T>(this IRuleBuilder<T, string> rule) =>
        rule.Must(Bounds.IsVisible)
            .WithMessage("Write the note first.")
            .Must(text => text.Trim().Length <= NotesOfEdition.Longest)
            .WithMessage("A note can have up to 2,000 characters. Write a page if you need more.");
}
