using System.Text.Json.Nodes;
using Polycline.Tests.Core.PlanFiles;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Enrolling;

/// <summary>What is refused of the further questions, and of arrangements. The plan file, <i>Refusal</i>.</summary>
public sealed class PeopleRefusalTests
{
    // p1 is in s1, p2 in s2, from the beginning and for good.
    private static readonly JsonNode Good = JsonNode.Parse(File.ReadAllText(Path.Combine(CasesTests.Folder, "people/move-table.json")))![
        "input"
    ]!;

    private static string? PathOf(string member, string json)
    {
        var plan = Good.DeepClone();
        plan[member] = JsonNode.Parse(json);
        return Plans.PathOf(plan.ToJsonString());
    }

    [Theory]
    [InlineData("""{"catchUp":{"student":"p1","at":"2026-09-16T07:40:00Z","leave":["i1"]}}""", null)]
    [InlineData("""{"catchUp":{"student":"p1"}}""", "catchUp.at")]
    [InlineData("""{"catchUp":{"student":"p7","at":"2026-09-16T07:40:00Z"}}""", "catchUp.student")]
    [InlineData("""{"catchUp":{"student":"p1","at":"2026-09-16T07:40:00Z","perClass":0}}""", "catchUp.perClass")]
    [InlineData("""{"catchUp":{"student":"p1","at":"2026-09-16T07:40:00Z","leave":["i1","i1"]}}""", "catchUp.leave[1]")]
    [InlineData("""{"catchUp":{"student":"p1","at":"2026-09-16T07:40:00Z","leave":["i1","u1"]}}""", "catchUp.leave[1]")]
    [InlineData("""{"catchUp":{"student":"p1","at":"2026-09-16T07:40:00Z"},"student":"p1"}""", "student")]
    [InlineData("""{"move":{"student":"p1","from":"s1","to":"s2","on":"2026-09-16","at":"2026-09-16T22:59:59Z"}}""", null)]
    [InlineData("""{"move":{"student":"p1","from":"s1","to":"s2","on":"2026-09-16","at":"2026-09-16T23:00:00Z"}}""", "move.at")]
    [InlineData("""{"move":{"student":"p1","from":"s1","to":"s1","on":"2026-09-16"}}""", "move.to")]
    [InlineData("""{"move":{"student":"p1","from":"s2","to":"s1","on":"2026-09-16"}}""", "move.from")]
    [InlineData("""{"move":{"student":"p1","from":"s1","to":"s9","on":"2026-09-16"}}""", "move.to")]
    [InlineData("""{"move":{"student":"p1","from":"s1","to":"s2","on":"2026-09-16","choices":{"i1":"later"}}}""", "move.choices.i1")]
    [InlineData("""{"why":{"student":"p1","item":"i1","at":"2026-09-16T07:40:00Z"}}""", null)]
    [InlineData("""{"why":{"student":"p7","item":"i1","at":"2026-09-16T07:40:00Z"}}""", "why.student")]
    [InlineData("""{"why":{"student":"p1","item":"u1","at":"2026-09-16T07:40:00Z"}}""", "why.item")]
    [InlineData("""{"why":{"student":"p1","item":"i1"}}""", "why.at")]
    [InlineData("""{"waiting":{"at":"2026-09-16T07:40:00Z"}}""", null)]
    [InlineData("""{"waiting":{"at":"2026-09-16T07:40:00Z","section":"s9"}}""", "waiting.section")]
    [InlineData("""{"waiting":{"at":"2026-09-16T07:40:00Z","student":"p1"}}""", "waiting.student")]
    [InlineData("""{"join":{"section":"s1","from":"2026-09-16"}}""", null)]
    [InlineData(
        """{"join":{"section":"s1","from":"2026-09-16","term":{"zone":"Europe/Dublin","first":"2026-09-16","last":"2026-09-15"}}}""",
        "join.term.last"
    )]
    [InlineData(
        """{"join":{"section":"s1","from":"2026-09-16","term":{"zone":"Europe/Atlantis","first":"2026-09-16","last":"2026-09-17"}}}""",
        "join.term.zone"
    )]
    [InlineData(
        """{"join":{"section":"s1","from":"2026-09-16","holds":[{"id":"w","title":"","items":[{"id":"w","kind":"task","title":""}]}]}}""",
        "join.holds[0].items[0].id"
    )]
    [InlineData(
        """
            {"join":{"section":"s1","from":"2026-09-16","holds":[{"id":"w","title":"","lessons":[{"id":"m","title":""}]},
              {"id":"v","title":"","items":[{"id":"o","kind":"task","title":"","lesson":"m"}]}]}}
            """,
        "join.holds[1].items[0].lesson"
    )]
    public void Of_a_question(string question, string? path) =>
        PathOf("ask", $"[{question}]").ShouldBe(path is null ? null : $"$.ask[0].{path}");

    [Fact]
    public void A_move_goes_to_a_section_that_does_not_list_the_student_yet()
    {
        var plan = Good.DeepClone();
        plan["sections"]![1]!["students"]!.AsArray().Add(JsonNode.Parse("""{"id":"p1","from":"2026-10-01"}"""));
        Plans.PathOf(plan.ToJsonString()).ShouldBe("$.ask[0].move.to");
    }

    [Fact]
    public void One_that_goes_back_is_no_move_to_where_the_student_is_already()
    {
        var plan = Good.DeepClone();
        plan["sections"]![0]!["students"] = JsonNode.Parse("""[{"id":"p1","from":"2026-09-16"}]""");
        plan["sections"]![1]!["students"] = JsonNode.Parse("""["p2",{"id":"p1","to":"2026-09-15"}]""");
        var answer = PeopleCasesTests.Answer(plan)["answers"]![0]!["move"]!;
        (answer["back"]!.GetValue<bool>(), answer["rows"]!.AsArray().Count, answer["takesBack"]!.GetValue<int>()).ShouldBe((true, 0, 0));
    }

    [Theory]
    [InlineData("""{"student":"p1","always":{"dueDays":3}}""", null)]
    [InlineData("""{"student":"p1","always":{}}""", "always")]
    [InlineData("""{"student":"p1","always":{"dueDays":-1}}""", "always.dueDays")]
    [InlineData("""{"student":"p1","item":"i1","always":{"dueDays":3}}""", "")]
    [InlineData("""{"student":"p1","always":{"dueDays":3},"excused":true}""", "excused")]
    [InlineData("""{"student":"p1"}""", "item")]
    [InlineData("""{"student":"p1","item":"i1","move":{"from":"s1","to":"s9","on":"2026-09-16"}}""", "move.to")]
    public void Of_an_exception(string exception, string? path) =>
        PathOf("exceptions", $"[{exception}]")
            .ShouldBe(
                path switch
                {
                    null => null,
                    "" => "$.exceptions[0]",
                    _ => $"$.exceptions[0].{path}",
                }
            );

    [Fact]
    public void A_lineage_stands_once_in_a_course()
    {
        var plan = Good.DeepClone();
        plan["edition"]!["units"]![0]!["lessons"]![0]!["lineage"] = "L1";
        plan["edition"]!["units"]![0]!["items"]![2]!["lineage"] = "L1";
        Plans.PathOf(plan.ToJsonString()).ShouldBe("$.edition.units[0].items[2].lineage");
    }
}
