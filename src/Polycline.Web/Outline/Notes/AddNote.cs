using FluentValidation;
using Npgsql;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Notes;

/// <param name="Place">The unit, lesson or item, as the plan calls it.</param>
/// <param name="NextTime">It is for whoever teaches the course next time.</param>
/// <param name="Text">1 to 2,000 characters.</param>
public sealed record AddNoteRequest(string Place, bool NextTime, string Text);

/// <summary>Leaves a note for the team on a unit, a lesson or an item.</summary>
public sealed class AddNote : IPlanningCommand<EditionPlan, NotesOfEdition, AddNoteRequest>
{
    public static string Name => "add-note";

    public static IValidator<AddNoteRequest> Validator { get; } = new Rules();

    public static Task<NotesOfEdition> Read(NpgsqlConnection connection, EditionPlan plan, AddNoteRequest request) =>
        NotesOfEdition.Read(connection, plan);

    public static CommandDecision Decide(EditionPlan plan, NotesOfEdition notes, AddNoteRequest request, Viewpoint viewpoint)
    {
        var row = plan.Find(request.Place) is { } found && plan.IsHere(found) ? found : throw Problem.Unknown("place");
        notes.NeedsRoom(row.Lineage);
        var text = request.Text.Trim();
        return new(
            request.NextTime
                ? $"left a note for next time on “{plan.TitleOf(row.Lineage)}”"
                : $"left a note for the team on “{plan.TitleOf(row.Lineage)}”",
            [
                Change.Add(
                    Tables.Notes.Edition.Is(plan.Id),
                    Tables.Notes.Place.Is(row.Lineage),
                    Tables.Notes.NextTime.Is(request.NextTime),
                    Tables.Notes.Text.Is(text),
                    Tables.Notes.Author.Is(viewpoint.Who.Id),
                    Tables.Notes.WrittenAt.Is(viewpoint.At)
                ),
            ]
        )
        {
            Told = NotesOfEdition.Reach(plan, row.Lineage, null, text),
        };
    }

    private sealed class Rules : AbstractValidator<AddNoteRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Place).MaximumLength(100);
            RuleFor(request => request.Text).IsNote();
        }
    }
}
