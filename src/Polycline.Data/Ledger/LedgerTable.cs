using System.Collections.Immutable;
using System.Text.Json.Nodes;

namespace Polycline.Data.Ledger;

/// <summary>A table whose rows change through the <see cref="LedgerStore"/> only.</summary>
/// <param name="Name">The table.</param>
/// <param name="Key">The columns of its primary key.</param>
/// <param name="Fields">The columns a command may set.</param>
/// <param name="Tombstoned">True: its rows are marked removed, never deleted.</param>
/// <param name="Version">The column that is raised whenever a command sets a field of the row.</param>
public sealed record LedgerTable(
    string Name,
    ImmutableArray<string> Key,
    ImmutableArray<string> Fields,
    bool Tombstoned,
    string Version = "version"
)
{
    /// <summary>Every table that the ledger keeps. What is never undone has no place here.</summary>
    public static readonly ImmutableArray<LedgerTable> All =
    [
        new("unit", ["id"], ["edition", "lineage", "rank", "title", "published", "gate", "before", "section", "removed_at"], true),
        new(
            "lesson",
            ["id"],
            [
                "edition",
                "unit",
                "lineage",
                "rank",
                "title",
                "length",
                "min_length",
                "optional",
                "published",
                "gate",
                "section",
                "removed_at",
            ],
            true
        ),
        new(
            "item",
            ["id"],
            [
                "edition",
                "unit",
                "lesson",
                "lineage",
                "rank",
                "kind",
                "purpose",
                "title",
                "published",
                "code",
                "body",
                "opens",
                "due",
                "closes",
                "gate",
                "for_whom",
                "before",
                "options",
                "picks",
                "section",
                "removed_at",
            ],
            true
        ),
        new("section", ["id"], ["edition", "slots", "follows_from"], false),
        new("adjustment", ["section", "target", "field"], ["value"], false),
        new("taught", ["section", "lesson"], ["took", "done", "left_over", "at"], false),
        new("order_change", ["section", "seq"], ["target", "change"], false),
        new("meeting_change", ["section", "seq"], ["change"], false),
        new("student_group", ["id"], ["edition", "name", "removed_at"], true),
        new("in_group", ["student_group", "person"], ["at"], false),
        // Their versions are the counters of their scopes.
        new("edition", ["id"], ["codes", "before", "levels"], false, "own_version"),
        new("term", ["id"], ["first", "last", "settings"], false, "own_version"),
        new("calendar_day", ["id"], ["term", "kind", "first", "last", "name", "runs", "periods"], false),
    ];

    /// <summary>The version of a row as it was read; null: there is no such row.</summary>
    public long? VersionOf(JsonObject? row) => row?[Version]?.GetValue<long>();

    /// <summary>The table of that name.</summary>
    /// <exception cref="ArgumentException">The ledger keeps no such table, or a field is not one a command may set.</exception>
    public static LedgerTable Of(Change change)
    {
        var table = All.FirstOrDefault(table => table.Name == change.Table)
            ?? throw new ArgumentException($"The ledger keeps no table '{change.Table}'.", nameof(change));
        foreach (var (field, _) in change.After ?? [])
            if (!table.Fields.Contains(field))
                throw new ArgumentException($"'{change.Table}.{field}' is not set by commands.", nameof(change));
        return table;
    }
}
