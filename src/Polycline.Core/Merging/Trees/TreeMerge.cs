using System.Collections.Immutable;

namespace Polycline.Core.Merging.Trees;

/// <summary>
/// Three versions of a course brought together: the base that both sides began from, mine and theirs. Nothing is lost that both have.
/// Source: the merge file.
/// </summary>
/// <param name="Taken">Changes of theirs that stand, and are not mine too.</param>
/// <param name="Kept">Changes of mine that stand, and are not theirs too.</param>
/// <param name="Both">Changes of both that stand.</param>
/// <param name="Idle">Choices that met no conflict.</param>
public sealed record TreeMerge(
    MergeTree Merged,
    ImmutableArray<MergeSpot> Taken,
    ImmutableArray<MergeSpot> Kept,
    ImmutableArray<MergeSpot> Both,
    ImmutableArray<MergeConflict> Conflicts,
    ImmutableArray<MergeSpot> Idle
)
{
    public static TreeMerge Of(MergeTree past, MergeTree mine, MergeTree theirs, IReadOnlyDictionary<MergeSpot, MergeSide> choices)
    {
        var settling = new MergeSettling(choices);
        var presence = new MergePresence(past, mine, theirs, settling);
        var merged = new Writing(past, mine, theirs, settling, presence).Tree();
        var (whole, own, other) = (TreeChanges.Of(past, merged), TreeChanges.Of(past, mine), TreeChanges.Of(past, theirs));
        return new(
            merged,
            [.. other.Spots.Where(spot => other.IsIn(spot, whole) && !other.IsIn(spot, own))],
            [.. own.Spots.Where(spot => own.IsIn(spot, whole) && !own.IsIn(spot, other))],
            [.. own.Spots.Where(spot => own.IsIn(spot, whole) && own.IsIn(spot, other))],
            [.. settling.Conflicts],
            [.. choices.Keys.Where(spot => !settling.Met(spot))]
        );
    }

    // What each thing says, and in which order things stand.
    private sealed class Writing(MergeTree past, MergeTree mine, MergeTree theirs, MergeSettling settling, MergePresence presence)
    {
        private readonly ILookup<(string, string), string> members = presence
            .Places.Select(place => (place.Key, place.Value, List: MergeTree.ListFor((mine[place.Key] ?? theirs[place.Key])!.Level!.Value)))
            .ToLookup(one => (one.Value, one.List), one => one.Key);

        public MergeTree Tree() =>
            new(presence.Places.Keys.Prepend(MergeTree.Root).ToDictionary(id => id, Written, StringComparer.Ordinal));

        private MergeThing Written(string id)
        {
            var (own, other) = (mine[id], theirs[id]);
            // What came back, or what one side alone has, is as that side has it.
            var alone =
                presence.Back.TryGetValue(id, out var side) ? (side == MergeSide.Mine ? own : other)
                : own is null || other is null ? own ?? other
                : null;
            var level = (own ?? other)!.Level;
            return new()
            {
                Id = id,
                Level = level,
                Parent = id == MergeTree.Root ? null : presence.Places[id],
                Fields = alone?.Fields ?? Fields(id, past[id], own!, other!),
                Texts = alone?.Texts ?? Texts(id, past[id], own!, other!),
                Lists = MergeTree.ListsOf(level).ToDictionary(list => list, list => Ordered(id, list), StringComparer.Ordinal),
            };
        }

        private ImmutableArray<string> Ordered(string id, string list) =>
            settling.Order(
                new(id, MergeKind.Order, list),
                members[(id, list)].ToHashSet(StringComparer.Ordinal),
                past[id]?.List(list),
                mine[id]?.List(list),
                theirs[id]?.List(list)
            );

        private Dictionary<string, MergeValue> Fields(string id, MergeThing? was, MergeThing own, MergeThing other)
        {
            var fields = new Dictionary<string, MergeValue>(StringComparer.Ordinal);
            foreach (var name in own.Fields.Keys.Union(other.Fields.Keys))
                if (
                    settling.OneOfThree(
                        new(id, MergeKind.Field, Field: name),
                        was?.Fields.GetValueOrDefault(name),
                        own.Fields.GetValueOrDefault(name),
                        other.Fields.GetValueOrDefault(name),
                        value => value
                    ) is
                    { } value
                )
                    fields[name] = value;
            return fields;
        }

        private Dictionary<string, ImmutableArray<MergeBlock>> Texts(string id, MergeThing? was, MergeThing own, MergeThing other)
        {
            var texts = new Dictionary<string, ImmutableArray<MergeBlock>>(StringComparer.Ordinal);
            foreach (var name in own.Texts.Keys.Union(other.Texts.Keys))
            {
                var (past, here, there) = (BlocksOf(was, name), BlocksOf(own, name), BlocksOf(other, name));
                var blocks = new Dictionary<string, string>(StringComparer.Ordinal);
                foreach (var block in here.Keys.Union(there.Keys))
                    if (
                        settling.OneOfThree(
                            new(id, MergeKind.Text, Text: name, Block: block),
                            past.GetValueOrDefault(block),
                            here.GetValueOrDefault(block),
                            there.GetValueOrDefault(block),
                            MergeValue.Of
                        ) is
                        { } text
                    )
                        blocks[block] = text;
                ImmutableArray<string>? Listed(MergeThing? thing) => thing?.Texts.ContainsKey(name) == true ? thing.Blocks(name) : null;
                var order = settling.Order(
                    new(id, MergeKind.Order, Text: name),
                    blocks.Keys.ToHashSet(StringComparer.Ordinal),
                    Listed(was),
                    Listed(own),
                    Listed(other)
                );
                if (!order.IsEmpty)
                    texts[name] = [.. order.Select(block => new MergeBlock(block, blocks[block]))];
            }
            return texts;
        }

        private static Dictionary<string, string> BlocksOf(MergeThing? thing, string text) =>
            thing?.Texts.TryGetValue(text, out var blocks) == true
                ? blocks.ToDictionary(block => block.Id, block => block.Text, StringComparer.Ordinal)
                : [];
    }
}
