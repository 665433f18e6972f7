using System.Text.Json;
using System.Text.Json.Nodes;
using Polycline.Core.PlanFiles;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.PlanFiles;

/// <summary>The worked cases: each file's input comes to its expected answer, to the letter. The list only grows.</summary>
public sealed class CasesTests
{
    internal static readonly string Folder = FindFolder();

    internal static readonly string Root = Path.GetFullPath(Path.Combine(Folder, "../.."));

    public static TheoryData<string> Cases =>
        [.. Directory.EnumerateFiles(Folder, "*.json").Select(path => Path.GetFileNameWithoutExtension(path)!).Order()];

    /// <summary>Those whose input is a plan that can be read: neither bytes that are no plan nor a plan that is refused.</summary>
    public static TheoryData<string> CasesOfAPlan => [.. Cases.Select(row => row.Data).Where(IsOfAPlan)];

    [Fact]
    public void None_of_them_is_lost() =>
        (Cases.Count >= 34, CasesOfAPlan.Count >= 33).ShouldBe((true, true), $"{Cases.Count}, {CasesOfAPlan.Count}");

    [Theory]
    [MemberData(nameof(Cases))]
    public void The_answer_is_the_expected_one(string name)
    {
        using var file = JsonDocument.Parse(File.ReadAllBytes(Path.Combine(Folder, name + ".json")));
        var root = file.RootElement;
        var input = root.TryGetProperty("raw", out var raw)
            ? System.Text.Encoding.UTF8.GetBytes(raw.GetString()!)
            : JsonSerializer.SerializeToUtf8Bytes(root.GetProperty("input"));
        var expected = JsonNode.Parse(root.GetProperty("expect").GetRawText())!;
        var answer = JsonNode.Parse(Plans.Answer(input).GetRawText())!;
        // What a refusal says is free; where it points is not.
        (expected["error"] as JsonObject)?.Remove("message");
        (answer["error"] as JsonObject)?.Remove("message");
        if (!JsonNode.DeepEquals(expected, answer))
            answer.ToJsonString().ShouldBe(expected.ToJsonString(), name);
    }

    [Theory]
    [MemberData(nameof(CasesOfAPlan))]
    public void Written_and_read_again_it_is_the_same_plan(string name)
    {
        using var file = JsonDocument.Parse(File.ReadAllBytes(Path.Combine(Folder, name + ".json")));
        var input = file.RootElement.GetProperty("input");
        var read = PlanFile.Read(JsonSerializer.SerializeToUtf8Bytes(input));
        var written = PlanWriter.Write(read.Plan);
        var again = PlanFile.Read(written);
        PlanWriter.Write(again.Plan).ShouldBe(written);
        // The same answers come of it.
        var asked = JsonNode.Parse(written)!;
        asked["ask"] = JsonNode.Parse(input.TryGetProperty("ask", out var ask) ? ask.GetRawText() : "[]");
        Plans
            .Answer(JsonSerializer.SerializeToUtf8Bytes(asked))
            .GetRawText()
            .ShouldBe(Plans.Answer(JsonSerializer.SerializeToUtf8Bytes(input)).GetRawText());
    }

    private static bool IsOfAPlan(string name)
    {
        using var file = JsonDocument.Parse(File.ReadAllBytes(Path.Combine(Folder, name + ".json")));
        return file.RootElement.TryGetProperty("input", out _) && !file.RootElement.GetProperty("expect").TryGetProperty("error", out _);
    }

    private static string FindFolder()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!Directory.Exists(Path.Combine(folder!.FullName, "tests", "cases")))
            folder = folder.Parent;
        return Path.Combine(folder.FullName, "tests", "cases");
    }
}
