using System.Text.Json.Nodes;
using CsCheck;
using Shouldly;
using Xunit;
using static Polycline.Tests.Core.Marking.MarkingFiles;

namespace Polycline.Tests.Core.Marking;

/// <summary>A marking file's refusals: the first fault in document order of the first pass that finds one.</summary>
public sealed class MarkingRefusalTests
{
    private const string Good = """
        {"format":"polycline-marking","version":1,"now":"2026-10-08T09:15:00Z",
         "course":{"weights":{"by":"unit","of":{"u1":2}},"missing":"zero","decimalMark":","},
         "scales":[{"id":"sc","levels":[{"id":"no","percent":0},{"id":"yes","percent":100}]}],
         "rubrics":[{"id":"r1","version":1,"criteria":[
           {"id":"c1","weight":2,"levels":[{"id":"a","points":4},{"id":"b","from":1,"to":3}]}]}],
         "units":[{"id":"u1","drop":1,"items":[
           {"id":"q1","kind":"quiz","for":["p1"],"outOf":10,"limit":20,"grace":30,"questions":[
             {"id":"k1","kind":"one","points":2.5,"options":["a","b"],"right":["a"]},
             {"id":"k2","kind":"match","points":1,"pairs":{"l":"x","m":"y"},"spare":["z"]},
             {"id":"k3","kind":"gaps","points":1,"gaps":[
               {"kind":"one","options":["a","b"],"right":["b"]},{"kind":"text","accept":["low"]}]},
             {"id":"k4","kind":"number","points":1,"value":-1.5,"tolerance":{"by":0.000000001}}]},
           {"id":"t1","kind":"task","score":"points","outOf":20,"rubric":{"id":"r1","version":1}},
           {"id":"t2","kind":"task","score":"scale","scale":"sc"},
           {"id":"t3","kind":"task","score":"none"}]}],
         "students":[{"id":"p1","name":"Wren Calder","extra":{"percent":25,"minutes":5}},{"id":"p2","name":"Sorrel Finch"}],
         "sections":[{"id":"s1","skips":["t3"],"dates":{"q1":{"due":"2026-10-07T09:00:00Z","closes":null}},
           "students":[{"id":"p1","from":"2026-09-01T00:00:00Z"},{"id":"p2"}]}],
         "exceptions":[{"student":"p1","item":"q1","due":null,"extra":{}}],
         "attempts":[{"student":"p1","item":"q1","n":1,"began":"2026-10-05T09:00:00Z","ended":"2026-10-05T09:10:00Z",
             "asked":["k1","k2","k3"],
             "lateAllowed":"2026-10-05T10:00:00Z","answers":[
               {"question":"k1","at":"2026-10-05T09:01:00Z","answer":"a"},
               {"question":"k2","at":"2026-10-05T09:02:00Z","answer":{"l":"x","m":"z"}},
               {"question":"k3","at":"2026-10-05T09:03:00Z","answer":[null,"low"]}]},
           {"student":"p1","item":"q1","n":2,"began":"2026-10-06T09:00:00Z"}],
         "work":[{"student":"p1","item":"t1","at":"2026-10-05T12:00:00Z"}],
         "marks":[{"student":"p1","item":"q1","attempt":1,"question":"k3","at":"2026-10-06T12:00:00Z","points":1},
           {"student":"p1","item":"t1","at":"2026-10-06T12:00:00Z",
             "rubric":{"id":"r1","version":1,"levels":[{"criterion":"c1","level":"b","points":2}]}},
           {"student":"p1","item":"t2","at":"2026-10-06T12:00:00Z","level":"yes"},
           {"student":"p1","item":"t3","at":"2026-10-06T12:00:00Z"}],
         "corrections":[{"item":"q1","at":"2026-10-07T09:00:00Z",
           "questions":[{"id":"k1","kind":"one","points":2.5,"options":["b","a"],"right":["b"]}]}],
         "frees":[{"student":"p1","item":"t1","count":3}],
         "ask":[{"item":"q1","section":"s1","from":70,"to":60.5}]}
        """;

    [Fact]
    public void A_good_file_is_marked() => PathOf(Good).ShouldBeNull();

    [Theory]
    // 1: the form.
    [InlineData("\"grace\":30", "\"grace\":-1", "$.units[0].items[0].grace")]
    [InlineData("\"points\":2.5,\"options\":[\"a\"", "\"points\":2.5e0,\"options\":[\"a\"", "$.units[0].items[0].questions[0].points")]
    [InlineData("\"points\":2.5,\"options\":[\"a\"", "\"points\":0,\"options\":[\"a\"", "$.units[0].items[0].questions[0].points")]
    [InlineData("\"kind\":\"match\",", "\"kind\":\"pairs\",\"nonsense\":1,", "$.units[0].items[0].questions[1].kind")]
    [InlineData("\"value\":-1.5", "\"value\":1000000000.1", "$.units[0].items[0].questions[3].value")]
    [InlineData("{\"by\":0.000000001}", "{\"by\":1,\"percent\":1}", "$.units[0].items[0].questions[3].tolerance")]
    [InlineData("{\"by\":0.000000001}", "{}", "$.units[0].items[0].questions[3].tolerance")]
    [InlineData("{\"id\":\"a\",\"points\":4}", "{\"id\":\"a\",\"points\":4,\"to\":5}", "$.rubrics[0].criteria[0].levels[0]")]
    [InlineData("\"from\":1,\"to\":3", "\"from\":1,\"to\":0.99", "$.rubrics[0].criteria[0].levels[1].to")]
    [InlineData("{\"id\":\"no\",\"percent\":0}", "{\"id\":\"no\"}", "$.scales[0].levels")]
    [InlineData("{\"by\":\"unit\",\"of\":{\"u1\":2}}", "{\"by\":\"none\",\"of\":{}}", "$.course.weights.of")]
    [InlineData("\"score\":\"points\",\"outOf\":20", "\"score\":\"points\"", "$.units[0].items[1].outOf")]
    [InlineData("\"score\":\"none\"", "\"score\":\"marks\",\"x\":1", "$.units[0].items[3].score")]
    [InlineData("\"level\":\"yes\"", "\"level\":\"yes\",\"points\":1", "$.marks[2]")]
    [InlineData("\"due\":null,\"extra\":{}", "\"due\":null,\"extra\":null", "$.exceptions[0].extra")]
    [InlineData("\"to\":60.5", "\"to\":100.01", "$.ask[0].to")]
    [InlineData("{\"l\":\"x\",\"m\":\"y\"}", "{}", "$.units[0].items[0].questions[1].pairs")]
    [InlineData("\"sections\":[", "\"students\":[],\"sections\":[", "$.students")]
    // 2: the ids.
    [InlineData("\"of\":{\"u1\":2}", "\"of\":{\"u9\":2}", "$.course.weights.of.u9")]
    [InlineData("\"skips\":[\"t3\"]", "\"skips\":[\"t9\"]", "$.sections[0].skips[0]")]
    [InlineData("\"dates\":{\"q1\"", "\"dates\":{\"q9\"", "$.sections[0].dates.q9")]
    [InlineData("{\"id\":\"p2\"}]}]", "{\"id\":\"p1\"}]}]", "$.sections[0].students[1].id")]
    [InlineData("\"asked\":[\"k1\",\"k2\",\"k3\"]", "\"asked\":[\"k1\",\"k9\"]", "$.attempts[0].asked[1]")]
    [InlineData("\"n\":2", "\"n\":1", "$.attempts[1].n")]
    [InlineData(
        "\"rubric\":{\"id\":\"r1\",\"version\":1}}",
        "\"rubric\":{\"id\":\"r1\",\"version\":2}}",
        "$.units[0].items[1].rubric.version"
    )]
    [InlineData("\"rubric\":{\"id\":\"r1\",\"version\":1}}", "\"rubric\":{\"id\":\"r2\",\"version\":1}}", "$.units[0].items[1].rubric.id")]
    [InlineData("\"spare\":[\"z\"]", "\"spare\":[\"x\"]", "$.units[0].items[0].questions[1].spare[0]")]
    [InlineData("\"right\":[\"a\"]", "\"right\":[\"a\",\"c\"]", "$.units[0].items[0].questions[0].right[1]")]
    [InlineData("\"criterion\":\"c1\",\"level\":\"b\"", "\"criterion\":\"c1\",\"level\":\"z\"", "$.marks[1].rubric.levels[0].level")]
    [InlineData("\"id\":\"t2\",", "\"id\":\"s1\",", "$.sections[0].id")]
    [InlineData("\"section\":\"s1\"", "\"section\":\"s2\"", "$.ask[0].section")]
    [InlineData("\"question\":\"k3\",\"at\":\"2026-10-06", "\"question\":\"k9\",\"at\":\"2026-10-06", "$.marks[0].question")]
    // 3: what fits what.
    [InlineData("\"work\":[{\"student\":\"p1\",\"item\":\"t1\"", "\"work\":[{\"student\":\"p1\",\"item\":\"q1\"", "$.work[0].item")]
    [InlineData("\"corrections\":[{\"item\":\"q1\"", "\"corrections\":[{\"item\":\"t1\"", "$.corrections[0].item")]
    [InlineData("\"options\":[\"b\",\"a\"]", "\"options\":[\"b\",\"c\"]", "$.corrections[0].questions[0].options")]
    [InlineData("{\"l\":\"x\",\"m\":\"z\"}", "{\"l\":\"x\",\"n\":\"z\"}", "$.attempts[0].answers[1].answer.n")]
    [InlineData("{\"l\":\"x\",\"m\":\"z\"}", "{\"l\":\"x\",\"l\":\"z\"}", "$.attempts[0].answers[1].answer.l")]
    [InlineData("{\"l\":\"x\",\"m\":\"z\"}", "{\"l\":\"x\",\"m\":\"w\"}", "$.attempts[0].answers[1].answer.m")]
    [InlineData("[null,\"low\"]", "[null]", "$.attempts[0].answers[2].answer")]
    [InlineData("[null,\"low\"]", "[\"c\",1]", "$.attempts[0].answers[2].answer[0]")]
    [InlineData("\"answer\":\"a\"", "\"answer\":[\"a\"]", "$.attempts[0].answers[0].answer")]
    [InlineData("\"asked\":[\"k1\",\"k2\",\"k3\"]", "\"asked\":[\"k2\",\"k3\"]", "$.attempts[0].answers[0].question")]
    [InlineData("\"attempt\":1,", "\"attempt\":3,", "$.marks[0].attempt")]
    [InlineData("\"attempt\":1,", "", "$.marks[0].attempt")]
    [InlineData("\"question\":\"k3\",\"at\":\"2026-10-06", "\"question\":\"k4\",\"at\":\"2026-10-06", "$.marks[0].question")]
    [InlineData("12:00:00Z\",\"points\":1}", "12:00:00Z\",\"percent\":1}", "$.marks[0].percent")]
    [InlineData("12:00:00Z\",\"points\":1}", "12:00:00Z\",\"again\":true,\"points\":1}", "$.marks[0].again")]
    [InlineData("\"level\":\"yes\"", "\"level\":\"maybe\"", "$.marks[2].level")]
    [InlineData("\"level\":\"yes\"", "\"points\":1", "$.marks[2].points")]
    [InlineData(",\"level\":\"yes\"", "", "$.marks[2]")]
    [InlineData("\"level\":\"b\",\"points\":2", "\"level\":\"b\",\"points\":3.5", "$.marks[1].rubric.levels[0].points")]
    [InlineData("\"level\":\"b\",\"points\":2", "\"level\":\"a\",\"points\":4", "$.marks[1].rubric.levels[0].points")]
    [InlineData("\"level\":\"b\",\"points\":2", "\"level\":\"b\"", "$.marks[1].rubric.levels[0].points")]
    [InlineData("\"score\":\"none\"", "\"score\":\"none\",\"rubric\":{\"id\":\"r1\",\"version\":1}", "$.units[0].items[3].rubric")]
    // 4: the times.
    [InlineData("\"ended\":\"2026-10-05T09:10:00Z\"", "\"ended\":\"2026-10-05T08:59:59Z\"", "$.attempts[0].ended")]
    [InlineData("\"began\":\"2026-10-06T09:00:00Z\"", "\"began\":\"2026-10-04T09:00:00Z\"", "$.attempts[1].began")]
    [InlineData("\"at\":\"2026-10-05T09:02:00Z\"", "\"at\":\"2026-10-05T09:00:59Z\"", "$.attempts[0].answers[1].at")]
    [InlineData("\"at\":\"2026-10-05T09:03:00Z\"", "\"at\":\"2026-10-05T09:10:01Z\"", "$.attempts[0].answers[2].at")]
    [InlineData("\"lateAllowed\":\"2026-10-05T10", "\"lateAllowed\":\"2026-10-05T08", "$.attempts[0].lateAllowed")]
    [InlineData("\"question\":\"k3\",\"at\":\"2026-10-06", "\"question\":\"k3\",\"at\":\"2026-10-04", "$.marks[0].at")]
    public void What_is_at_fault_is_named(string good, string bad, string path)
    {
        var at = Good.IndexOf(good, StringComparison.Ordinal);
        at.ShouldBeGreaterThan(0, good);
        PathOf(Good[..at] + bad + Good[(at + good.Length)..]).ShouldBe(path);
    }

    [Fact]
    public void Whatever_is_changed_in_a_file_it_is_marked_or_refused_by_path()
    {
        string[] values =
        [
            "null",
            "1",
            "-1",
            "1.5",
            "true",
            "\"\"",
            "\"a\"",
            "\"2026-10-05T09:00:00Z\"",
            "[]",
            "{}",
            "[\"a\",\"a\"]",
            "[[1]]",
        ];
        var refused = 0;
        Gen.Select(Gen.Int[0, 10_000], Lots.Of(values), Gen.Bool)
            .Sample(
                (place, value, isRemoved) =>
                {
                    var file = JsonNode.Parse(Good)!;
                    var pieces = Pieces(file).ToList();
                    var (owner, name, index) = pieces[place % pieces.Count];
                    if (owner is JsonArray list)
                        list[index] = JsonNode.Parse(value);
                    else if (isRemoved)
                        owner.AsObject().Remove(name!);
                    else
                        owner[name!] = JsonNode.Parse(value);
                    if (PathOf(file.ToJsonString()) is { } path)
                    {
                        path.ShouldStartWith("$");
                        Interlocked.Increment(ref refused);
                    }
                },
                iter: 2_000
            );
        refused.ShouldBeGreaterThan(1_000);
    }

    private static IEnumerable<(JsonNode Owner, string? Name, int Index)> Pieces(JsonNode node) =>
        node switch
        {
            JsonObject members => members.SelectMany(pair => Pieces(pair.Value ?? JsonValue.Create(0)).Prepend((members, pair.Key, 0))),
            JsonArray list => list.SelectMany((entry, n) => Pieces(entry ?? JsonValue.Create(0)).Prepend((list, null, n))),
            _ => [],
        };
}
