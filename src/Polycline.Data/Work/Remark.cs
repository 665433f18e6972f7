using System.Text.Json;
using Polycline.Core;
using Polycline.Data.Files;

namespace Polycline.Data.Work;

/// <summary>What a teacher says in the margin of a piece, at the place it is about.</summary>
public sealed record Remark(RemarkPlace At, string Text)
{
    /// <summary>How many one piece takes.</summary>
    public const int Most = 100;

    /// <summary>How long one may be, in characters.</summary>
    public const int Longest = 2_000;

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull,
    };

    /// <returns>Null: there are none.</returns>
    public static string? Write(IReadOnlyList<Remark> remarks) => remarks.Count == 0 ? null : JsonSerializer.Serialize(remarks, Options);

    public static IReadOnlyList<Remark> Read(string? json) => json is null ? [] : JsonSerializer.Deserialize<List<Remark>>(json, Options)!;
}

/// <summary>
/// A place in a piece: a stretch of its text, a stretch of one entry of its log, or a rectangle on a picture or on a page of a file.
/// </summary>
/// <param name="From">Where a stretch begins, in UTF-16 units from 0; null: it is no stretch.</param>
/// <param name="To">Where it ends; what is at <paramref name="To"/> is no longer in it.</param>
/// <param name="Entry">Which entry of the log, from 0; null: the text.</param>
/// <param name="File">Which file; null: none.</param>
/// <param name="Page">Which page of the file, from 1; null: it has none.</param>
/// <param name="Box">Left, top, width and height in thousandths of the picture or the page; null: all of it.</param>
public sealed record RemarkPlace(
    int? From = null,
    int? To = null,
    int? Entry = null,
    long? File = null,
    int? Page = null,
    IReadOnlyList<int>? Box = null
)
{
    /// <summary>The highest page that can be meant.</summary>
    public const int MostPages = 5_000;
}

/// <summary>What somebody has said in a margin, or in a few words of feedback.</summary>
/// <param name="Here">Of the same item, in whichever course.</param>
public sealed record RemarkMade(string Text, bool Here);

/// <summary>What was handed in at once, as remarks are made on it.</summary>
/// <param name="Files">In their order; null: none.</param>
/// <param name="Entries">JSON (<see cref="LogEntry.Read"/>); null: none.</param>
public sealed record Remarkable(string Text, Id<WorkFileRow>[]? Files, string? Entries)
{
    /// <summary>Whether it has such a place.</summary>
    public bool Has(RemarkPlace at) =>
        at.File is { } file
            ? at is { From: null, To: null, Entry: null }
                && (Files ?? []).Any(one => one.Value == file)
                && at.Page is null or (>= 1 and <= RemarkPlace.MostPages)
                && at.Box is null or [>= 0, >= 0, > 0, > 0]
                && (at.Box is null || (at.Box[0] + at.Box[2] <= 1000 && at.Box[1] + at.Box[3] <= 1000))
            : at is { Page: null, Box: null, From: >= 0 } && at.To > at.From && at.To <= Length(at.Entry);

    /// <summary>The remarks as one reads: on the text, on the entries, then on the files, by page and from the top.</summary>
    public IReadOnlyList<Remark> InOrder(IEnumerable<Remark> remarks) =>
        [
            .. remarks
                .OrderBy(remark => PlaceOf(remark.At.File))
                .ThenBy(remark => remark.At.Page ?? remark.At.Entry ?? -1)
                .ThenBy(remark => remark.At.From ?? remark.At.Box?[1] ?? 0),
        ];

    /// <summary>The same remarks on what was handed in together with this: each has files of their own, in the same order.</summary>
    public IReadOnlyList<Remark> On(Remarkable other, IReadOnlyList<Remark> remarks) =>
        [
            .. remarks.Select(remark =>
                PlaceOf(remark.At.File) is var at && at < 0 ? remark : remark with { At = remark.At with { File = other.Files![at].Value } }
            ),
        ];

    private int PlaceOf(long? file) => Array.FindIndex(Files ?? [], one => one.Value == file);

    private int Length(int? entry)
    {
        if (entry is not { } at)
            return Text.Length;
        var entries = LogEntry.Read(Entries);
        return at >= 0 && at < entries.Count ? entries[at].Text.Length : 0;
    }
}
