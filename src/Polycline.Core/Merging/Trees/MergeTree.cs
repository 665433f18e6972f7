using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.Merging.Trees;

/// <summary>A block of a text, which keeps its id while it lives.</summary>
public sealed record MergeBlock(string Id, string Text);

/// <summary>One thing of a tree: its root, a unit, a lesson or an item.</summary>
public sealed record MergeThing
{
    /// <summary>Empty: the root.</summary>
    public required string Id { get; init; }

    /// <summary>Null: the root.</summary>
    public required Level? Level { get; init; }

    /// <summary>What it stands in; null: the root.</summary>
    public required string? Parent { get; init; }

    public required IReadOnlyDictionary<string, MergeValue> Fields { get; init; }

    /// <summary>Those with blocks.</summary>
    public required IReadOnlyDictionary<string, ImmutableArray<MergeBlock>> Texts { get; init; }

    /// <summary>The ids of what stands in it, in order: <c>units</c>, <c>lessons</c>, <c>items</c>.</summary>
    public required IReadOnlyDictionary<string, ImmutableArray<string>> Lists { get; init; }

    public ImmutableArray<string> List(string name) => Lists.TryGetValue(name, out var list) ? list : [];

    /// <summary>The ids of a text's blocks, in order.</summary>
    public ImmutableArray<string> Blocks(string text) =>
        Texts.TryGetValue(text, out var blocks) ? [.. blocks.Select(block => block.Id)] : [];
}

/// <summary>A version of a course, as a merge sees it. Source: the merge file.</summary>
public sealed class MergeTree(IReadOnlyDictionary<string, MergeThing> things)
{
    /// <summary>The root's id.</summary>
    public const string Root = "";

    /// <summary>By id.</summary>
    public IReadOnlyDictionary<string, MergeThing> Things { get; } = things;

    public MergeThing? this[string id] => Things.GetValueOrDefault(id);

    public bool Has(string id) => Things.ContainsKey(id);

    /// <summary>Which lists a thing has; null: the root.</summary>
    public static ImmutableArray<string> ListsOf(Level? level) =>
        level switch
        {
            null => ["units"],
            Level.Unit => ["lessons", "items"],
            Level.Lesson => ["items"],
            _ => [],
        };

    /// <summary>In which list a thing stands.</summary>
    public static string ListFor(Level level) =>
        level switch
        {
            Level.Unit => "units",
            Level.Lesson => "lessons",
            _ => "items",
        };

    /// <summary>A thing and everything below it, in reading order.</summary>
    public IEnumerable<string> Down(string id)
    {
        yield return id;
        foreach (var list in ListsOf(Things[id].Level))
        foreach (var below in Things[id].List(list).SelectMany(Down))
            yield return below;
    }
}
