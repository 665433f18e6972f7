using System.Collections.Immutable;

namespace Polycline.Core.Courses;

/// <summary>A course kept once by a team: the thing of which editions are made.</summary>
public sealed record Master(Id<Master> Id, string Title);

/// <summary>A master as taught in one year or term. Source: the computation, chapters 3 and 7.</summary>
/// <param name="Codes">How its items are numbered.</param>
/// <param name="Units">In the team's order.</param>
public sealed record Edition(Id<Edition> Id, Id<Master> Master, string Title, EditionState State, CodeStyle Codes, ImmutableArray<Unit> Units)
{
    /// <summary>Every item once, in reading order: a unit's lessons, each followed by its items, then the unit's own.</summary>
    public IEnumerable<Item> InReadingOrder() => Units.SelectMany(unit => unit.InReadingOrder());
}

/// <summary>A unit and what it holds.</summary>
/// <param name="Lessons">In order.</param>
/// <param name="Items">The items that hang on the unit itself, in order.</param>
public sealed record Unit(Id<Unit> Id, string Title, bool Published, ImmutableArray<Lesson> Lessons, ImmutableArray<Item> Items)
{
    public IEnumerable<Item> InReadingOrder() => Lessons.SelectMany(lesson => lesson.Items).Concat(Items);
}

/// <summary>A piece of the plan that lasts so many classes.</summary>
/// <param name="Length">In meetings or minutes of class time, as the edition measures; 0 or more.</param>
public sealed record Lesson(Id<Lesson> Id, string Title, int Length, bool Optional, bool Published, ImmutableArray<Item> Items);

/// <summary>Something students read or do.</summary>
/// <param name="Code">The code fixed for it; null: numbered by its place (chapter 7).</param>
public sealed record Item(Id<Item> Id, ItemKind Kind, Purpose Purpose, string Title, bool Published, string? Code);

/// <summary>What an item is.</summary>
public enum ItemKind
{
    Page,
    Link,
    Handout,
    Task,
    Quiz,
    Choice,
    Discussion,
}

/// <summary>What an item is for.</summary>
public enum Purpose
{
    ToRead,
    Practice,
    ForMarks,
}

/// <summary>Where an edition stands in its life; one of a master is current at most.</summary>
public enum EditionState
{
    Draft,
    Current,

    /// <summary>Readable, searchable, unchangeable.</summary>
    Resting,
}

/// <summary>How an edition numbers its items. Source: the computation, chapter 7.</summary>
public enum CodeStyle
{
    /// <summary>Unit number, dot, running number within the unit: <c>3.07</c>.</summary>
    ByUnit,

    /// <summary>Straight through the edition: <c>#041</c>.</summary>
    Straight,
}
