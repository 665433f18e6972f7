using System.Collections.Immutable;

namespace Polycline.Core.Courses;

/// <summary>What an item asks of a student. The computation does not read it: no date and no opening depends on it.</summary>
public sealed record Asks
{
    /// <summary>What an item has where nobody has said: a task takes anything, a handout is ticked off.</summary>
    public static Asks? Usual(ItemKind kind) =>
        kind switch
        {
            ItemKind.Task => new(),
            ItemKind.Handout => new() { Way = AskedWay.Tick },
            _ => null,
        };

    /// <summary>Whether an item of this kind can ask it.</summary>
    public bool Suits(ItemKind kind) =>
        kind is ItemKind.Task or ItemKind.Handout || (Way == AskedWay.Tick && kind is ItemKind.Page or ItemKind.Link);

    public AskedWay Way { get; init; } = AskedWay.Work;

    /// <summary>Of work only: a log has its entries.</summary>
    public AskedPart Text { get; init; } = AskedPart.Welcome;

    public AskedPart Links { get; init; } = AskedPart.Welcome;

    /// <summary>The files that are asked for by name.</summary>
    public ImmutableArray<AskedFile> Files { get; init; } = [];

    /// <summary>Whether files are taken that nobody has asked for by name.</summary>
    public bool OtherFiles { get; init; } = true;

    /// <summary>The groups whose members hand in one piece together, those of one section; empty: each hands in their own.</summary>
    public ImmutableArray<string> Together { get; init; } = [];

    /// <summary>Whether students judge their own piece by the item's rubric before they hand it in.</summary>
    public bool Judged { get; init; }

    /// <summary>Whether a file of this kind is taken.</summary>
    public bool Takes(AskedKind kind) => OtherFiles || Files.Any(file => file.Is(kind));

    /// <summary>What is asked for and is not among what a student has, in words: “your text”, “the photograph”.</summary>
    /// <param name="files">What kind of file each of theirs is.</param>
    public IReadOnlyList<string> Missing(bool hasText, int links, int entries, IReadOnlyList<AskedKind> files)
    {
        var missing = new List<string>();
        if (Way == AskedWay.Log && entries == 0)
            missing.Add("an entry");
        if (Way == AskedWay.Work && Text == AskedPart.Asked && !hasText)
            missing.Add("your text");
        if (Links == AskedPart.Asked && links == 0)
            missing.Add("a link");
        // Of one kind first: what takes anything takes what they leave.
        var left = files.ToList();
        foreach (var file in Files.OrderBy(file => file.Kind is null))
            if (left.FindIndex(file.Is) is >= 0 and var at)
                left.RemoveAt(at);
            else
                missing.Add(file.What);
        return [.. missing.OrderBy(words => Files.Select(file => file.What).ToList().IndexOf(words))];
    }

    public bool Equals(Asks? other) =>
        other is not null
        && (Way, Text, Links, OtherFiles, Judged) == (other.Way, other.Text, other.Links, other.OtherFiles, other.Judged)
        && Files.SequenceEqual(other.Files)
        && Together.SequenceEqual(other.Together);

    public override int GetHashCode() => HashCode.Combine(Way, Text, Links, OtherFiles, Files.Length);
}

/// <summary>A file that is asked for.</summary>
/// <param name="What">What it is, as one says it to a student: “the photograph”.</param>
/// <param name="Kind">Null: any kind will do.</param>
public sealed record AskedFile(string What, AskedKind? Kind)
{
    public bool Is(AskedKind kind) => Kind is null || Kind == kind;
}

/// <summary>How a student shows that an item is done.</summary>
public enum AskedWay
{
    /// <summary>Text, files or links are handed in.</summary>
    Work,

    /// <summary>Dated entries are kept over days or weeks and handed in together.</summary>
    Log,

    /// <summary>Nothing is handed in: the student ticks it off.</summary>
    Tick,
}

/// <summary>Whether something belongs to what is handed in.</summary>
public enum AskedPart
{
    Asked,
    Welcome,
    No,
}

/// <summary>What sort of file a student brings.</summary>
public enum AskedKind
{
    Picture,
    Document,
    Table,
    Slides,
    Sound,
    Film,
    Other,
}
