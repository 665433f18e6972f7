using System.Text.Json;
using Polycline.Core.Merging.Trees;

namespace Polycline.Core.MergeFiles;

/// <summary>Writes what a merge comes to. Source: the merge file, <i>Answer</i>.</summary>
public static class MergeAnswer
{
    public static void Write(MergeFile file, Utf8JsonWriter json)
    {
        var merge = TreeMerge.Of(
            file.Base,
            file.Mine,
            file.Theirs,
            file.Choices.ToDictionary(choice => choice.Spot, choice => choice.Take)
        );
        json.WriteStartObject();
        json.WritePropertyName("merged");
        Thing(json, merge.Merged, MergeTree.Root);
        Changes(json, "taken", merge.Taken);
        Changes(json, "kept", merge.Kept);
        Changes(json, "same", merge.Both);
        json.WriteStartArray("conflicts");
        foreach (var conflict in merge.Conflicts)
        {
            json.WriteStartObject();
            Spot(json, conflict.Spot);
            Value(json, "base", conflict.Base);
            Value(json, "mine", conflict.Mine);
            Value(json, "theirs", conflict.Theirs);
            if (conflict.Take is { } take)
                json.WriteString("take", take == MergeSide.Mine ? "mine" : "theirs");
            else
                json.WriteNull("take");
            json.WriteEndObject();
        }
        json.WriteEndArray();
        json.WriteStartArray("idle");
        for (var n = 0; n < file.Choices.Length; n++)
            if (merge.Idle.Contains(file.Choices[n].Spot))
                json.WriteNumberValue(n);
        json.WriteEndArray();
        json.WriteEndObject();
        json.Flush();
    }

    private static void Thing(Utf8JsonWriter json, MergeTree tree, string id)
    {
        var thing = tree[id]!;
        json.WriteStartObject();
        if (id != MergeTree.Root)
            json.WriteString("id", id);
        json.WriteStartObject("fields");
        foreach (var (name, value) in thing.Fields.OrderBy(field => field.Key, StringComparer.Ordinal))
            Value(json, name, value);
        json.WriteEndObject();
        json.WriteStartObject("texts");
        foreach (var (name, blocks) in thing.Texts.OrderBy(text => text.Key, StringComparer.Ordinal))
        {
            json.WriteStartArray(name);
            foreach (var block in blocks)
            {
                json.WriteStartObject();
                json.WriteString("id", block.Id);
                json.WriteString("text", block.Text);
                json.WriteEndObject();
            }
            json.WriteEndArray();
        }
        json.WriteEndObject();
        foreach (var list in MergeTree.ListsOf(thing.Level))
        {
            json.WriteStartArray(list);
            foreach (var below in thing.List(list))
                Thing(json, tree, below);
            json.WriteEndArray();
        }
        json.WriteEndObject();
    }

    private static void Changes(Utf8JsonWriter json, string name, IEnumerable<MergeSpot> changes)
    {
        json.WriteStartArray(name);
        foreach (var change in changes)
        {
            json.WriteStartObject();
            Spot(json, change);
            json.WriteEndObject();
        }
        json.WriteEndArray();
    }

    private static void Spot(Utf8JsonWriter json, MergeSpot spot)
    {
        if (spot.Id == MergeTree.Root)
            json.WriteNull("id");
        else
            json.WriteString("id", spot.Id);
        json.WriteString(
            "kind",
            spot.Kind switch
            {
                MergeKind.Added => "added",
                MergeKind.Field => "field",
                MergeKind.Moved => "moved",
                MergeKind.Order => "order",
                MergeKind.Removed => "removed",
                _ => "text",
            }
        );
        foreach (var (name, value) in new[] { ("list", spot.List), ("field", spot.Field), ("text", spot.Text), ("block", spot.Block) })
            if (value is not null)
                json.WriteString(name, value);
    }

    private static void Value(Utf8JsonWriter json, string name, MergeValue? value)
    {
        if (value is null)
            return;
        json.WritePropertyName(name);
        // It was read, and so it can be written; however deep it is.
        json.WriteRawValue(value.Written, skipInputValidation: true);
    }
}
