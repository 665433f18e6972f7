using System.Text.Json;
using System.Text.Json.Nodes;
using Polycline.Tests.Core.PlanFiles;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Marking;

/// <summary>The worked cases of marking: each file's input comes to its expected answer, to the letter. The list only grows.</summary>
public sealed class MarkingCasesTests
{
    private static readonly string Folder = Path.Combine(CasesTests.Folder, "marking");

    public static TheoryData<string> Cases =>
        [.. Directory.EnumerateFiles(Folder, "*.json").Select(path => Path.GetFileNameWithoutExtension(path)!).Order()];

    [Fact]
    public void None_of_them_is_lost() => Cases.Count.ShouldBeGreaterThanOrEqualTo(23);

    [Theory]
    [MemberData(nameof(Cases))]
    public void The_answer_is_the_expected_one(string name)
    {
        var file = JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, name + ".json")))!;
        var answer = MarkingFiles.Answer(JsonSerializer.SerializeToUtf8Bytes(file["input"]));
        // What a refusal says is free; where it points is not.
        (file["expect"]!["error"] as JsonObject)?.Remove("message");
        (answer["error"] as JsonObject)?.Remove("message");
        if (!JsonNode.DeepEquals(file["expect"], answer))
            answer.ToJsonString().ShouldBe(file["expect"]!.ToJsonString(), name);
    }
}
