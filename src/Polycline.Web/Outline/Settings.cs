using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Outline;

/// <summary>Some fields of one row that a command may change, and what was done in words; only what differs is changed.</summary>
internal sealed class Settings
{
    private readonly List<Turn> turns = [];
    private readonly List<string> done = [];

    /// <param name="words">What setting it is, for a sentence that starts with the author's name.</param>
    public Settings Set<T>(Column<T> column, T old, T wanted, string words)
    {
        var turn = column.Turns(old, wanted);
        if (turn.Changes)
        {
            turns.Add(turn);
            done.Add(words);
        }
        return this;
    }

    /// <param name="title">What was looked at, where nothing was changed.</param>
    public CommandDecision Of<T>(LedgerTable<T> table, Id<T> id, long version, string title) =>
        done.Count == 0 ? new($"left “{title}” as it is", []) : new(Counting.Joined(done, "and"), [Change.Set(table, id, version, turns)]);
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
