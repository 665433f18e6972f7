using System.Text;
using CsCheck;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.PlanFiles;

/// <summary>The plan file's refusals: the first fault in document order of the first pass that finds one.</summary>
public sealed class RefusalTests
{
    private const string Good = """
        {"format":"polycline-plan","version":1,
         "term":{"name":"Autumn","zone":"Europe/Dublin","first":"2026-09-07","last":"2026-09-18","weekdays":["mon","wed"],
           "rotation":{"kind":"weekly"},"periods":[{"name":"P1","start":"08:40","end":"09:40"},{"name":"P2","start":"09:40","end":"10:40"}],
           "specialDays":[{"date":"2026-09-09","runs":"mon"},{"date":"2026-09-10","periods":[]}]},
         "edition":{"title":"Weather","basis":"meetings","units":[{"id":"u1","title":"One",
           "lessons":[{"id":"l1","title":"A","length":1},{"id":"l2","title":"B","length":2}],
           "items":[{"id":"i1","kind":"task","title":"Log","lesson":"l1","due":{"at":"lesson-end","meetings":1}},
                    {"id":"i2","kind":"choice","title":"Which","options":["a","b"],"picks":1},
                    {"id":"i3","kind":"page","title":"Read",
                      "gate":{"all":[{"item":"i1","is":"submitted"},{"choice":"i2","picked":"a"}],"latch":true}}]}]},
         "sections":[{"id":"s1","title":"9 Alder","slots":[{"day":"mon","periods":["P1"]},{"day":"wed","start":"10:00","end":"11:00"}],
           "changes":[{"cancel":{"date":"2026-09-07"}},
             {"move":{"date":"2026-09-14","to":{"date":"2026-09-15","start":"09:00","end":"10:00"}}}],
           "adjustments":[{"insert":{"id":"l3","title":"C","length":1,"after":"l1"}},
             {"unit":"u1","order":1},{"lesson":"l2","after":"l3"},{"item":"i1","due":null},
                          {"add":{"id":"i4","kind":"task","title":"Own","unit":"u1","code":"X"}}],
           "taught":[{"lesson":"l3","took":1,"done":true}],"opened":[{"item":"i4","at":"2026-09-07T07:40:00Z"}],
             "students":["p1",{"id":"p2","from":"2026-09-10"}]}],
         "groups":{"support":["p2"]},"home":{"p1":"s1"},
         "exceptions":[{"student":"p1","item":"i1","excused":true}],
         "facts":[{"student":"p1","item":"i1","event":"submitted","at":"2026-09-09T12:00:00Z"},
           {"student":"p2","item":"i2","event":"picked","at":"2026-09-09T12:00:00Z","option":"b"}],
         "ask":[{"student":"p1","item":"i1","at":"2026-09-10T09:00:00Z"}]}
        """;

    [Fact]
    public void A_good_file_is_read() => Plans.PathOf(Good).ShouldBeNull();

    [Theory]
    [InlineData("\"version\":1,", "\"version\":2,", "$.version")]
    [InlineData("\"format\":\"polycline-plan\",", "", "$.format")]
    [InlineData("\"version\":1,", "\"version\":1,\"more\":[1,{}],", "$.more")]
    [InlineData("\"version\":1,", "\"version\":1,\"version\":1,", "$.version")]
    [InlineData("\"version\":1,", "\"version\":1.0,", "$.version")]
    [InlineData("\"first\":\"2026-09-07\"", "\"first\":\"2026-02-30\"", "$.term.first")]
    [InlineData("\"last\":\"2026-09-18\"", "\"last\":\"2026-09-01\"", "$.term.last")]
    [InlineData("\"end\":\"09:40\"", "\"end\":\"08:40\"", "$.term.periods[0].end")]
    [InlineData("\"kind\":\"weekly\"", "\"kind\":\"moons\",\"x\":1", "$.term.rotation.kind")]
    [InlineData("{\"kind\":\"weekly\"}", "{\"labels\":[]}", "$.term.rotation.kind")]
    [InlineData("\"length\":1},{\"id\":\"l2\"", "\"length\":-1},{\"id\":\"l2\"", "$.edition.units[0].lessons[0].length")]
    [InlineData(
        "\"kind\":\"task\",\"title\":\"Log\"",
        "\"kind\":\"task\",\"options\":[\"a\"],\"title\":\"Log\"",
        "$.edition.units[0].items[0].options"
    )]
    [InlineData("\"picks\":1", "\"picks\":3", "$.edition.units[0].items[1].picks")]
    [InlineData("\"options\":[\"a\",\"b\"],\"picks\":1", "\"picks\":1", "$.edition.units[0].items[1].options")]
    [InlineData(
        "{\"item\":\"i1\",\"is\":\"submitted\"}",
        "{\"item\":\"i1\",\"using\":\"best\"}",
        "$.edition.units[0].items[2].gate.all[0]"
    )]
    [InlineData(
        "{\"item\":\"i1\",\"is\":\"submitted\"}",
        "{\"item\":\"i1\",\"is\":\"submitted\",\"using\":\"best\"}",
        "$.edition.units[0].items[2].gate.all[0].using"
    )]
    [InlineData("{\"item\":\"i1\",\"is\":\"submitted\"}", "{\"any\":[],\"latch\":true}", "$.edition.units[0].items[2].gate.all[0].latch")]
    [InlineData(
        "{\"item\":\"i1\",\"is\":\"submitted\"}",
        "{\"from\":{\"at\":\"own-due\"}}",
        "$.edition.units[0].items[2].gate.all[0].from.at"
    )]
    [InlineData(
        "{\"item\":\"i1\",\"is\":\"submitted\"}",
        "{\"from\":{\"at\":\"lesson-end\"}}",
        "$.edition.units[0].items[2].gate.all[0].from.of"
    )]
    [InlineData(
        "\"due\":{\"at\":\"lesson-end\",\"meetings\":1}",
        "\"due\":{\"at\":\"term-end\",\"of\":\"l1\"}",
        "$.edition.units[0].items[0].due.of"
    )]
    [InlineData("{\"day\":\"mon\",\"periods\":[\"P1\"]}", "{\"day\":\"mon\"}", "$.sections[0].slots[0]")]
    [InlineData("{\"day\":\"mon\",\"periods\":[\"P1\"]}", "{\"day\":\"mon\",\"periods\":[]}", "$.sections[0].slots[0].periods")]
    [InlineData("{\"cancel\":{\"date\":\"2026-09-07\"}}", "{\"cancel\":{\"date\":\"2026-09-07\"},\"add\":{}}", "$.sections[0].changes[0]")]
    [InlineData("\"unit\":\"u1\",\"order\":1", "\"unit\":\"u1\",\"lesson\":\"l1\"", "$.sections[0].adjustments[1]")]
    [InlineData("\"unit\":\"u1\",\"code\":\"X\"", "\"code\":\"X\"", "$.sections[0].adjustments[4].add.unit")]
    [InlineData("\"unit\":\"u1\",\"code\":\"X\"", "\"lesson\":\"l1\",\"unit\":\"u1\"", "$.sections[0].adjustments[4].add.unit")]
    [InlineData("\"option\":\"b\"", "\"score\":1", "$.facts[1].score")]
    [InlineData(",\"option\":\"b\"", "", "$.facts[1].option")]
    [InlineData(
        "\"event\":\"picked\",\"at\":\"2026-09-09T12:00:00Z\",\"option\":\"b\"",
        "\"at\":\"2026-09-09T12:00:00Z\",\"score\":80",
        "$.facts[1].score"
    )]
    [InlineData(
        "\"event\":\"picked\",\"at\":\"2026-09-09T12:00:00Z\",\"option\":\"b\"",
        "\"at\":\"2026-09-09T12:00:00Z\"",
        "$.facts[1].event"
    )]
    [InlineData("{\"support\":[\"p2\"]}", "{\"a b\":[7]}", "$.groups['a b'][0]")]
    [InlineData("\"zone\":\"Europe/Dublin\"", "\"zone\":\"Europe/Nowhere\"", "$.term.zone")]
    [InlineData("\"name\":\"P2\"", "\"name\":\"P1\"", "$.term.periods[1].name")]
    [InlineData("\"runs\":\"mon\"", "\"runs\":\"B-mon\"", "$.term.specialDays[0].runs")]
    [InlineData("\"id\":\"l2\"", "\"id\":\"u1\"", "$.edition.units[0].lessons[1].id")]
    [InlineData("\"id\":\"i4\"", "\"id\":\"s1\"", "$.sections[0].adjustments[4].add.id")]
    [InlineData("\"lesson\":\"l1\",\"due\"", "\"lesson\":\"l9\",\"due\"", "$.edition.units[0].items[0].lesson")]
    [InlineData("\"choice\":\"i2\"", "\"choice\":\"i1\"", "$.edition.units[0].items[2].gate.all[1].choice")]
    [InlineData("\"picked\":\"a\"", "\"picked\":\"c\"", "$.edition.units[0].items[2].gate.all[1].picked")]
    [InlineData(
        "{\"item\":\"i1\",\"is\":\"submitted\"}",
        "{\"item\":\"i4\",\"is\":\"submitted\"}",
        "$.edition.units[0].items[2].gate.all[0].item"
    )]
    [InlineData("\"lesson\":\"l2\",\"after\":\"l3\"", "\"lesson\":\"l2\",\"after\":\"l4\"", "$.sections[0].adjustments[2].after")]
    [InlineData("\"periods\":[\"P1\"]},{\"day\"", "\"periods\":[\"P3\"]},{\"day\"", "$.sections[0].slots[0].periods[0]")]
    [InlineData("\"support\":[\"p2\"]", "\"support\":[\"p3\"]", "$.groups.support[0]")]
    [InlineData("\"p1\":\"s1\"", "\"p3\":\"s1\"", "$.home.p3")]
    [InlineData("\"item\":\"i2\",\"event\":\"picked\"", "\"item\":\"i1\",\"event\":\"picked\"", "$.facts[1].item")]
    [InlineData("\"date\":\"2026-09-10\",\"periods\"", "\"date\":\"2026-09-09\",\"periods\"", "$.term.specialDays[1].date")]
    [InlineData(
        "{\"cancel\":{\"date\":\"2026-09-07\"}}",
        "{\"add\":{\"date\":\"2026-10-01\",\"start\":\"09:00\",\"end\":\"10:00\"}}",
        "$.sections[0].changes[0].add.date"
    )]
    [InlineData("\"to\":{\"date\":\"2026-09-15\"", "\"to\":{\"date\":\"2026-09-19\"", "$.sections[0].changes[1].move.to.date")]
    [InlineData("\"order\":1", "\"order\":2", "$.sections[0].adjustments[1].order")]
    [InlineData("\"after\":\"l3\"}", "\"after\":\"l2\"}", "$.sections[0].adjustments[2].after")]
    [InlineData("\"students\":[\"p1\",", "\"students\":[\"p1\",\"p1\",", "$.sections[0].students[1]")]
    public void Each_fault_is_named_where_it_stands(string part, string instead, string path)
    {
        var at = Good.IndexOf(part, StringComparison.Ordinal);
        at.ShouldBeGreaterThan(0, part);
        Plans.PathOf(Good[..at] + instead + Good[(at + part.Length)..]).ShouldBe(path);
    }

    [Fact]
    public void An_earlier_pass_comes_first_and_within_it_what_stands_first()
    {
        // An id that names nothing stands before a wrong form: the form is of an earlier pass.
        Plans
            .PathOf(
                Good.Replace("\"lesson\":\"l1\",\"due\"", "\"lesson\":\"l9\",\"due\"", StringComparison.Ordinal)
                    .Replace("\"took\":1", "\"took\":-1", StringComparison.Ordinal)
            )
            .ShouldBe("$.sections[0].taught[0].took");
        Plans
            .PathOf(
                Good.Replace("\"took\":1", "\"took\":-1", StringComparison.Ordinal)
                    .Replace("\"length\":2", "\"length\":\"2\"", StringComparison.Ordinal)
            )
            .ShouldBe("$.edition.units[0].lessons[1].length");
    }

    [Fact]
    public void A_gate_is_nested_at_most_16_deep()
    {
        string Nested(int depth) =>
            Good.Replace(
                "{\"item\":\"i1\",\"is\":\"submitted\"}",
                string.Concat(Enumerable.Repeat("{\"not\":", depth)) + "{\"item\":\"i1\",\"is\":\"opened\"}" + new string('}', depth),
                StringComparison.Ordinal
            );
        Plans.PathOf(Nested(14)).ShouldBeNull();
        Plans.PathOf(Nested(15)).ShouldBe("$.edition.units[0].items[2].gate.all[0]" + string.Concat(Enumerable.Repeat(".not", 15)));
    }

    [Theory]
    [InlineData("")]
    [InlineData("{")]
    [InlineData("{} {}")]
    [InlineData("// a plan\n{}")]
    [InlineData("{\"a\":1,}")]
    [InlineData("NaN")]
    public void What_is_no_JSON_is_refused_as_a_whole(string text) => Plans.PathOf(text).ShouldBe("$");

    [Fact]
    public void Bytes_that_are_no_UTF8_are_refused_as_a_whole() =>
        Plans.Answer([0x7b, 0x22, 0xff, 0x22, 0x3a, 0x31, 0x7d]).GetProperty("error").GetProperty("path").GetString().ShouldBe("$");

    [Fact]
    public void Depth_and_numbers_beyond_all_bounds_are_refused_by_name()
    {
        Plans
            .PathOf(
                Good.Replace(
                    "\"version\":1,",
                    "\"version\":1,\"deep\":" + new string('[', 200_000) + new string(']', 200_000) + ",",
                    StringComparison.Ordinal
                )
            )
            .ShouldBe("$.deep");
        Plans.PathOf(Good.Replace("\"took\":1", "\"took\":1e400", StringComparison.Ordinal)).ShouldBe("$.sections[0].taught[0].took");
        Plans
            .PathOf(Good.Replace("\"title\":\"Own\"", "\"title\":\"\\ud800\"", StringComparison.Ordinal))
            .ShouldBe("$.sections[0].adjustments[4].add.title");
    }

    [Fact]
    public void Whatever_is_broken_is_answered_or_refused_with_a_path()
    {
        var bytes = Encoding.UTF8.GetBytes(Good);
        Gen.Select(Gen.Int[0, bytes.Length - 1], Gen.Byte, Gen.Int[0, 12])
            .Array[1, 4]
            .Sample(
                edits =>
                {
                    var broken = bytes.ToList();
                    foreach (var (at, value, cut) in edits)
                    {
                        broken[at % broken.Count] = value;
                        broken.RemoveRange(at % broken.Count, Math.Min(cut, broken.Count - (at % broken.Count) - 1));
                    }
                    var answer = Plans.Answer(broken.ToArray());
                    if (answer.TryGetProperty("error", out var error))
                        error.GetProperty("path").GetString()!.ShouldStartWith("$");
                },
                iter: 3_000
            );
    }
}
