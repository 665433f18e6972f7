using System.Collections.Immutable;

namespace Polycline.Core.Courses;

/// <summary>One of what a choice offers.</summary>
/// <param name="Option">What conditions and picks name it by.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Words">What it is about; it may be empty.</param>
/// <param name="Room">How many students of a section can have it; null: any number.</param>
public sealed record OfferedOption(string Option, string Title, string Words, int? Room)
{
    /// <summary>Null: none.</summary>
    public OptionPicture? Picture { get; init; }
}

/// <param name="File">The hash of its bytes; in a package the name of the file.</param>
/// <param name="Words">What it shows, for people who cannot see it; it may be empty.</param>
public sealed record OptionPicture(string File, string Words)
{
    public const int LongestWords = 300;
}

/// <summary>What a choice offers, beside its options' names. Of what opens by a pick, the computation reads those alone.</summary>
/// <param name="Options">In their order.</param>
/// <param name="IsFinal">Whether what is picked stays picked, unless a teacher changes it.</param>
public sealed record Offered(ImmutableArray<OfferedOption> Options, bool IsFinal)
{
    public const int MostOptions = 20;
    public const int LongestTitle = 100;
    public const int LongestWords = 2_000;
    public const int MostRoom = 500;

    /// <summary>What a new choice begins with.</summary>
    public static Offered New { get; } = new([new("o1", "First form", "", null), new("o2", "Second form", "", null)], false);

    public bool Equals(Offered? other) => other is not null && IsFinal == other.IsFinal && Options.SequenceEqual(other.Options);

    public override int GetHashCode() => HashCode.Combine(Options.Length, IsFinal);
}
