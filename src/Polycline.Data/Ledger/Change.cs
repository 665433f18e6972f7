using System.Text.Json.Nodes;
using NodaTime;
using Polycline.Core;

namespace Polycline.Data.Ledger;

/// <summary>A change of one row, made of the columns that <see cref="Tables"/> declares.</summary>
public sealed record Change
{
    // Also for changes read back from the log, whose names were columns when it was written.
    internal Change(LedgerTable table, JsonObject key, JsonObject? before, JsonObject? after, long? version) =>
        (Table, Key, Before, After, Version) = (table, key, before, after, version);

    public LedgerTable Table { get; }

    /// <summary>The columns of its primary key; empty where the database gives a new row its id.</summary>
    public JsonObject Key { get; internal init; }

    /// <summary>The touched fields as they were; null: the row is new.</summary>
    public JsonObject? Before { get; internal init; }

    /// <summary>The touched fields as they will be; null: the row goes.</summary>
    public JsonObject? After { get; internal init; }

    /// <summary>The version of the row that <see cref="Before"/> was read from; null for a new row.</summary>
    public long? Version { get; init; }

    /// <summary>Adds a row. Its key is among the cells, or the database gives it an id.</summary>
    public static Change Add(params IReadOnlyList<Cell> cells)
    {
        var table = Same(cells);
        return new(table, Row(cells.Where(cell => IsKey(table, cell))), null, Row(cells.Where(cell => !IsKey(table, cell))), null);
    }

    /// <summary>Changes some columns of the row with this id, leaving out those that already hold the new value.</summary>
    public static Change Set<T>(LedgerTable<T> table, Id<T> id, long version, params IReadOnlyList<Turn> turns) =>
        Set(table, KeyOf(id), version, turns);

    /// <summary>The same for a row whose key has several columns.</summary>
    public static Change Set(IReadOnlyList<Cell> key, long version, params IReadOnlyList<Turn> turns) =>
        Set(Same(key), Row(key), version, turns);

    /// <summary>Marks a row as removed.</summary>
    public static Change Remove<T>(LedgerTable<T> table, Id<T> id, long version, Instant at) =>
        Set(table, id, version, table.RemovedAt!.Turns(null, at));

    /// <summary>Deletes a row.</summary>
    /// <param name="row">Its key and the values it held.</param>
    public static Change Delete(long version, params IReadOnlyList<Cell> row)
    {
        var table = Same(row);
        return new(table, Row(row.Where(cell => IsKey(table, cell))), Row(row.Where(cell => !IsKey(table, cell))), null, version);
    }

    /// <summary>The same for a row with an id.</summary>
    public static Change Delete<T>(LedgerTable<T> table, Id<T> id, long version, params IReadOnlyList<Cell> row) =>
        new(table, KeyOf(id), Row(row), null, version);

    private static Change Set(LedgerTable table, JsonObject key, long version, IReadOnlyList<Turn> turns)
    {
        if (turns.FirstOrDefault(turn => turn.After.Table != table) is { After.Table: not null } stray)
            throw new ArgumentException($"'{stray.After.Column}' is no column of '{table.Name}'.", nameof(turns));
        var changing = turns.Where(turn => turn.Changes).ToList();
        return new(table, key, Row(changing.Select(turn => turn.Before)), Row(changing.Select(turn => turn.After)), version);
    }

    private static JsonObject KeyOf<T>(Id<T> id) => new() { ["id"] = id.Value };

    private static LedgerTable Same(IReadOnlyList<Cell> cells) =>
        cells.All(cell => cell.Table == cells[0].Table)
            ? cells[0].Table
            : throw new ArgumentException("A change is of one table.", nameof(cells));

    private static bool IsKey(LedgerTable table, Cell cell) => table.Key.Contains(cell.Column);

    private static JsonObject Row(IEnumerable<Cell> cells) => new(cells.Select(cell => KeyValuePair.Create(cell.Column, cell.Value)));
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
public sealed record BatchHead(Scope Scope, string Command, string Words, Id<Core.Sections.Person> Author, Instant At, Id<Batch>? Undoes);

/// <summary>A batch as it was applied.</summary>
/// <param name="Version">The scope's counter after it.</param>
public sealed record AppliedBatch(Id<Batch> Id, long Version);

/// <summary>A row was changed by someone else since it was read. Nothing was written.</summary>
/// <param name="change">What was asked for.</param>
/// <param name="present">The row as it is now; null: it is gone.</param>
public sealed class StaleChangeException(Change change, JsonObject? present) : Exception("The row was changed in the meantime.")
{
    public Change Change { get; } = change;

    public JsonObject? Present { get; } = present;
}
