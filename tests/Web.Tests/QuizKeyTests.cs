using System.Text;
using System.Text.Json.Nodes;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>
/// Whatever a student's browser can ask for, it is not told what is right before its time: every address of the application is read, and
/// every answer to what a student does.
/// </summary>
public sealed class QuizKeyTests : LeadOfASchool
{
    private const string Title = "Reading scales";

    // What is right is said in words that stand nowhere else.
    private static readonly string[] Told = ["8472.125", "quillwortle", "brindlewick", "6613", "only-afterwards"];

    private const string Text = """
        What does the scale show?
        number: 8472.125
        after: only-afterwards

        What is it called?
        text: quillwortle

        It is a [brindlewick] of [number: 6613].

        In order:
        1. calm
        2. breeze
        3. gale
        4. storm
        5. hurricane

        What belongs together?
        pressure = barometer
        warmth = thermometer
        wind = vane
        rain = gauge
        """;

    private readonly StringBuilder heard = new();
    private long section;
    private long item;
    private Caller student = null!;

    protected override async Task Prepare()
    {
        (section, item) = (School.Ids["section:9 Alder"], await School.Item(Title));
        student = await School.As(DemoPeople.OnTrack);
        await QuizTests.Forget(School, item);
    }

    public override async ValueTask DisposeAsync()
    {
        student.Dispose();
        await base.DisposeAsync();
    }

    private async Task Write(string shown)
    {
        var version = (await Lead.Get(Route($"items/{item}/quiz"))).Json["version"]!.GetValue<long>();
        var rules = new
        {
            limit = (int?)null,
            attempts = 9,
            @using = "best",
            shown,
            outOf = (decimal?)null,
        };
        await Post(
            "write-quiz",
            new
            {
                item,
                text = Text,
                rules,
                version,
            }
        );
    }

    private async Task<JsonNode> Do(string command, object body)
    {
        var reply = await student.Post($"/api/sections/{section}/{command}", body, Guid.NewGuid());
        ((int)reply.Status).ShouldBe(200, reply.Text);
        heard.AppendLine(reply.Text);
        return reply.Json;
    }

    private async Task<JsonNode> Seen() => (await student.Get($"/api/sections/{section}/items/{item}/quiz")).Json;

    // Everything that can be read at all, as whom; how many answers there were.
    private async Task<int> ReadAll(Caller who)
    {
        var answers = 0;
        foreach (var endpoint in EndpointTests.Rows.Keys.Where(name => name.StartsWith("GET ", StringComparison.Ordinal)))
        {
            var reply = await who.Get(await EndpointTests.Filled(School, endpoint));
            heard.AppendLine(reply.Text);
            answers += (int)reply.Status == 200 ? 1 : 0;
        }
        return answers;
    }

    private void NothingIsTold()
    {
        var all = heard.ToString();
        Told.ShouldEachBe(word => !all.Contains(word, StringComparison.Ordinal));
    }

    [Fact]
    public async Task No_answer_that_a_browser_gets_tells_what_is_right_before_it_is_to_be_told()
    {
        await Write("never");
        await using var watching = await Watcher.Connect(School, DemoPeople.OnTrack);
        (await ReadAll(student)).ShouldBeGreaterThan(15);
        var n = (await Do("begin-quiz", new { item }))["n"]!.GetValue<int>();
        var questions = (await Seen())["running"]!["questions"]!.AsArray();
        questions.Count.ShouldBe(5);
        object?[] answers = ["8472", "quill", new[] { "brindle", "66" }, Ids(questions[3]!), null];
        foreach (var (at, answer) in answers.Index())
            await Do(
                "answer-quiz",
                new
                {
                    item,
                    n,
                    question = questions[at]!["id"]!.GetValue<string>(),
                    answer,
                }
            );
        await ReadAll(student);
        await Do("end-quiz", new { item, n });
        await ReadAll(student);
        // Nor is it told to others of the school who do not teach it.
        foreach (var other in new[] { DemoPeople.HeldUp, DemoPeople.Office, DemoPeople.Colleague })
        {
            using var caller = await School.As(other);
            await ReadAll(caller);
        }
        NothingIsTold();

        // They are the right words: once it is to be told, it is.
        await Write("at-once");
        await ReadAll(student);
        var told = heard.ToString();
        Told.ShouldEachBe(word => told.Contains(word, StringComparison.Ordinal));
    }

    [Fact]
    public async Task Neither_the_order_nor_the_names_of_options_give_an_order_or_pairs_away()
    {
        await Write("never");
        var (ordered, named, paired) = (0, 0, 0);
        const int Attempts = 9;
        for (var n = 1; n <= Attempts; n++)
        {
            await Do("begin-quiz", new { item });
            var questions = (await Seen())["running"]!["questions"]!.AsArray();
            string[] right = ["calm", "breeze", "gale", "storm", "hurricane"];
            ordered += Words(questions[3]!, "options").SequenceEqual(right) ? 1 : 0;
            named += WordsByName(questions[3]!, "options").SequenceEqual(right) ? 1 : 0;
            string[] instruments = ["barometer", "thermometer", "vane", "gauge"];
            paired += WordsByName(questions[4]!, "rights").SequenceEqual(instruments) ? 1 : 0;
            // What one sees is what one answers by, all the same.
            var byWords = questions[3]!["options"]!.AsArray().ToDictionary(one => Said(one!, "words"), one => Said(one!, "id"));
            var rights = questions[4]!["rights"]!.AsArray().ToDictionary(one => Said(one!, "words"), one => Said(one!, "id"));
            await Do(
                "answer-quiz",
                new
                {
                    item,
                    n,
                    question = Said(questions[3]!, "id"),
                    answer = right.Select(word => byWords[word]),
                }
            );
            await Do(
                "answer-quiz",
                new
                {
                    item,
                    n,
                    question = Said(questions[4]!, "id"),
                    answer = questions[4]!["options"]!
                        .AsArray()
                        .Zip(instruments)
                        .ToDictionary(pair => Said(pair.First!, "id"), pair => rights[pair.Second]),
                }
            );
            (await Seen())["running"]!["questions"]![3]!["answer"]!
                .AsArray()
                .Select(id => id!.GetValue<string>())
                .ShouldBe(right.Select(word => byWords[word]));
            await Do("end-quiz", new { item, n });
        }
        // By chance one in 120 has the right order, and one in 24 the right pairs.
        ordered.ShouldBeLessThan(3);
        named.ShouldBeLessThan(3);
        paired.ShouldBeLessThan(5);
        await Write("at-once");
        (await Seen())["done"]!.AsArray().Select(done => Said(done!, "score")).Distinct().ShouldBe(["2 of 5"]);
    }

    private static string Said(JsonNode of, string member) => of[member]!.GetValue<string>();

    private static string[] Ids(JsonNode question) => [.. question["options"]!.AsArray().Select(one => Said(one!, "id"))];

    private static IEnumerable<string> Words(JsonNode question, string which) =>
        question[which]!.AsArray().Select(one => Said(one!, "words"));

    private static IEnumerable<string> WordsByName(JsonNode question, string which) =>
        question[which]!.AsArray().OrderBy(one => Said(one!, "id"), StringComparer.Ordinal).Select(one => Said(one!, "words"));
}
