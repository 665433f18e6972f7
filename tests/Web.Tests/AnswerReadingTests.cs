using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Questions of a quiz that a person reads: they wait, are given points and words, and are scored then.</summary>
public sealed class AnswerReadingTests : LeadOfASchool
{
    private const string Title = "Reading scales";
    private const string Text = "Is water wet?\ntrue\n\nWhy?\nread\npoints: 3\n\nAnd what else?\nread\n";

    private long section;
    private long item;
    private long imke;
    private Caller student = null!;

    /// <summary>Points for an answer that the one on track gave in the demo.</summary>
    public static async Task<object?> SomeAnswer(School school) =>
        Marks(await school.Item(Title), school.Ids["person:" + DemoPeople.OnTrack], 1, ("k1", 0.5m, ""));

    private static object Marks(long item, long student, int n, params (string Question, decimal Points, string Words)[] answers) =>
        new
        {
            item,
            student,
            n,
            answers = answers.Select(one => new
            {
                one.Question,
                one.Points,
                one.Words,
            }),
        };

    protected override async Task Prepare()
    {
        (section, item, imke) = (School.Ids["section:9 Alder"], await School.Item(Title), School.Ids["person:" + DemoPeople.OnTrack]);
        student = await School.As(DemoPeople.OnTrack);
        // The demo's own attempts at it are not what is looked at here.
        await School.Sql(connection =>
            connection.ExecuteAsync(
                """
                DELETE FROM quiz_answer r USING quiz_attempt a WHERE a.id = r.attempt AND a.item = @item;
                DELETE FROM quiz_attempt WHERE item = @item;
                DELETE FROM fact WHERE item = @item
                """,
                new { item }
            )
        );
        var written = await Lead.Post(
            Route("write-quiz"),
            new
            {
                item,
                text = Text,
                rules = new
                {
                    limit = (int?)null,
                    attempts = 3,
                    @using = "best",
                    shown = "at-once",
                    outOf = (decimal?)null,
                },
                version = (await Lead.Get(Route($"items/{item}/quiz"))).Json["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );
        written.Status.ShouldBe(HttpStatusCode.OK, written.Text);
    }

    public override async ValueTask DisposeAsync()
    {
        student.Dispose();
        await base.DisposeAsync();
    }

    private async Task<JsonNode> Done(string command, object body)
    {
        var reply = await student.Post($"/api/sections/{section}/{command}", body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json;
    }

    private async Task<List<string>> Sit(int n, bool right, params string?[] texts)
    {
        await Done("begin-quiz", new { item });
        var questions = (await Seen())["running"]!["questions"]!.AsArray().Select(one => one!["id"]!.GetValue<string>()).ToList();
        for (var place = 0; place < questions.Count; place++)
            if (place == 0 || texts[place - 1] is not null)
                await Done(
                    "answer-quiz",
                    new
                    {
                        item,
                        n,
                        question = questions[place],
                        answer = place == 0 ? right : (object?)texts[place - 1],
                    }
                );
        await Done("end-quiz", new { item, n });
        return questions;
    }

    private async Task<JsonNode> Seen() => (await student.Get($"/api/sections/{section}/items/{item}/quiz")).Json;

    private Task<Reply> Mark(int n, bool preview = false, params (string Question, decimal Points, string Words)[] answers) =>
        Lead.Post(
            $"/api/sections/{section}/mark-answers" + (preview ? "?preview=true" : ""),
            Marks(item, imke, n, answers),
            preview ? null : Guid.NewGuid()
        );

    private async Task<List<JsonNode>> ToRead() =>
        [
            .. (await Lead.Get(Route("work"))).Json["sections"]!
                .AsArray()
                .SelectMany(one => one!["pieces"]!.AsArray())
                .Where(piece => piece!["item"]!.GetValue<long>() == item)
                .Select(piece => piece!),
        ];

    private Task<IEnumerable<decimal>> Scores() =>
        School.Sql(connection =>
            connection.QueryAsync<decimal>(
                "SELECT score FROM fact WHERE item = @item AND event = 'scored' AND voided_at IS NULL ORDER BY id",
                new { item }
            )
        );

    private static string Words(JsonNode? node) => node!.GetValue<string>();

    [Fact]
    public async Task An_answer_that_is_read_waits_is_given_points_and_scores_the_attempt()
    {
        var asked = await Sit(1, right: true, "Because it\nsticks.", "Ice floats.");
        // Until it is read, what marks itself is all there is, and no score stands.
        (await Scores()).ShouldBeEmpty();
        var before = await Seen();
        before["score"].ShouldBeNull();
        var done = before["done"]![0]!;
        (Words(done["score"]), done["toRead"]!.GetValue<int>()).ShouldBe(("1 of 5", 2));
        done["questions"]![1]!["points"].ShouldBeNull();
        var piece = (await ToRead()).ShouldHaveSingleItem();
        Words(piece["name"]).ShouldBe(DemoPeople.OnTrack);
        Words(piece["quiz"]!["answers"]![0]!["answer"]).ShouldBe("Because it\nsticks.");
        piece["quiz"]!["answers"]![0]!["outOf"]!.GetValue<decimal>().ShouldBe(3);
        piece["back"].ShouldBeNull();

        Words((await Mark(1, preview: true, (asked[1], 2.5m, ""))).Json["sentence"])
            .ShouldBe($"{DemoPeople.OnTrack} has 3.5 of 5 so far; 1 answer is still to be read.");
        (await ToRead())[0]["quiz"]!["answers"]![0]!["points"].ShouldBeNull();
        (await Mark(1, answers: [(asked[1], 2.5m, "Say what it sticks to.")])).Status.ShouldBe(HttpStatusCode.OK);
        (await Scores()).ShouldBeEmpty();
        var given = await Mark(1, answers: [(asked[2], 1, "")]);
        Words(given.Json["sentence"]).ShouldBe($"{DemoPeople.OnTrack} has 4.5 of 5 in this attempt; nothing depends on it.");
        (await Scores()).ShouldBe([90m]);
        (await ToRead()).ShouldHaveSingleItem()["back"].ShouldNotBeNull();
        var after = await Seen();
        Words(after["score"]).ShouldBe("4.5 of 5");
        Words(after["done"]![0]!["questions"]![1]!["said"]).ShouldBe("Say what it sticks to.");

        // Put right afterwards: the earlier score stays where it was, and the new one is added; the same again adds nothing.
        (await Mark(1, answers: [(asked[2], 0, "")])).Status.ShouldBe(HttpStatusCode.OK);
        (await Mark(1, answers: [(asked[2], 0, "")])).Status.ShouldBe(HttpStatusCode.OK);
        (await Scores()).ShouldBe([90m, 70m]);
        // What marks itself can be put right by a person too.
        (await Mark(1, answers: [(asked[0], 0, "")])).Status.ShouldBe(HttpStatusCode.OK);
        Words((await Seen())["score"]).ShouldBe("2.5 of 5");
    }

    [Fact]
    public async Task What_was_left_blank_waits_for_nobody_and_each_attempt_is_a_piece_of_its_own()
    {
        await Sit(1, right: true, null, "  ");
        (await ToRead()).ShouldBeEmpty();
        (await Scores()).ShouldBe([20m]);
        await Sit(2, right: false, "Because.", null);
        await Sit(3, right: true, "It is.", null);
        (await ToRead()).Select(piece => piece["n"]!.GetValue<int>()).Order().ShouldBe([2, 3]);
        // The best of those that are read stands meanwhile.
        Words((await Seen())["score"]).ShouldBe("1 of 5");
    }

    [Fact]
    public async Task Nothing_is_given_that_is_no_mark_and_nothing_for_a_quiz_under_way()
    {
        var asked = await Sit(1, right: true, "Because.", null);
        foreach (var points in new[] { -1m, 10_001m, 1.001m })
            (await Mark(1, answers: [(asked[1], points, "")])).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Mark(1)).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Mark(1, answers: [(asked[1], 1, ""), (asked[1], 2, "")])).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Mark(1, answers: [("k99", 1, "")])).Json["field"]!.GetValue<string>().ShouldBe("answers[0].question");
        (await Mark(2, answers: [(asked[1], 1, "")])).Status.ShouldBe(HttpStatusCode.NotFound);
        await Done("begin-quiz", new { item });
        (await Mark(2, answers: [(asked[1], 1, "")])).Status.ShouldBe(HttpStatusCode.Conflict);
        (await Scores()).ShouldBeEmpty();
        // Another section's teacher reads none of it.
        var elsewhere = await Lead.Post(
            $"/api/sections/{School.Ids["section:9 Birch"]}/mark-answers",
            Marks(item, imke, 1, (asked[1], 1, "")),
            Guid.NewGuid()
        );
        elsewhere.Status.ShouldBe(HttpStatusCode.NotFound);
    }
}
