using Npgsql;
using Polycline.Core;
using Polycline.Core.Changes;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Notes;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Notes;

/// <summary>The notes of one edition, for the commands that change them.</summary>
public sealed record NotesOfEdition(IReadOnlyList<NoteRow> Notes)
{
    /// <summary>In characters.</summary>
    public const int Longest = 2000;

    private const int MostOfPlace = 50;

    public static async Task<NotesOfEdition> Read(NpgsqlConnection connection, EditionPlan plan) =>
        new([.. (await NoteStore.Of(connection, plan.Id)).Where(note => note.LeftIn is null)]);

    /// <exception cref="ProblemException">The edition has no such note.</exception>
    public NoteRow Needed(Id<NoteRow> id) => Notes.FirstOrDefault(one => one.Id == id) ?? throw Problem.Unknown("note");

    /// <exception cref="ProblemException">There are as many as one place can have.</exception>
    public void NeedsRoom(string place)
    {
        if (Notes.Count(note => note.Place == place) >= MostOfPlace)
            throw Problem.Field("text", $"There are {MostOfPlace} notes here already. Remove some that are out of date.");
    }

    /// <summary>What a change of a note comes to: nothing for students.</summary>
    public static Reach Reach(EditionPlan plan, string place, string? before, string? after) =>
        new(
            [new ReachRow(place, plan.TitleOf(place), null, "team note", before, after) { TeamOnly = true }],
            [],
            "Only the team sees it.",
            Effect.None,
            []
        );
}
