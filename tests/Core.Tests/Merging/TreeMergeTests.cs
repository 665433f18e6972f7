using System.Text.Json.Nodes;
using Json.Schema;
using Polycline.Tests.Core.PlanFiles;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Merging;

/// <summary>The worked cases of merging, and what is refused. The list only grows.</summary>
public sealed class TreeMergeTests
{
    private static readonly string Folder = Path.Combine(CasesTests.Folder, "next");

    private static readonly JsonSchema Schema = JsonSchema.FromText(
        File.ReadAllText(Path.Combine(CasesTests.Root, "docs/formats/merge.schema.json"))
    );

    public static TheoryData<string> Cases =>
        [.. Directory.EnumerateFiles(Folder, "merge-*.json").Select(path => Path.GetFileNameWithoutExtension(path)!).Order()];

    [Fact]
    public void None_of_them_is_lost() => Cases.Count.ShouldBeGreaterThanOrEqualTo(10);

    [Theory]
    [MemberData(nameof(Cases))]
    public void The_answer_is_the_expected_one(string name)
    {
        var file = JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, name + ".json")))!;
        var answer = MergeFiles.Answer(file["input"]!);
        // What a refusal says is free; where it points is not.
        (file["expect"]!["error"] as JsonObject)?.Remove("message");
        (answer["error"] as JsonObject)?.Remove("message");
        if (!JsonNode.DeepEquals(file["expect"], answer))
            answer.ToJsonString().ShouldBe(file["expect"]!.ToJsonString(), name);
    }

    [Theory]
    [MemberData(nameof(Cases))]
    public void Every_case_satisfies_the_schema(string name) =>
        Satisfies(JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, name + ".json")))!["input"]!).ShouldBeTrue();

    [Fact]
    public void The_example_on_the_page_satisfies_the_schema_and_is_merged()
    {
        var page = File.ReadAllText(Path.Combine(CasesTests.Root, "docs/formats/merge.md"));
        var example = JsonNode.Parse(page.Split("```")[1]["json".Length..])!;
        Satisfies(example).ShouldBeTrue();
        var answer = MergeFiles.Answer(example);
        answer["merged"]!["units"]![0]!["fields"]!["title"]!.GetValue<string>().ShouldBe("Naming clouds");
        answer["merged"]!["units"]![0]!["texts"]!["body"]!.AsArray().Count.ShouldBe(2);
        answer["idle"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public void What_the_schema_refuses_the_reader_refuses_too()
    {
        foreach (var broken in new[] { "[]", """{"units":{}}""", """{"units":[{}]}""", """{"texts":{"a":[{"id":"b"}]}}""", """{"x":1}""" })
        {
            Satisfies(JsonNode.Parse(WithMine(broken))!).ShouldBeFalse(broken);
            MergeFiles.PathOf(WithMine(broken)).ShouldNotBeNull(broken);
        }
    }

    private static bool Satisfies(JsonNode file) => Schema.Evaluate(System.Text.Json.JsonSerializer.SerializeToElement(file)).IsValid;

    private static string WithMine(string mine, string choices = "[]") =>
        $$"""
            {"format":"polycline-merge","version":1,"base":{"units":[{"id":"u1"}]},"mine":{{mine}},"theirs":{},"choices":{{choices}}}
            """;

    [Theory]
    [InlineData("""{"units":[{"id":"u1"},{"id":"u1"}]}""", "$.mine.units[1].id")]
    [InlineData("""{"units":[{"id":"u2","lessons":[{"id":"u1"}]}]}""", "$.mine.units[0].lessons[0].id")]
    [InlineData("""{"units":[{"id":"u2","texts":{"a":[{"id":"b","text":""},{"id":"b","text":""}]}}]}""", "$.mine.units[0].texts.a[1].id")]
    [InlineData("""{"fields":{"a":{"x":1,"x":2}}}""", "$.mine.fields.a.x")]
    [InlineData("""{"fields":{"":1}}""", "$.mine.fields['']")]
    [InlineData("""{"units":[{"id":"u1","units":[]}]}""", "$.mine.units[0].units")]
    [InlineData("""{"id":"r"}""", "$.mine.id")]
    public void A_tree_that_is_none_is_refused_where_it_is_wrong(string mine, string path) =>
        MergeFiles.PathOf(WithMine(mine)).ShouldBe(path);

    [Theory]
    [InlineData("""[{"id":"u9","kind":"removed","take":"mine"}]""", "$.choices[0].id")]
    [InlineData("""[{"id":"u1","kind":"order","take":"mine"}]""", "$.choices[0].list")]
    [InlineData("""[{"id":"u1","kind":"order","list":"lessons","text":"body","take":"mine"}]""", "$.choices[0].text")]
    [InlineData("""[{"id":"u1","kind":"field","take":"mine"}]""", "$.choices[0].field")]
    [InlineData("""[{"id":"u1","kind":"moved","field":"x","take":"mine"}]""", "$.choices[0].field")]
    [InlineData("""[{"id":null,"kind":"renamed","take":"mine"}]""", "$.choices[0].kind")]
    [InlineData("""[{"id":"u1","kind":"moved","take":"mine"},{"id":"u1","kind":"moved","take":"theirs"}]""", "$.choices[1]")]
    public void A_choice_that_is_none_is_refused_where_it_is_wrong(string choices, string path) =>
        MergeFiles.PathOf(WithMine("{}", choices)).ShouldBe(path);

    [Fact]
    public void Fields_are_compared_by_value_however_they_are_written_and_however_deep()
    {
        static JsonNode Tree(string value) => JsonNode.Parse($$$"""{"fields":{"x":{{{value}}}}}""")!;
        JsonNode Merged(string past, string mine, string theirs) => MergeFiles.Answer(MergeFiles.Of(Tree(past), Tree(mine), Tree(theirs)));
        foreach (
            var (one, other) in new[]
            {
                ("1.0", "1"),
                ("1e2", "100"),
                ("-0.0", "0"),
                ("120e-1", "12"),
                ("""{"a":1,"b":[2]}""", """{"b":[2.0],"a":1}"""),
            }
        )
            Merged("9", one, other)["conflicts"]!.AsArray().ShouldBeEmpty($"{one} {other}");
        foreach (var (one, other) in new[] { ("1", "\"1\""), ("[1,2]", "[2,1]"), ("1e400", "1e401"), ("0", "null") })
            Merged("9", one, other)["conflicts"]!.AsArray().Count.ShouldBe(1, $"{one} {other}");
        var deep = new string('[', 50_000) + new string(']', 50_000);
        var file = $$$"""{"format":"polycline-merge","version":1,"base":{},"mine":{"fields":{"x":{{{deep}}}}},"theirs":{}}""";
        Should.NotThrow(() => Polycline.Core.MergeFiles.MergeFile.Read(System.Text.Encoding.UTF8.GetBytes(file)));
    }
}
