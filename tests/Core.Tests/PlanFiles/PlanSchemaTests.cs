using System.Text;
using System.Text.Json.Nodes;
using CsCheck;
using Json.Schema;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.PlanFiles;

/// <summary>The JSON Schema beside the page on plan files says what the reader does, as far as a schema can.</summary>
public sealed class PlanSchemaTests
{
    private static readonly JsonSchema Schema = JsonSchema.FromText(
        File.ReadAllText(Path.Combine(CasesTests.Root, "docs/formats/plan.schema.json"))
    );

    public static TheoryData<string> Cases =>
        [
            .. Directory
                .EnumerateFiles(CasesTests.Folder, "*.json", SearchOption.AllDirectories)
                .Where(file => !file.StartsWith(Path.Combine(CasesTests.Folder, "marking"), StringComparison.Ordinal))
                .Where(file => !file.StartsWith(Path.Combine(CasesTests.Folder, "next"), StringComparison.Ordinal))
                .Where(file => Input(file) is not null && !Path.GetFileName(file).Equals("refused-two-questions.json"))
                .Select(file => Path.GetRelativePath(CasesTests.Folder, file))
                .Order(StringComparer.Ordinal),
        ];

    [Theory]
    [MemberData(nameof(Cases))]
    public void Every_case_satisfies_it(string name) => Satisfies(Input(Path.Combine(CasesTests.Folder, name))!).ShouldBeTrue();

    [Fact]
    public void The_example_on_the_page_satisfies_it_and_is_read()
    {
        var page = File.ReadAllText(Path.Combine(CasesTests.Root, "docs/formats/plan.md"));
        var example = page.Split("```")[1]["json".Length..];
        Satisfies(JsonNode.Parse(example)!).ShouldBeTrue();
        Plans.Answer(Encoding.UTF8.GetBytes(example)).GetProperty("decisions")[0].GetProperty("state").GetString().ShouldBe("locked");
    }

    [Fact]
    public void What_it_refuses_the_reader_refuses_too()
    {
        var inputs = Cases.Select(row => Input(Path.Combine(CasesTests.Folder, row.Data))!.ToJsonString()).ToArray();
        var (read, refused) = (0, 0);
        Gen.Select(Gen.Int[0, inputs.Length - 1], Gen.Int[0, int.MaxValue], Gen.Int[0, 5])
            .Sample(
                (which, where, how) =>
                {
                    var plan = JsonNode.Parse(inputs[which])!;
                    Change(plan, where, how);
                    var satisfies = Satisfies(plan);
                    var isRead = Plans.PathOf(plan.ToJsonString()) is null;
                    Interlocked.Add(ref read, isRead ? 1 : 0);
                    Interlocked.Add(ref refused, satisfies ? 0 : 1);
                    (isRead && !satisfies).ShouldBeFalse(plan.ToJsonString());
                },
                iter: 600
            );
        // Both happened, and often.
        read.ShouldBeGreaterThan(50);
        refused.ShouldBeGreaterThan(50);
    }

    [Theory]
    [InlineData("\"version\":1", "\"version\":2")]
    [InlineData("\"basis\":\"meetings\"", "\"basis\":\"days\"")]
    [InlineData("\"length\":1", "\"length\":-1")]
    [InlineData("\"length\":1", "\"length\":\"1\"")]
    [InlineData("\"length\":1", "\"length\":1,\"size\":1")]
    [InlineData("\"kind\":\"choice\"", "\"kind\":\"task\"")]
    [InlineData("\"options\":[\"a\"]", "\"options\":[]")]
    [InlineData("\"is\":\"opened\"", "\"is\":\"opened\",\"scoreMin\":50")]
    [InlineData("\"is\":\"opened\"", "\"using\":\"best\"")]
    [InlineData("{\"item\":\"i1\",\"is\":\"opened\"}", "{\"any\":[],\"latch\":true}")]
    [InlineData("{\"item\":\"i1\",\"is\":\"opened\"}", "{\"from\":{\"at\":\"own-due\"}}")]
    [InlineData("{\"item\":\"i1\",\"is\":\"opened\"}", "{\"from\":{\"at\":\"unit-end\"}}")]
    [InlineData("{\"at\":\"lesson-end\"}", "{\"at\":\"fixed\",\"date\":\"2026-09-07\"}")]
    [InlineData("{\"at\":\"lesson-end\"}", "{\"at\":\"term-end\",\"of\":\"l1\"}")]
    [InlineData("\"periods\":[\"P1\"]", "\"periods\":[]")]
    [InlineData("\"periods\":[\"P1\"]", "\"periods\":[\"P1\"],\"start\":\"08:00\"")]
    [InlineData("{\"cancel\":{\"date\":\"2026-09-07\"}}", "{\"cancel\":{\"date\":\"2026-09-07\"},\"add\":{}}")]
    [InlineData("\"lesson\":null,\"unit\":\"u1\"", "\"lesson\":null")]
    [InlineData("\"lesson\":null,\"unit\":\"u1\"", "\"lesson\":\"l1\",\"unit\":\"u1\"")]
    [InlineData("\"event\":\"opened\"", "\"event\":\"opened\",\"score\":1")]
    [InlineData("\"event\":\"opened\"", "\"event\":\"scored\"")]
    public void A_wrong_form_does_not_satisfy_it(string part, string instead)
    {
        const string Good = """
            {"format":"polycline-plan","version":1,"term":{"name":"A","zone":"UTC",
              "first":"2026-09-07","last":"2026-09-18","periods":[{"name":"P1","start":"08:40","end":"09:40"}]},
             "edition":{"title":"W","basis":"meetings","units":[{"id":"u1","title":"One","lessons":[{"id":"l1","title":"A","length":1}],
               "items":[{"id":"i1","kind":"choice","title":"C","options":["a"],"due":{"at":"lesson-end"}},
                 {"id":"i2","kind":"page","title":"P","gate":{"all":[{"item":"i1","is":"opened"}]}}]}]},
             "sections":[{"id":"s1","title":"S","slots":[{"day":"mon","periods":["P1"]}],"changes":[{"cancel":{"date":"2026-09-07"}}],
               "adjustments":[{"add":{"id":"i3","kind":"page","title":"O","lesson":null,"unit":"u1"}}],"students":["p1"]}],
             "facts":[{"student":"p1","item":"i1","event":"opened","at":"2026-09-09T12:00:00Z"}]}
            """;
        Satisfies(JsonNode.Parse(Good)!).ShouldBeTrue();
        Plans.PathOf(Good).ShouldBeNull();
        Good.ShouldContain(part);
        Satisfies(JsonNode.Parse(Good.Replace(part, instead, StringComparison.Ordinal))!).ShouldBeFalse();
    }

    private static bool Satisfies(JsonNode plan) => Schema.Evaluate(plan).IsValid;

    private static JsonNode? Input(string file) => JsonNode.Parse(File.ReadAllText(file))!["input"];

    // Leaves a member out, renames it, gives it another value or another's, doubles an entry, or takes one away.
    private static void Change(JsonNode plan, int where, int how)
    {
        var all = new List<JsonNode>();
        Collect(plan, all);
        var at = all[where % all.Count];
        if (at.Parent is JsonObject owner)
        {
            var name = at.GetPropertyName();
            switch (how)
            {
                case 0:
                    owner.Remove(name);
                    break;
                case 1:
                    owner.Remove(name);
                    owner[name + "s"] = 1;
                    break;
                default:
                    owner[name] = how switch
                    {
                        2 => null,
                        3 => "x",
                        4 => 1,
                        _ => all[where / 7 % all.Count].DeepClone(),
                    };
                    break;
            }
        }
        else if (at.Parent is JsonArray list)
        {
            var place = at.GetElementIndex();
            if (how % 2 == 0)
                list.RemoveAt(place);
            else
                list[place] = all[where / 7 % all.Count].DeepClone();
        }
    }

    private static void Collect(JsonNode? node, List<JsonNode> all)
    {
        if (node is null)
            return;
        if (node.Parent is not null)
            all.Add(node);
        foreach (
            var child in node is JsonObject members ? members.Select(member => member.Value)
            : node is JsonArray list ? list
            : []
        )
            Collect(child, all);
    }
}
