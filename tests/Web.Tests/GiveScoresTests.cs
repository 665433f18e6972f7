using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Scores given in the table: on paper or for a piece, what they open, and all of one go taken back.</summary>
public sealed class GiveScoresTests : LeadOfASchool
{
    private const string Step = "Isobars by hand";
    private const string Next = "Arrows on the chart";
    private const string Birch = "9 Birch";
    private long step;
    private IReadOnlyList<(long Id, string Name)> students = [];

    protected override async Task Prepare()
    {
        step = await School.Item(Step);
        (
            await Set(
                step,
                "mark-item-as",
                "marked",
                new
                {
                    As = "points",
                    outOf = 12,
                    levels = Array.Empty<object>(),
                }
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        var lineage = await School.Sql(connection =>
            connection.ExecuteScalarAsync<string>("SELECT lineage::text FROM item WHERE id = @step", new { step })
        );
        (
            await Set(
                await School.Item(Next),
                "condition-item",
                "gate",
                new Dictionary<string, object?> { ["item"] = lineage, ["scoreMin"] = 75 }
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        students = [.. (await Section())["students"]!.AsArray().Select(line => (line!["student"]!.GetValue<long>(), Text(line["name"])!))];
    }

    /// <summary>A score of somebody's in 9 Alder.</summary>
    public static async Task<object?> Some(School school, decimal value) =>
        new
        {
            scores = new[]
            {
                new
                {
                    item = await school.Item("Cloud diary"),
                    student = school.Ids["person:" + DemoPeople.OnTrack],
                    value,
                },
            },
        };

    /// <inheritdoc cref="Some(School, decimal)"/>
    public static Task<object?> Some(School school) => Some(school, 9);

    private async Task<Reply> Set(long item, string command, string member, object? value) =>
        await Lead.Post(
            Route(command),
            new JsonObject
            {
                ["item"] = item,
                [member] = System.Text.Json.JsonSerializer.SerializeToNode(value, System.Text.Json.JsonSerializerOptions.Web),
                ["version"] = (await Lead.Get(Route($"items/{item}"))).Json["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );

    private static string? Text(JsonNode? node) => node?.GetValue<string>();

    private async Task<JsonNode> Section(string name = Birch) =>
        (await Lead.Get(Route("scores"))).Json["sections"]!.AsArray().Single(one => Text(one!["name"]) == name)!;

    private async Task<JsonNode> Cell(long student)
    {
        var scores = (await Lead.Get(Route("scores"))).Json;
        var place = scores["items"]!.AsArray().TakeWhile(item => item!["item"]!.GetValue<long>() != step).Count();
        return scores["sections"]!
            .AsArray()
            .SelectMany(section => section!["students"]!.AsArray())
            .First(line => line!["student"]!.GetValue<long>() == student)!["cells"]![place]!;
    }

    private Task<Reply> Give(Caller who, bool preview, bool close, params (long Student, decimal Value)[] scores) =>
        Give(who, preview ? null : Guid.NewGuid(), close, scores);

    private Task<Reply> Give(Caller who, Guid? key, bool close, params (long Student, decimal Value)[] scores) =>
        who.Post(
            $"/api/sections/{School.Ids["section:" + Birch]}/give-scores" + (key is null ? "?preview=true" : ""),
            new
            {
                scores = scores.Select(score => new
                {
                    item = step,
                    student = score.Student,
                    value = score.Value,
                }),
                close,
            },
            key
        );

    private Task<Guid> Given(params (long Student, decimal Value)[] scores) => Given(false, scores);

    private async Task<Guid> Given(bool close, params (long Student, decimal Value)[] scores)
    {
        var key = Guid.NewGuid();
        var reply = await Give(Lead, key, close, scores);
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return key;
    }

    private Task<Reply> TakeBack(Guid key) =>
        Lead.Post($"/api/sections/{School.Ids["section:" + Birch]}/take-back-scores", new { key }, Guid.NewGuid());

    private async Task<string?> StateOf(long student) =>
        Text(
            (await Lead.Get($"/api/sections/{School.Ids["section:" + Birch]}/items/{await School.Item(Next)}?as=student:{student}")).Json[
                "state"
            ]
        );

    /// <summary>Those of the section who have handed in nothing, and one who has.</summary>
    private async Task<(List<(long Id, string Name)> OnPaper, (long Id, string Name) WithPiece)> Those()
    {
        var with = School.Ids["person:" + DemoPeople.HeldUp];
        var has = await School.Sql(async connection =>
            (await connection.QueryAsync<long>("SELECT person FROM work WHERE item = @step", new { step })).ToHashSet()
        );
        return ([.. students.Where(one => !has.Contains(one.Id))], students.Single(one => one.Id == with));
    }

    [Fact]
    public async Task A_column_of_scores_is_given_on_paper_and_for_pieces_and_all_of_it_is_taken_back()
    {
        var (paper, piece) = await Those();
        paper.Count.ShouldBeGreaterThan(1);
        var before = await Section();
        var states = await Task.WhenAll(paper.Take(2).Append(piece).Select(one => StateOf(one.Id)));
        var shown = await Give(Lead, true, false, (paper[0].Id, 9), (paper[1].Id, 8.99m), (piece.Id, 12));
        shown.Status.ShouldBe(HttpStatusCode.OK, shown.Text);
        Text(shown.Json["sentence"]).ShouldBe($"3 new scores. 2.15 {Next} opens for {Both(paper[0].Name, piece.Name)}.");
        shown.Json["given"]!.GetValue<bool>().ShouldBeFalse();
        Text((await Cell(paper[0].Id))["points"]).ShouldBeNull();

        var key = await Given((paper[0].Id, 9), (paper[1].Id, 8.99m), (piece.Id, 12));
        Text((await Cell(paper[0].Id))["points"]).ShouldBe("9");
        Text((await Cell(paper[1].Id))["percent"]).ShouldBe("74.9 %");
        Text((await Cell(piece.Id))["words"]).ShouldBe("given back");
        (await StateOf(paper[0].Id)).ShouldBe("open");
        (await StateOf(paper[1].Id)).ShouldBe("locked");
        // The piece waits no longer; what was done on paper is no piece, and its student reads the score.
        var pieces = (await Lead.Get(Route("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(section => section!["pieces"]!.AsArray())
            .Where(one => Text(one!["title"]) == Step)
            .ToList();
        pieces.Single(one => Text(one!["name"]) == piece.Name)!["back"]!["mark"]!["words"]!.GetValue<string>().ShouldBe("12 of 12");
        pieces.ShouldNotContain(one => Text(one!["name"]) == paper[0].Name);
        var own = (await Lead.Get($"/api/sections/{School.Ids["section:" + Birch]}/items/{step}?as=student:{paper[0].Id}")).Json;
        own["onPaper"]!.AsArray().ShouldHaveSingleItem()!["mark"]!["words"]!.GetValue<string>().ShouldBe("9 of 12");
        // Given once more, nothing is new.
        Text((await Give(Lead, true, false, (paper[0].Id, 9))).Json["sentence"]).ShouldBe("These scores are already there.");

        Text((await Section())["last"]!["key"]).ShouldBe($"{key}");
        var back = await TakeBack(key);
        Text(back.Json["sentence"]).ShouldBe($"3 scores taken back. 2.15 {Next} closes for {Both(paper[0].Name, piece.Name)}.");
        (await Section())["students"]!.ToJsonString().ShouldBe(before["students"]!.ToJsonString());
        (await Task.WhenAll(paper.Take(2).Append(piece).Select(one => StateOf(one.Id)))).ShouldBe(states);
        (await TakeBack(key)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Section())["last"].ShouldBeNull();
    }

    private static string Both(string one, string other) => string.Join(" and ", new[] { one, other }.Order(StringComparer.Ordinal));

    [Fact]
    public async Task A_mistyped_score_says_whom_it_let_in_and_closes_only_by_choice()
    {
        var one = (await Those()).OnPaper[0];
        await Given((one.Id, 12));
        (await StateOf(one.Id)).ShouldBe("open");
        var kept = await Give(Lead, true, false, (one.Id, 2));
        kept.Json["stays"]!.GetValue<bool>().ShouldBeTrue();
        Text(kept.Json["sentence"]).ShouldBe($"1 changed score. 2.15 {Next} stays open for {one.Name}, whom the earlier score had let in.");
        await Given((one.Id, 2));
        (await StateOf(one.Id)).ShouldBe("open");

        Text((await Give(Lead, true, true, (one.Id, 1))).Json["sentence"])
            .ShouldBe($"1 changed score. 2.15 {Next} closes for {one.Name}, whom only the earlier score had let in.");
        (await StateOf(one.Id)).ShouldBe("open");
        var closed = await Given(true, (one.Id, 1));
        (await StateOf(one.Id)).ShouldBe("locked");
        // Taken back, what let them in counts again.
        await TakeBack(closed);
        (await StateOf(one.Id)).ShouldBe("open");
        Text((await Cell(one.Id))["points"]).ShouldBe("2");
    }

    [Fact]
    public async Task Nobody_of_another_section_and_nothing_that_is_not_theirs_is_scored()
    {
        var alder = (await Section("9 Alder"))["students"]![0]!["student"]!.GetValue<long>();
        (await Give(Lead, true, false, (alder, 3))).Status.ShouldBe(HttpStatusCode.NotFound);
        using var other = await School.As(DemoPeople.OnTrack);
        (await Give(other, true, false, (students[0].Id, 3))).Status.ShouldBeOneOf(HttpStatusCode.Forbidden, HttpStatusCode.NotFound);
        foreach (var value in new[] { -1, 10_001, 1.005m })
        {
            var refused = await Give(Lead, true, false, (students[0].Id, value));
            refused.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, refused.Text);
            Text(refused.Json["field"]).ShouldBe("scores[0].value");
        }
        (await Give(Lead, true, false)).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Give(Lead, true, false, (students[0].Id, 3), (students[0].Id, 4))).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        // A key of another section's takes nothing back.
        var key = await Given((students[0].Id, 3));
        (await Lead.Post($"/api/sections/{School.Ids["section:9 Alder"]}/take-back-scores", new { key }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.NotFound
        );
        Text((await Cell(students[0].Id))["points"]).ShouldBe("3");
    }

    [Fact]
    public async Task Whoever_is_excused_takes_no_score()
    {
        var one = (await Those()).OnPaper[0];
        (
            await Lead.Post(
                Route("for-students"),
                new
                {
                    students = new[] { one.Id },
                    items = new[] { step },
                    change = "excuse",
                    days = (int?)null,
                    until = (string?)null,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        var refused = await Give(Lead, true, false, (one.Id, 3));
        Text(refused.Json["field"]).ShouldBe("scores[0].item");
        Text(refused.Json["title"]).ShouldBe($"{one.Name} can’t have a score in “{Step}”: they are excused from it.");
    }
}
