using System.Text.Json.Nodes;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline;

/// <summary>Some fields of one row that a command may change, and what was done in words; only what differs is changed.</summary>
internal sealed class Settings
{
    private readonly JsonObject before = [];
    private readonly JsonObject after = [];
    private readonly List<string> done = [];

    /// <param name="words">What setting it is, for a sentence that starts with the author's name.</param>
    public Settings Set<T>(string field, T old, T wanted, string words)
    {
        if (Equals(old, wanted))
            return this;
        (before[field], after[field]) = (JsonValue.Create(old), JsonValue.Create(wanted));
        done.Add(words);
        return this;
    }

    /// <summary>As above, of a field that holds JSON.</summary>
    public Settings Set(string field, JsonNode? old, JsonNode? wanted, string words)
    {
        if (JsonNode.DeepEquals(old, wanted))
            return this;
        (before[field], after[field]) = (old, wanted);
        done.Add(words);
        return this;
    }

    /// <param name="title">What was looked at, where nothing was changed.</param>
    public CommandDecision Of(string table, long id, long version, string title) =>
        done.Count == 0
            ? new($"left “{title}” as it is", [])
            : new(Counting.Joined(done, "and"), [new Change(table, new() { ["id"] = id }, before, after, version)]);
}

/// <summary>What students see of something before it opens, as it is asked for and stored.</summary>
internal static class BeforeWords
{
    public static readonly string?[] All = [null, "listed", "unseen"];

    public const string Choice = "Say what students see of it before it opens: listed, unseen, or as what it is in.";

    public static string? Of(BeforeOpening? before) => before is { } known ? Core.Wording.EnumNames.Of(known) : null;

    public static string InWords(string? before) =>
        before switch
        {
            "listed" => "listed before it opens",
            "unseen" => "unseen before it opens",
            _ => "seen before it opens as what it is in",
        };
}
