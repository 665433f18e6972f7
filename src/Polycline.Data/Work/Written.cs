using System.Text.Json;
using Polycline.Core;
using Polycline.Data.Files;

namespace Polycline.Data.Work;

/// <summary>What a student writes or hands in at once.</summary>
/// <param name="Links">Addresses, in their order.</param>
/// <param name="Entries">Those of a log, in the order of their days.</param>
/// <param name="Copies">What was written in those of the files that are copies; one that is not named keeps what was written in it.</param>
public sealed record Written(
    string Text,
    IReadOnlyList<Id<WorkFileRow>> Files,
    IReadOnlyList<string> Links,
    IReadOnlyList<LogEntry> Entries,
    IReadOnlyDictionary<Id<WorkFileRow>, string> Copies
)
{
    /// <summary>What the student says of it by its rubric; null: nothing.</summary>
    public OwnJudgement? Judged { get; init; }
}

/// <summary>What a student wrote in a log on one day.</summary>
/// <param name="On">A date, such as 2026-10-05.</param>
public sealed record LogEntry(string On, string Text)
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web);

    /// <returns>Null: there are none.</returns>
    public static string? Write(IReadOnlyList<LogEntry> entries) => entries.Count == 0 ? null : JsonSerializer.Serialize(entries, Options);

    public static IReadOnlyList<LogEntry> Read(string? json) =>
        json is null ? [] : JsonSerializer.Deserialize<List<LogEntry>>(json, Options)!;
}
