using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Quizzes: written, taken, marked by the server's clock, and never given away early.</summary>
public sealed class QuizTests : LeadOfASchool
{
    private const string Title = "Reading scales";
    private const string Text = """
        Which is colder?
        + minus three
        > Colder than nothing.
        - three
        > That would be thawing.

        How warm is it?
        number: 14.6 ± 0.1 °C
        points: 2

        In order:
        1. breeze
        2. gale
        3. storm
        """;

    private long section;
    private long item;
    private Caller student = null!;

    protected override async Task Prepare()
    {
        (section, item) = (School.Ids["section:9 Alder"], await School.Item(Title));
        student = await School.As(DemoPeople.OnTrack);
        // The demo's own attempt at it is not what is looked at here.
        await Forget(School, item);
        (await Write("")).Status.ShouldBe(HttpStatusCode.OK);
    }

    /// <summary>Nobody has ever tried a quiz.</summary>
    internal static Task Forget(School school, long item) =>
        school.Sql(connection =>
            connection.ExecuteAsync(
                """
                DELETE FROM quiz_answer r USING quiz_attempt a WHERE a.id = r.attempt AND a.item = @item;
                DELETE FROM quiz_attempt WHERE item = @item;
                DELETE FROM fact WHERE item = @item
                """,
                new { item }
            )
        );

    public override async ValueTask DisposeAsync()
    {
        student.Dispose();
        await base.DisposeAsync();
    }

    private async Task<Reply> Write(
        string text,
        int? limit = null,
        int? attempts = 2,
        string @using = "best",
        string shown = "at-once",
        bool mixes = false,
        bool preview = false,
        string? scoreShown = null
    ) =>
        await Lead.Post(
            Route("write-quiz") + (preview ? "?preview=true" : ""),
            new
            {
                item,
                text,
                rules = new
                {
                    limit,
                    attempts,
                    @using,
                    shown,
                    outOf = (decimal?)null,
                    mixesQuestions = mixes,
                    mixesOptions = mixes,
                    scoreShown,
                },
                version = (await Lead.Get(Route($"items/{item}/quiz"))).Json["version"]!.GetValue<long>(),
            },
            preview ? null : Guid.NewGuid()
        );

    private Task<Reply> Do(string command, object body, Caller? who = null, Guid? key = null) =>
        (who ?? student).Post($"/api/sections/{section}/{command}", body, key ?? Guid.NewGuid());

    private Task<Reply> Begin() => Do("begin-quiz", new { item });

    private Task<Reply> Answer(int n, string question, object? answer, Guid? key = null) =>
        Do(
            "answer-quiz",
            new
            {
                item,
                n,
                question,
                answer,
            },
            key: key
        );

    private Task<Reply> End(int n) => Do("end-quiz", new { item, n });

    private async Task<JsonNode> Seen(Caller? who = null) =>
        (await (who ?? student).Get($"/api/sections/{section}/items/{item}/quiz")).Json;

    private Task<IEnumerable<(string Event, decimal? Score, int Attempt)>> Facts() =>
        School.Sql(connection =>
            connection.QueryAsync<(string, decimal?, int)>(
                "SELECT event, score, attempt FROM fact WHERE item = @item AND voided_at IS NULL ORDER BY id",
                new { item }
            )
        );

    [Fact]
    public async Task It_is_begun_answered_handed_in_and_marked_at_once()
    {
        (await Write(Text)).Status.ShouldBe(HttpStatusCode.OK);
        var before = await Seen();
        (before["questions"]!.GetValue<int>(), before["outOf"]!.GetValue<string>(), before["mayBegin"]!.GetValue<bool>()).ShouldBe(
            (3, "4", true)
        );
        // Nothing of it is sent before it is begun.
        before.ToJsonString().ShouldNotContain("colder");

        (await Begin()).Json["n"]!.GetValue<int>().ShouldBe(1);
        (await Begin()).Status.ShouldBe(HttpStatusCode.Conflict);
        var questions = (await Seen())["running"]!["questions"]!.AsArray();
        questions.Select(question => question!["kind"]!.GetValue<string>()).ShouldBe(["one", "number", "order"]);
        var one = questions[0]!["options"]!.AsArray().Single(option => option!["words"]!.GetValue<string>() == "minus three")!["id"]!;
        (await Answer(1, "k1", one.GetValue<string>())).Json["counts"]!.GetValue<bool>().ShouldBeTrue();
        await Answer(1, "k2", "14,55");
        await Answer(1, "k2", "14,55 °C");
        var order = questions[2]!["options"]!
            .AsArray()
            .ToDictionary(option => option!["words"]!.GetValue<string>(), option => option!["id"]!.GetValue<string>());
        await Answer(1, "k3", new[] { order["gale"], order["breeze"], order["storm"] });
        // Looked at again, from another device, all of it is there.
        (await Seen())["running"]!["questions"]![1]!["answer"]!.GetValue<string>().ShouldBe("14,55 °C");

        (await End(1)).Status.ShouldBe(HttpStatusCode.OK);
        var after = await Seen();
        after["score"]!.GetValue<string>().ShouldBe("3.5 of 4");
        var lines = after["done"]![0]!["questions"]!.AsArray();
        lines.Select(line => line!["points"]!.GetValue<string>()).ShouldBe(["1 of 1", "2 of 2", "0.5 of 1"]);
        lines
            .Select(line => string.Join(' ', line!["replies"]!.AsArray().Select(reply => reply!.GetValue<string>())))
            .ShouldBe(["Colder than nothing.", "", ""]);
        lines[2]!["right"]!.GetValue<string>().ShouldBe("breeze, gale, storm");
        (await Facts()).ShouldBe([("begun", null, 1), ("submitted", null, 1), ("scored", 87.5m, 1)]);

        // Handed in it is over, whatever is sent later.
        (await Answer(1, "k1", one.GetValue<string>())).Status.ShouldBe(HttpStatusCode.Conflict);
        (await End(1)).Status.ShouldBe(HttpStatusCode.OK);
        (await Facts()).Count().ShouldBe(3);
        (await Begin()).Json["n"]!.GetValue<int>().ShouldBe(2);
        await End(2);
        (await Begin()).Code.ShouldBe("not-open");
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("at-once", null, true, true)]
    [InlineData("never", null, false, false)]
    [InlineData("never", "at-once", false, true)]
    public async Task What_is_right_is_told_when_the_team_says_so_and_never_before(
        string shown,
        string? scoreShown,
        bool isTold,
        bool isScoreTold
    )
    {
        const string Asked = "The cloud of the thunderstorm?\ntext: cumulonimbus\nhint: It towers.\nafter: It has an anvil.";
        (await Write(Asked, shown: shown, scoreShown: scoreShown)).Status.ShouldBe(HttpStatusCode.OK);
        (await Lead.Get(Route($"items/{item}/quiz"))).Json["rules"]!["scoreShown"]!.GetValue<string>().ShouldBe(scoreShown ?? shown);
        // The answers tell the score.
        (await Write(Asked, shown: "at-once", scoreShown: "never")).Json["field"]!.GetValue<string>().ShouldBe("rules.scoreShown");
        await Begin();
        (await Seen()).ToJsonString().ShouldNotContain("cumulonimbus");
        (await Seen()).ToJsonString().ShouldNotContain("anvil");
        await Answer(1, "k1", "cirrus");
        await End(1);
        (await Seen()).ToJsonString().Contains("cumulonimbus", StringComparison.Ordinal).ShouldBe(isTold);
        ((await Seen())["score"] is not null).ShouldBe(isScoreTold);
        ((await Seen())["done"]![0]!["score"] is not null).ShouldBe(isScoreTold);
        // A colleague's students, and whoever is no student, learn nothing of it.
        using var other = await School.As(DemoPeople.HeldUp);
        (await other.Get($"/api/sections/{section}/items/{item}/quiz")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await student.Get(Route($"items/{item}/quiz"))).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task The_servers_clock_ends_it_and_what_comes_later_is_kept_and_does_not_count()
    {
        await Write(Text, limit: 20);
        await Begin();
        var options = (await Seen())["running"]!["questions"]![0]!["options"]!.AsArray();
        var right = options.Single(option => option!["words"]!.GetValue<string>() == "minus three")!["id"]!.GetValue<string>();
        (await Seen())["running"]!["secondsLeft"]!.GetValue<double>().ShouldBeInRange(1190, 1200);
        // Twenty-one minutes go by: the attempt began that much earlier.
        await School.Sql(connection =>
            connection.ExecuteAsync("UPDATE quiz_attempt SET began_at = began_at - interval '21 minutes' WHERE item = @item", new { item })
        );
        (await Answer(1, "k1", right)).Json["counts"]!.GetValue<bool>().ShouldBeFalse();
        var sweep = School.Instance.Services.GetRequiredService<QuizSweep>();
        await Task.WhenAll(Enumerable.Range(0, 3).Select(_ => sweep.Sweep(CancellationToken.None)));
        (await Facts()).ShouldBe([("begun", null, 1), ("submitted", null, 1), ("scored", 0m, 1)]);
        var done = (await Seen())["done"]![0]!;
        (done["byClock"]!.GetValue<bool>(), done["late"]!.GetValue<int>(), done["score"]!.GetValue<string>()).ShouldBe((true, 1, "0 of 4"));
        (await Seen())["running"].ShouldBeNull();
    }

    [Fact]
    public async Task An_answer_sent_twice_under_one_key_is_kept_once_and_one_that_is_none_is_refused_by_name()
    {
        await Write(Text);
        await Begin();
        var key = Guid.NewGuid();
        await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => Answer(1, "k2", "14.6 °C", key)));
        (
            await School.Sql(connection =>
                connection.ExecuteScalarAsync<int>(
                    "SELECT count(*)::int FROM quiz_answer r JOIN quiz_attempt a ON a.id = r.attempt WHERE a.item = @item",
                    new { item }
                )
            )
        ).ShouldBe(1);
        foreach (
            var (question, answer, field) in new (string, object?, string)[]
            {
                ("k1", "z", "answer"),
                ("k3", new[] { "o3", "o3" }, "answer[1]"),
                ("k2", 14, "answer"),
                ("k9", "a", "question"),
            }
        )
        {
            var reply = await Answer(1, question, answer);
            ((int)reply.Status).ShouldBeInRange(404, 422);
            if (reply.Status == HttpStatusCode.UnprocessableEntity)
                reply.Json["field"]!.GetValue<string>().ShouldBe(field);
        }
        (await Answer(1, "k2", null)).Status.ShouldBe(HttpStatusCode.OK);
        (await Seen())["running"]!["questions"]![1]!["answer"].ShouldBeNull();
    }

    private const string Pool = """
        Which is colder?
        + minus three
        - three
        in this order

        page

        2 of the next 5

        Is 1 odd?
        true

        Is 2 odd?
        false

        Is 3 odd?
        true

        Is 4 odd?
        false

        Is 5 odd?
        true
        """;

    [Fact]
    public async Task Of_a_pool_each_attempt_gets_its_own_and_keeps_them()
    {
        (await Write(Pool, attempts: null, mixes: true)).Status.ShouldBe(HttpStatusCode.OK);
        var before = await Seen();
        (before["questions"]!.GetValue<int>(), before["outOf"]!.GetValue<string>()).ShouldBe((3, "3"));
        var draws = new HashSet<string>();
        for (var n = 1; n <= 8; n++)
        {
            await Begin();
            var running = (await Seen())["running"]!["questions"]!.AsArray();
            running.Select(one => one!["page"]!.GetValue<int>()).ShouldBe([1, 2, 2]);
            running[0]!["options"]!.AsArray().Select(option => option!["words"]!.GetValue<string>()).ShouldBe(["minus three", "three"]);
            var ids = running.Skip(1).Select(one => one!["id"]!.GetValue<string>()).ToList();
            draws.Add(string.Join(' ', ids.Order()));
            // Read again, and by the team, it is what it was; what is not drawn takes no answer.
            (await Seen())["running"]!["questions"]!.ToJsonString().ShouldBe(running.ToJsonString());
            (await Answer(n, new[] { "k2", "k3", "k4", "k5", "k6" }.First(id => !ids.Contains(id)), true)).Status.ShouldBe(
                HttpStatusCode.NotFound
            );
            (await Answer(n, ids[0], ids[0] is "k2" or "k4" or "k6")).Status.ShouldBe(HttpStatusCode.OK);
            await End(n);
            (await Seen())["done"]![0]!["score"]!.GetValue<string>().ShouldBe("1 of 3");
        }
        draws.Count.ShouldBeGreaterThan(2);
        // Everything that adds it up has it out of what was put.
        (await Facts()).Where(fact => fact.Event == "scored").Select(fact => fact.Score).Distinct().ShouldBe([33.3333m]);
        var scores = (await Lead.Get(Route("scores"))).Json;
        scores["items"]!.AsArray().Single(one => one!["item"]!.GetValue<long>() == item)!["outOf"]!.GetValue<string>().ShouldBe("of 3");
    }

    [Fact]
    public async Task A_quiz_is_tried_by_its_team_and_nothing_of_it_is_kept()
    {
        async Task<JsonNode> Try(object? answers, bool isDone)
        {
            var reply = await Lead.Post(
                Route("try-quiz"),
                new
                {
                    text = Pool,
                    mixesQuestions = false,
                    mixesOptions = true,
                    lot = "a",
                    answers,
                    isDone,
                }
            );
            reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
            return reply.Json;
        }
        var put = await Try(null, false);
        put["outOf"]!.GetValue<string>().ShouldBe("3");
        put["marked"].ShouldBeNull();
        var options = put["questions"]![0]!["options"]!.AsArray();
        var right = options.Single(option => option!["words"]!.GetValue<string>() == "minus three")!["id"]!.GetValue<string>();
        // An answer that does not fit is none.
        var done = await Try(
            new Dictionary<string, object>
            {
                ["k1"] = right,
                ["k2"] = new[] { 1 },
                ["nothing"] = true,
            },
            true
        );
        done["score"]!.GetValue<string>().ShouldBe("1 of 3");
        done["marked"]!
            .AsArray()
            .Select(line => line!["question"]!["id"]!.GetValue<string>())
            .ShouldBe(put["questions"]!.AsArray().Select(one => one!["id"]!.GetValue<string>()));
        (await Facts()).ShouldBeEmpty();
        (await Seen())["questions"]!.GetValue<int>().ShouldBe(0);
    }

    [Fact]
    public async Task A_key_put_right_says_before_whose_scores_rise_and_what_that_opens()
    {
        const string Wrong = "Which is colder?\n- minus three\n+ three";
        const string Right = "Which is colder?\n+ minus three\n- three";
        await Write(Wrong);
        var hanging = await School.Item("Film: a day over the harbour");
        var gate = new JsonObject
        {
            ["item"] = hanging,
            ["gate"] = new JsonObject
            {
                ["item"] = await School.Sql(connection =>
                    connection.ExecuteScalarAsync<string>("SELECT lineage::text FROM item WHERE id = @item", new { item })
                ),
                ["scoreMin"] = 60,
            },
            ["version"] = (await Lead.Get(Route($"items/{hanging}"))).Json["version"]!.GetValue<long>(),
        };
        (await Lead.Post(Route("condition-item"), gate, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        await Begin();
        var options = (await Seen())["running"]!["questions"]![0]!["options"]!.AsArray();
        await Answer(1, "k1", options.Single(option => option!["words"]!.GetValue<string>() == "minus three")!["id"]!.GetValue<string>());
        await End(1);
        Reach(await Write(Right, preview: true))
            .ShouldContain("Marked again: 1 score rises. 1.05 Film: a day over the harbour opens for 1 student.");
        // What is only said otherwise marks nothing again.
        Reach(await Write(Wrong + "\nafter: Below zero.", preview: true)).ShouldNotContain("Marked again");

        await Write(Right);
        await School.Instance.Services.GetRequiredService<QuizSweep>().Sweep(CancellationToken.None);
        Reach(await Write(Wrong, preview: true))
            .ShouldContain(
                "Marked again: 1 score falls. 1.05 Film: a day over the harbour stays open for 1 student whom the earlier score had let in."
            );
    }

    private static string Reach(Reply reply)
    {
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json["reach"]!["sentence"]!.GetValue<string>();
    }

    [Fact]
    public async Task A_faulty_question_gives_everyone_its_points_or_is_as_if_it_had_not_been_asked()
    {
        await Write(Text);
        await Begin();
        await End(1);
        var number = "points: 2";
        async Task<JsonNode> Faulty(string how)
        {
            (await Write(Text.Replace(number, $"{number}\nfaulty: {how}", StringComparison.Ordinal))).Status.ShouldBe(HttpStatusCode.OK);
            return (await Seen())["done"]![0]!;
        }
        (await Seen())["done"]![0]!["score"]!.GetValue<string>().ShouldBe("0 of 4");
        var full = await Faulty("full points");
        full["score"]!.GetValue<string>().ShouldBe("2 of 4");
        full["questions"]!.AsArray().Select(line => line!["isFaulty"]!.GetValue<bool>()).ShouldBe([false, true, false]);
        var without = await Faulty("left out");
        without["score"]!.GetValue<string>().ShouldBe("0 of 2");
        without["questions"]!.AsArray().Count.ShouldBe(2);
        // Whoever begins now is not asked it.
        await Begin();
        (await Seen())["running"]!["questions"]!.AsArray().Count.ShouldBe(2);
    }

    [Fact]
    public async Task What_was_put_stays_as_it_was_and_a_key_put_right_marks_it_by_the_new_one()
    {
        await Write("Which is colder?\n- minus three\n+ three");
        await Begin();
        var options = (await Seen())["running"]!["questions"]![0]!["options"]!.AsArray();
        await Answer(1, "k1", options.Single(option => option!["words"]!.GetValue<string>() == "minus three")!["id"]!.GetValue<string>());
        await End(1);
        (await Seen())["score"]!.GetValue<string>().ShouldBe("0 of 1");
        await Write("Which is colder?\n+ minus three\n- three");
        (await Seen())["score"]!.GetValue<string>().ShouldBe("1 of 1");
        // The score it had stays where it was, and the new one is added once, by whichever instance comes first.
        var sweep = School.Instance.Services.GetRequiredService<QuizSweep>();
        await Task.WhenAll(Enumerable.Range(0, 3).Select(_ => sweep.Sweep(CancellationToken.None)));
        (await Facts()).Where(fact => fact.Event == "scored").Select(fact => fact.Score).ShouldBe([0m, 100m]);
        // Other answers to choose from make another question: what was put is marked as it was put.
        await Write("Which is coldest?\n+ minus four\n- minus three\n- three");
        (await Seen())["done"]![0]!["questions"]![0]!["question"]!["html"]!.GetValue<string>().ShouldContain("colder");
    }

    [Theory]
    [InlineData("Why?\n+ a\n+ a", "Line 3 is not understood")]
    [InlineData("Why?\n- a\n- b", "Line 1 is not understood")]
    public async Task Questions_that_are_not_understood_are_refused_with_their_line(string text, string words)
    {
        var reply = await Write(text);
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "text"));
        reply.Json["title"]!.GetValue<string>().ShouldContain(words);
        var understood = await Lead.Post(Route("understand-quiz"), new { text });
        understood.Json["lines"]!.AsArray().Count.ShouldBe(text.Split('\n').Length);
    }
}
