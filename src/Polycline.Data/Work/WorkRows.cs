using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Files;

namespace Polycline.Data.Work;

/// <summary>One hand-in of a piece of work.</summary>
public sealed record VersionRow
{
    public required int N { get; init; }

    public required string Text { get; init; }

    /// <summary>In their order; null: none.</summary>
    public required Id<WorkFileRow>[]? Files { get; init; }

    /// <summary>In their order; null: none.</summary>
    public required string[]? Links { get; init; }

    /// <summary>JSON (<see cref="LogEntry.Read"/>); null: none.</summary>
    public required string? Entries { get; init; }

    /// <summary>JSON (<see cref="OwnJudgement.Read"/>); null: they did not judge it.</summary>
    public required string? Judged { get; init; }

    public required Instant HandedInAt { get; init; }

    /// <summary>When the student's page says it was sent first; null: it arrived at once.</summary>
    public required Instant? ClaimedAt { get; init; }

    /// <summary>When it was taken back; null: it stands.</summary>
    public required Instant? TakenBackAt { get; init; }

    /// <summary>Who handed it in for the others; null: whose it is.</summary>
    public required string? By { get; init; }

    /// <summary>Those for whom it was handed in too, in order of name; null: nobody.</summary>
    public required string[]? Others { get; init; }
}

/// <summary>What a student has written and not handed in.</summary>
public sealed record DraftRow
{
    public required string Text { get; init; }

    /// <summary>In their order; null: none.</summary>
    public required Id<WorkFileRow>[]? Files { get; init; }

    /// <summary>In their order; null: none.</summary>
    public required string[]? Links { get; init; }

    /// <summary>JSON (<see cref="LogEntry.Read"/>); null: none.</summary>
    public required string? Entries { get; init; }

    /// <summary>JSON (<see cref="OwnJudgement.Read"/>); null: they have not judged it.</summary>
    public required string? Judged { get; init; }

    public required Instant SavedAt { get; init; }

    /// <summary>When it was sent, but came after the item had closed.</summary>
    public required Instant? MissedAt { get; init; }

    public required Instant? ClaimedAt { get; init; }

    public required long Version { get; init; }
}

/// <summary>What a student has handed in for an item, the latest first, and what they have written since.</summary>
public sealed record OwnWork(IReadOnlyList<VersionRow> Versions, DraftRow? Draft)
{
    public static readonly OwnWork Nothing = new([], null);

    /// <summary>The files of all of it.</summary>
    public IReadOnlyDictionary<Id<WorkFileRow>, WorkFileRow> Files { get; init; } = new Dictionary<Id<WorkFileRow>, WorkFileRow>();

    /// <summary>Some of them, in the order in which they are listed.</summary>
    public IReadOnlyList<WorkFileRow> Listed(Id<WorkFileRow>[]? files) =>
        [.. (files ?? []).Where(Files.ContainsKey).Select(file => Files[file])];
}

/// <summary>A piece of work as its teacher lists it.</summary>
public sealed record PieceRow
{
    public required Id<Section> Section { get; init; }

    public required Id<PieceRow>? Work { get; init; }

    public required Id<Item> Item { get; init; }

    public required Id<Person> Person { get; init; }

    public required string Name { get; init; }

    public required int N { get; init; }

    public required string Text { get; init; }

    /// <summary>In their order; null: none.</summary>
    public required Id<WorkFileRow>[]? Files { get; init; }

    /// <summary>In their order; null: none.</summary>
    public required string[]? Links { get; init; }

    /// <summary>JSON (<see cref="LogEntry.Read"/>); null: none.</summary>
    public required string? Entries { get; init; }

    /// <summary>JSON (<see cref="OwnJudgement.Read"/>); null: they did not judge it.</summary>
    public required string? Judged { get; init; }

    public required Instant HandedInAt { get; init; }

    public required Instant? ClaimedAt { get; init; }

    /// <summary>It came after the item had closed, and was kept as a draft.</summary>
    public required bool Missed { get; init; }

    public required string? Feedback { get; init; }

    public required bool? Again { get; init; }

    /// <summary>JSON (<see cref="Polycline.Core.PlanFiles.PlanParts.Mark"/>); null: none was given.</summary>
    public required string? Mark { get; init; }

    /// <summary>JSON (<see cref="Remark.Read"/>); null: there are none.</summary>
    public required string? Remarks { get; init; }

    public required Instant? ReturnedAt { get; init; }

    /// <summary>JSON (<see cref="LeftMark.Read"/>); null: it is not ready.</summary>
    public required string? Ready { get; init; }

    /// <summary>Those for whom it was handed in too, in order of name; null: nobody.</summary>
    public required string[]? Others { get; init; }
}

/// <summary>The work of some sections.</summary>
/// <param name="Sections">Those whose work it is, those without any too.</param>
public sealed record SectionsWork(
    IReadOnlySet<Id<Section>> Sections,
    IReadOnlyList<PieceRow> Pieces,
    IReadOnlyDictionary<Id<WorkFileRow>, WorkFileRow> Files
)
{
    /// <summary>The colleagues who read pieces just now.</summary>
    public IReadOnlyDictionary<(Id<Item> Item, Id<Person> Person), ReaderRow> Readers { get; init; } =
        new Dictionary<(Id<Item>, Id<Person>), ReaderRow>();
}

/// <summary>How many students of a section have handed in an item.</summary>
public sealed record HandedInCount(Id<Item> Item, Id<Section> Section, int Students);
