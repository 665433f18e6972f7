using System.Collections.Immutable;

namespace Polycline.Core.Courses;

/// <summary>What the parts of a student's total are weighted by.</summary>
public enum WeighedBy
{
    /// <summary>All points together.</summary>
    Nothing,
    Unit,
    Purpose,
}

/// <summary>How a course adds scores up. No date and no opening depends on it. Source: the computation, chapter 13.5.</summary>
public sealed record AddingUp
{
    public const decimal MostWeight = 10_000;
    public const int MostDropped = 20;

    public static readonly AddingUp Plain = new();

    public WeighedBy By { get; init; }

    /// <summary>
    /// What has a weight: units, by what they are called in every edition,
    /// or <c>marks</c>, <c>practice</c> and <c>read</c>. Above 0 each.
    /// </summary>
    public ImmutableSortedDictionary<string, decimal> WeightOf { get; init; } =
        ImmutableSortedDictionary.Create<string, decimal>(StringComparer.Ordinal);

    /// <summary>Whether what is due and not handed in counts as nothing reached; else it is left out.</summary>
    public bool MissingAsZero { get; init; }

    /// <summary>
    /// How many of the lowest a unit leaves out, by what it is called in every edition;
    /// those that leave none out are absent.
    /// </summary>
    public ImmutableSortedDictionary<string, int> Drop { get; init; } =
        ImmutableSortedDictionary.Create<string, int>(StringComparer.Ordinal);

    public bool Equals(AddingUp? other) =>
        other is not null
        && (By, MissingAsZero) == (other.By, other.MissingAsZero)
        && WeightOf.SequenceEqual(other.WeightOf)
        && Drop.SequenceEqual(other.Drop);

    public override int GetHashCode() => HashCode.Combine(By, MissingAsZero, WeightOf.Count, Drop.Count);
}
