using System.Text.Json.Nodes;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What was noticed of an item, at its row, with where it is mended.</summary>
public sealed class ChecksTests : LeadOfASchool
{
    private static string Text(JsonNode? node) => node!.GetValue<string>();

    private async Task<IReadOnlyList<(string Words, string? Section, JsonNode Mend)>> Of(string row) =>
        [
            .. (await Lead.Get(Route("checks"))).Json["checks"]!
                .AsArray()
                .Where(check => check!["rows"]!.AsArray().Select(Text).Contains(row))
                .Select(check => (Text(check!["words"]), check["section"]?.GetValue<string>(), check["mend"]!)),
        ];

    [Fact]
    public async Task What_is_wrong_with_a_condition_stands_at_each_row_it_is_about_and_goes_once_it_is_mended()
    {
        var (isobars, arrows) = (await School.Item("Isobars by hand"), await School.Item("Arrows on the chart"));
        (await Of($"item-{isobars}")).ShouldBeEmpty();
        var version = (await CommandExamples.At(School, "item", "Isobars by hand")).Version;
        var gate = new { item = await CommandExamples.Lineage(School, "Arrows on the chart"), @is = "submitted" };
        var done = await Post(
            "condition-item",
            new
            {
                item = isobars,
                gate,
                version,
            }
        );
        foreach (var row in new[] { isobars, arrows })
        {
            var (words, section, mend) = (await Of($"item-{row}")).Single(check => check.Words.Contains("wait for one another"));
            section.ShouldBeNull();
            (Text(mend["screen"]), Text(mend["words"])).ShouldBe(("outline", "change its condition"), words);
        }
        await Post("undo", new { batch = done.Json["batch"]!.GetValue<long>() });
        (await Of($"item-{isobars}")).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_wrong_with_a_date_names_its_section_and_leads_to_that_date()
    {
        var last = await School.Item("Storm season: what we know");
        var checks = await Of($"item-{last}");
        checks.ShouldContain(check => check.Section == "9 Alder");
        foreach (var (words, section, mend) in checks)
        {
            section.ShouldNotBeNull(words);
            (Text(mend["screen"]), mend["item"]!.GetValue<long>()).ShouldBe(("dates", last), words);
        }
        // As many stand here as under the sections of Today, where those that have one cause are told together.
        var today = (await Lead.Get(Route("today"))).Json["sections"]!.AsArray().Single(section => Text(section!["letter"]) == "A")![
            "toCheck"
        ]!
            .AsArray()
            .Select(check => Text(check!["words"]))
            .ToList();
        today.ShouldContain(checks.First(check => check.Section == "9 Alder").Words);
    }
}
