using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Formats.Schemes;

/// <summary>What a line of a scheme of work stands for.</summary>
public enum SchemeLevel
{
    Unit,
    Lesson,
    Item,
    LeftOut,
}

/// <summary>A scheme of work as it was understood, line by line.</summary>
public sealed record Scheme(ImmutableArray<SchemeLine> Lines);

/// <summary>What was understood of a line.</summary>
public sealed record SchemeLine
{
    /// <summary>From 1, as it stands in the text; of a row of a table several can come.</summary>
    public required int Line { get; init; }

    public required SchemeLevel Level { get; init; }

    public required string Title { get; init; }

    /// <summary>It is not plain what it is: somebody is asked.</summary>
    public bool Asks { get; init; }

    /// <summary>In classes or minutes. Of a lesson: how long it takes; of a unit: how long it is said to take. Null: not said.</summary>
    public int? Length { get; init; }

    /// <summary>Whether the length was written in minutes or hours; it is in minutes then.</summary>
    public bool InMinutes { get; init; }

    /// <summary>The least that a lesson can do with; null: not said.</summary>
    public int? Shortest { get; init; }

    public bool Optional { get; init; }

    public ItemKind Kind { get; init; } = ItemKind.Page;

    public Purpose Purpose { get; init; } = Purpose.ToRead;

    /// <summary>When an item is due; null: never.</summary>
    public Anchor? Due { get; init; }

    /// <summary>The address of a link.</summary>
    public string? Address { get; init; }

    /// <summary>What else was written of an item, which has no field of its own: it is kept as its text.</summary>
    public string? Note { get; init; }

    /// <summary>What is to be looked at; null: nothing.</summary>
    public string? Wrong { get; init; }
}
