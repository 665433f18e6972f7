using System.Collections.Immutable;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Merging.Trees;

namespace Polycline.Core.MergeFiles;

/// <summary>Three versions of a course with what was chosen between them. Source: the merge file.</summary>
/// <param name="Choices">In the order given.</param>
public sealed record MergeFile(MergeTree Base, MergeTree Mine, MergeTree Theirs, ImmutableArray<(MergeSpot Spot, MergeSide Take)> Choices)
{
    /// <summary>Reads a merge file: its form, then its ids.</summary>
    /// <param name="text">JSON in UTF-8.</param>
    /// <exception cref="FileRefusedException">Something in it is not as it should be; nothing was read.</exception>
    public static MergeFile Read(ReadOnlySpan<byte> text)
    {
        var root = JsonPiece.Parse(text) ?? throw new FileRefusedException("$", "this is not JSON in UTF-8");
        FaultList.Pass(faults => MergeShapes.File(root, faults));
        FaultList.Pass(faults => MergeNames.Check(root, faults));
        return new(
            TreeOf(root["base"]!),
            TreeOf(root["mine"]!),
            TreeOf(root["theirs"]!),
            [
                .. root.Each("choices")
                    .Select(choice => (SpotOf(choice), choice["take"]!.Value == "mine" ? MergeSide.Mine : MergeSide.Theirs)),
            ]
        );
    }

    /// <summary>What a choice is about.</summary>
    internal static MergeSpot SpotOf(JsonPiece choice) =>
        new(
            choice["id"]!.Value ?? MergeTree.Root,
            choice["kind"]!.Value switch
            {
                "field" => MergeKind.Field,
                "moved" => MergeKind.Moved,
                "order" => MergeKind.Order,
                "removed" => MergeKind.Removed,
                _ => MergeKind.Text,
            },
            choice["list"]?.Value,
            choice["field"]?.Value,
            choice["text"]?.Value,
            choice["block"]?.Value
        );

    /// <summary>The things in a tree with their levels, in no order.</summary>
    internal static IEnumerable<(JsonPiece Thing, Level? Level, JsonPiece? Parent)> Things(JsonPiece tree)
    {
        yield return (tree, null, null);
        foreach (var unit in tree.Each("units"))
        {
            yield return (unit, Level.Unit, tree);
            foreach (var lesson in unit.Each("lessons"))
            {
                yield return (lesson, Level.Lesson, unit);
                foreach (var item in lesson.Each("items"))
                    yield return (item, Level.Item, lesson);
            }
            foreach (var item in unit.Each("items"))
                yield return (item, Level.Item, unit);
        }
    }

    private static MergeTree TreeOf(JsonPiece tree) =>
        new(Things(tree).Select(one => Of(one.Thing, one.Level, one.Parent)).ToDictionary(thing => thing.Id, StringComparer.Ordinal));

    private static string IdOf(JsonPiece thing) => thing["id"]?.Value ?? MergeTree.Root;

    private static MergeThing Of(JsonPiece thing, Level? level, JsonPiece? parent) =>
        new()
        {
            Id = IdOf(thing),
            Level = level,
            Parent = parent is null ? null : IdOf(parent),
            Fields = (thing["fields"]?.Members ?? []).ToDictionary(
                field => field.Name,
                field => JsonValues.Of(field.Value),
                StringComparer.Ordinal
            ),
            Texts = (thing["texts"]?.Members ?? [])
                .Where(text => text.Value.Items.Count > 0)
                .ToDictionary(
                    text => text.Name,
                    text => text.Value.Items.Select(block => new MergeBlock(block["id"]!.Value!, block["text"]!.Value!)).ToImmutableArray(),
                    StringComparer.Ordinal
                ),
            Lists = MergeTree
                .ListsOf(level)
                .ToDictionary(list => list, list => thing.Each(list).Select(IdOf).ToImmutableArray(), StringComparer.Ordinal),
        };
}
