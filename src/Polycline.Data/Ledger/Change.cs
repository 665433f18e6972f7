using System.Text.Json.Nodes;
using NodaTime;
using Polycline.Core;

namespace Polycline.Data.Ledger;

/// <summary>One row that a command touches.</summary>
/// <param name="Table">A table of <see cref="LedgerTable"/>.</param>
/// <param name="Key">The columns of its primary key.</param>
/// <param name="Before">The touched fields as they were; null: the row is new.</param>
/// <param name="After">The touched fields as they will be; null: the row goes.</param>
/// <param name="Version">The version of the row that <paramref name="Before"/> was read from; null for a new row.</param>
public sealed record Change(string Table, JsonObject Key, JsonObject? Before, JsonObject? After, long? Version)
{
    /// <summary>A change of fields of a row with a single id.</summary>
    public static Change Of<T>(string table, Id<T> id, long version, JsonObject before, JsonObject after) =>
        new(table, new JsonObject { ["id"] = id.Value }, before, after, version);
}

/// <summary>What carries a version counter of its own and is watched as one.</summary>
/// <param name="Kind">A table with a counter: <c>edition</c>, <c>section</c>, <c>term</c> or <c>enrolment</c>.</param>
public readonly record struct Scope(string Kind, long Key)
{
    public static Scope Of(Id<Core.Courses.Edition> edition) => new("edition", edition.Value);

    public static Scope Of(Id<Core.Calendars.Term> term) => new("term", term.Value);

    public override string ToString() => $"{Kind}:{Key}";
}

/// <summary>Some changes made in one go: the unit of undo.</summary>
public sealed record Batch;

/// <summary>What stands in the log of a batch.</summary>
/// <param name="Words">What was done, for a sentence that starts with the author's name.</param>
public sealed record BatchHead(Scope Scope, string Command, string Words, long Author, Instant At, Id<Batch>? Undoes);

/// <summary>A batch as it was applied.</summary>
/// <param name="Version">The scope's counter after it.</param>
public sealed record AppliedBatch(Id<Batch> Id, long Version);

/// <summary>A row was changed by someone else since it was read. Nothing was written.</summary>
/// <param name="change">What was asked for.</param>
/// <param name="present">The row as it is now; null: it is gone.</param>
public sealed class StaleChangeException(Change change, JsonObject? present) : Exception("The row was changed meanwhile.")
{
    public Change Change { get; } = change;

    public JsonObject? Present { get; } = present;
}
