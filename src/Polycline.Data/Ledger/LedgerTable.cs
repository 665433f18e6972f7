using System.Collections.Immutable;
using System.Text.Json.Nodes;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;

namespace Polycline.Data.Ledger;

/// <summary>A table whose rows change only through <see cref="LedgerStore"/>, so that every change can be undone.</summary>
public class LedgerTable
{
    private readonly List<string> fields = [];

    /// <param name="key">The columns of its primary key.</param>
    /// <param name="tombstoned">True: its rows are marked removed, never deleted.</param>
    /// <param name="version">The column that is raised whenever a command sets a field of the row.</param>
    internal LedgerTable(string name, ImmutableArray<string> key, bool tombstoned = false, string version = "version")
    {
        (Name, Key, Version) = (name, key, version);
        if (tombstoned)
            RemovedAt = Moment("removed_at");
    }

    public string Name { get; }

    /// <summary>The columns of its primary key.</summary>
    public ImmutableArray<string> Key { get; }

    /// <summary>The column that is raised whenever a command sets a field of the row.</summary>
    public string Version { get; }

    /// <summary>The columns that a command may set.</summary>
    public IReadOnlyList<string> Fields => fields;

    /// <summary>When a row was removed; null: its rows are deleted.</summary>
    public Column<Instant?>? RemovedAt { get; }

    /// <summary>The version of a row as it was read; null: there is no such row.</summary>
    public long? VersionOf(JsonObject? row) => row?[Version]?.GetValue<long>();

    internal Column<string?> Text(string name) => new(this, name, text => JsonValue.Create(text));

    /// <summary>A column of bytes, given in hex and written as PostgreSQL writes them.</summary>
    internal Column<string?> Bytes(string name) => new(this, name, hex => hex is null ? null : JsonValue.Create($"\\x{hex}"));

    internal Column<int?> Number(string name) => new(this, name, number => JsonValue.Create(number));

    internal Column<bool> Flag(string name) => new(this, name, flag => JsonValue.Create(flag));

    internal Column<Id<T>?> Reference<T>(string name) => new(this, name, id => JsonValue.Create(id?.Value));

    internal Column<Instant?> Moment(string name) =>
        new(this, name, at => at is { } instant ? JsonValue.Create(InstantPattern.ExtendedIso.Format(instant)) : null);

    internal Column<LocalDate?> Date(string name) =>
        new(this, name, date => date is { } day ? JsonValue.Create(LocalDatePattern.Iso.Format(day)) : null);

    /// <summary>A range of dates, the last one inclusive; null: open. Written as PostgreSQL writes it.</summary>
    internal Column<(LocalDate? From, LocalDate? To)> Period(string name) =>
        new(this, name, period =>
            JsonValue.Create(
                $"{(period.From is { } from ? $"[{LocalDatePattern.Iso.Format(from)}" : "(")},"
                    + $"{(period.To is { } to ? LocalDatePattern.Iso.Format(to.PlusDays(1)) : "")})"
            )
        );

    internal Column<JsonNode?> Json(string name) => new(this, name, json => json?.DeepClone());

    /// <summary>A column that holds JSON of which only the text is at hand.</summary>
    internal Column<T> Json<T>(string name, Func<T, string?> text) =>
        new(this, name, value => text(value) is { } json ? JsonNode.Parse(json) : null);

    internal void Has(string field)
    {
        if (!Key.Contains(field))
            fields.Add(field);
    }
}

/// <summary>A table whose rows have an id of their own.</summary>
public sealed class LedgerTable<T> : LedgerTable
{
    internal LedgerTable(string name, bool tombstoned = false, string version = "version")
        : base(name, ["id"], tombstoned, version) { }
}

/// <summary>A column of a ledger table, and how its values are written as JSON.</summary>
public sealed class Column<T>
{
    private readonly Func<T, JsonNode?> json;

    internal Column(LedgerTable table, string name, Func<T, JsonNode?> json)
    {
        (Table, Name, this.json) = (table, name, json);
        table.Has(name);
    }

    public LedgerTable Table { get; }

    public string Name { get; }

    /// <summary>The column with a value.</summary>
    public Cell Is(T value) => new(Table, Name, json(value));

    /// <summary>The column going from one value to another.</summary>
    public Turn Turns(T before, T after) => new(Is(before), Is(after));
}

/// <summary>The value of one column in a row.</summary>
public readonly record struct Cell(LedgerTable Table, string Column, JsonNode? Value);

/// <summary>The old and the new value of one column in a row.</summary>
public readonly record struct Turn(Cell Before, Cell After)
{
    /// <summary>False: the two are the same.</summary>
    public bool Changes => !JsonNode.DeepEquals(Before.Value, After.Value);
}
