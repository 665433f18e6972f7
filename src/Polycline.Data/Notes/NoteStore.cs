using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;

namespace Polycline.Data.Notes;

/// <summary>What somebody on a team noted on a unit, a lesson or an item.</summary>
public sealed record NoteRow
{
    public required Id<NoteRow> Id { get; init; }

    /// <summary>What the plan calls the unit, lesson or item.</summary>
    public required string Place { get; init; }

    /// <summary>It was left for whoever teaches the course next time.</summary>
    public required bool NextTime { get; init; }

    public required string Text { get; init; }

    public required string Author { get; init; }

    public required Instant WrittenAt { get; init; }

    /// <summary>The earlier edition in which it was left; null: it is of the edition itself.</summary>
    public required string? LeftIn { get; init; }

    public required long Version { get; init; }
}

/// <summary>Reads a team's notes.</summary>
public static class NoteStore
{
    /// <summary>The notes of an edition, the oldest first, then what was left for it in earlier ones.</summary>
    public static async Task<IReadOnlyList<NoteRow>> Of(NpgsqlConnection connection, Id<Edition> edition) =>
        (await connection.QueryAsync<NoteRow>(Sql.Of("Notes", "ReadNotes"), new { edition = edition.Value })).AsList();
}
