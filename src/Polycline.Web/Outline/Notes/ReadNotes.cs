using Polycline.Core;
using Polycline.Data;
using Polycline.Data.Notes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Notes;

/// <summary>A note of the team's.</summary>
public sealed record NoteAnswer
{
    public required Id<NoteRow> Id { get; init; }

    /// <summary>The unit, lesson or item, as the plan calls it.</summary>
    public required string Place { get; init; }

    /// <summary>It is for whoever teaches the course next time.</summary>
    public required bool NextTime { get; init; }

    public required string Text { get; init; }

    public required string Author { get; init; }

    public required Moment WrittenAt { get; init; }

    /// <summary>The earlier edition in which it was left for this one; null: it is of this one.</summary>
    public required string? LeftIn { get; init; }

    public required long Version { get; init; }
}

/// <summary>Reads all notes of an edition, which only its team may.</summary>
public static class ReadNotes
{
    public static async Task<IReadOnlyList<NoteAnswer>> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("What the team notes for itself");
        var plan = await compiled.Edition(access);
        return
        [
            .. (await database.Read(connection => NoteStore.Of(connection, plan.Id), stop)).Select(note => new NoteAnswer
            {
                Id = note.Id,
                Place = note.Place,
                NextTime = note.NextTime,
                Text = note.Text,
                Author = note.Author,
                WrittenAt = Moment.Of(note.WrittenAt, plan.Term.Zone),
                LeftIn = note.LeftIn,
                Version = note.Version,
            }),
        ];
    }
}
