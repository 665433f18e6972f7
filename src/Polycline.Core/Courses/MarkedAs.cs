using System.Collections.Immutable;

namespace Polycline.Core.Courses;

/// <summary>How whoever reads a piece says how good it is.</summary>
public enum MarkForm
{
    Points,
    Percent,

    /// <summary>By one of a few levels in words.</summary>
    Scale,
}

/// <param name="Percent">What it stands for in a total; null: it enters none.</param>
public sealed record MarkLevel(string Name, decimal? Percent);

/// <summary>How an item is marked; without it, it is given back in words only. No date and no opening depends on it.</summary>
public sealed record MarkedAs(MarkForm Form)
{
    public const decimal MostOutOf = 10_000;
    public const int MostLevels = 10;
    public const int LongestLevel = 40;

    /// <summary>What the item is worth: full points, or how much it weighs in a total. Above 0.</summary>
    public decimal OutOf { get; init; } = 100;

    /// <summary>Of a scale, lowest first; all with a percent or none.</summary>
    public ImmutableArray<MarkLevel> Levels { get; init; } = [];

    /// <summary>Whether an item can be marked at all: only where something is handed in.</summary>
    public static bool Suits(ItemKind kind, Asks? asks) =>
        kind is ItemKind.Task or ItemKind.Handout && (asks ?? Asks.Usual(kind)) is { Way: not AskedWay.Tick };

    public bool Equals(MarkedAs? other) =>
        other is not null && (Form, OutOf) == (other.Form, other.OutOf) && Levels.SequenceEqual(other.Levels);

    public override int GetHashCode() => HashCode.Combine(Form, OutOf, Levels.Length);
}

/// <summary>What somebody gave for a piece, with how it was marked then.</summary>
/// <param name="Value">Points or percent; null: a level, or by a rubric.</param>
/// <param name="Level">The name of a level; null: points or percent.</param>
public sealed record GivenMark(MarkedAs As, decimal? Value, string? Level)
{
    /// <summary>By which rubric; null: by none.</summary>
    public GivenByRubric? Rubric { get; init; }
}

/// <summary>What was given by a rubric, which the mark keeps whatever becomes of it.</summary>
/// <param name="Rubric">What the rubric is kept under.</param>
/// <param name="Levels">Each criterion at most once.</param>
/// <param name="Reached">The weighted points of these levels.</param>
/// <param name="Most">The highest that these criteria allow; 0: it gives no score.</param>
public sealed record GivenByRubric(string Rubric, ImmutableArray<GivenLevel> Levels, decimal Reached, decimal Most)
{
    public bool Equals(GivenByRubric? other) =>
        other is not null && (Rubric, Reached, Most) == (other.Rubric, other.Reached, other.Most) && Levels.SequenceEqual(other.Levels);

    public override int GetHashCode() => HashCode.Combine(Rubric, Reached, Most, Levels.Length);
}

/// <param name="Points">Where the level is a range.</param>
public sealed record GivenLevel(string Criterion, string Level, decimal? Points);
