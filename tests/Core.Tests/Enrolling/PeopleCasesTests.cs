using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Polycline.Core.PlanFiles;
using Polycline.Tests.Core.PlanFiles;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Enrolling;

/// <summary>
/// The worked cases of late, moved and joining. Their answers name only the members that matter; those they name must agree.
/// </summary>
public sealed class PeopleCasesTests
{
    private static readonly string Folder = Path.Combine(CasesTests.Folder, "people");

    public static TheoryData<string> Cases =>
        [.. Directory.EnumerateFiles(Folder, "*.json").Select(path => Path.GetFileNameWithoutExtension(path)!).Order()];

    [Fact]
    public void None_of_them_is_lost() => Cases.Count.ShouldBeGreaterThanOrEqualTo(10);

    [Theory]
    [MemberData(nameof(Cases))]
    public void What_the_case_names_agrees(string name)
    {
        var file = JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, name + ".json")))!;
        var expected = file["expect"]!;
        (expected["error"] as JsonObject)?.Remove("message");
        Disagreements(expected, Answer(file["input"]!), "$").ShouldBeEmpty();
    }

    [Theory]
    [MemberData(nameof(Cases))]
    public void Written_and_read_again_the_plan_gives_the_same_answers(string name)
    {
        var file = JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, name + ".json")))!;
        if (file["expect"]!["error"] is not null)
            return;
        var input = file["input"]!;
        var written = JsonNode.Parse(PlanWriter.Write(PlanFile.Read(Encoding.UTF8.GetBytes(input.ToJsonString())).Plan))!;
        written["ask"] = input["ask"]!.DeepClone();
        Answer(written).ToJsonString().ShouldBe(Answer(input).ToJsonString());
    }

    [Fact]
    public void What_does_not_agree_is_noticed()
    {
        static int Count(string expected, string answer) => Disagreements(JsonNode.Parse(expected), JsonNode.Parse(answer), "$").Count();
        Count("""{"a":1}""", """{"a":1.0,"b":2}""").ShouldBe(0);
        Count("""{"a":[1,2]}""", """{"a":[1]}""").ShouldBe(1);
        Count("""{"a":{"$absent":true},"b":null}""", """{"a":3,"b":0}""").ShouldBe(2);
        Count("""{"a":"x"}""", "{}").ShouldBe(1);
    }

    internal static JsonNode Answer(JsonNode input) =>
        JsonNode.Parse(Plans.Answer(JsonSerializer.SerializeToUtf8Bytes(input)).GetRawText())!;

    private static IEnumerable<string> Disagreements(JsonNode? expected, JsonNode? answer, string at)
    {
        switch (expected)
        {
            case JsonObject members:
                foreach (var (name, value) in members)
                {
                    var isThere = answer is JsonObject of && of.ContainsKey(name);
                    if (value is JsonObject marker && marker.ContainsKey("$absent"))
                    {
                        if (isThere)
                            yield return $"{at}.{name} is there";
                    }
                    else if (!isThere)
                        yield return $"{at}.{name} is not there";
                    else
                        foreach (var fault in Disagreements(value, answer![name], $"{at}.{name}"))
                            yield return fault;
                }
                break;
            case JsonArray list:
                if (answer is not JsonArray entries || entries.Count != list.Count)
                    yield return $"{at}: {list.ToJsonString()}, but {answer?.ToJsonString()}";
                else
                    for (var n = 0; n < list.Count; n++)
                        foreach (var fault in Disagreements(list[n], entries[n], $"{at}[{n}]"))
                            yield return fault;
                break;
            default:
                if (!JsonNode.DeepEquals(expected, answer) && !SameNumber(expected, answer))
                    yield return $"{at}: {expected?.ToJsonString() ?? "null"}, but {answer?.ToJsonString() ?? "null"}";
                break;
        }
    }

    private static bool SameNumber(JsonNode? one, JsonNode? other) =>
        one?.GetValueKind() == JsonValueKind.Number
        && other?.GetValueKind() == JsonValueKind.Number
        && one.GetValue<decimal>() == other.GetValue<decimal>();
}
