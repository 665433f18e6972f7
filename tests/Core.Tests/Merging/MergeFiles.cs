using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Polycline.Core.Json;
using Polycline.Core.MergeFiles;

namespace Polycline.Tests.Core.Merging;

/// <summary>Merge files and their answers.</summary>
internal static class MergeFiles
{
    public static JsonNode Answer(JsonNode file) => Answer(JsonSerializer.SerializeToUtf8Bytes(file));

    public static JsonNode Answer(ReadOnlySpan<byte> text)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream))
            try
            {
                MergeAnswer.Write(MergeFile.Read(text), json);
            }
            catch (FileRefusedException refusal)
            {
                refusal.Write(json);
            }
        return JsonNode.Parse(stream.ToArray())!;
    }

    public static JsonObject Of(JsonNode past, JsonNode mine, JsonNode theirs, params IEnumerable<JsonNode> choices) =>
        new()
        {
            ["format"] = "polycline-merge",
            ["version"] = 1,
            ["base"] = past.DeepClone(),
            ["mine"] = mine.DeepClone(),
            ["theirs"] = theirs.DeepClone(),
            ["choices"] = new JsonArray([.. choices.Select(choice => choice.DeepClone())]),
        };

    /// <summary>Where a file is refused; null: it is not.</summary>
    public static string? PathOf(string text) => (string?)Answer(Encoding.UTF8.GetBytes(text))["error"]?["path"];
}
