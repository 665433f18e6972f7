using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A question that is answered with a file: who sends it, who reads it, and that it stays as long as its answer.</summary>
public sealed class AnswerFileTests : LeadOfASchool
{
    private long item;
    private long section;
    private Caller student = null!;

    protected override async Task Prepare()
    {
        (item, section) = (await School.Item("Reading scales"), School.Ids["section:9 Alder"]);
        student = await School.As(DemoPeople.OnTrack);
        await QuizTests.Forget(School, item);
        var version = (await Lead.Get(Route($"items/{item}/quiz"))).Json["version"]!.GetValue<long>();
        var rules = new
        {
            limit = (int?)null,
            attempts = 1,
            @using = "best",
            shown = "at-once",
        };
        await Post(
            "write-quiz",
            new
            {
                item,
                text = "Draw the dial.\nfile\npoints: 2",
                rules,
                version,
            }
        );
        await Do("begin-quiz", new { item });
    }

    public override async ValueTask DisposeAsync()
    {
        student.Dispose();
        await base.DisposeAsync();
    }

    private async Task Do(string command, object body)
    {
        var reply = await student.Post($"/api/sections/{section}/{command}", body, Guid.NewGuid());
        ((int)reply.Status).ShouldBe(200, reply.Text);
    }

    private async Task<Reply> Answer(object? answer) =>
        await student.Post(
            $"/api/sections/{section}/answer-quiz",
            new
            {
                item,
                n = 1,
                question = (await Seen())["running"]!["questions"]![0]!["id"]!.GetValue<string>(),
                answer,
            },
            Guid.NewGuid()
        );

    private async Task<JsonNode> Seen() => (await student.Get($"/api/sections/{section}/items/{item}/quiz")).Json;

    [Fact]
    public async Task A_file_answers_a_question_and_is_read_by_whoever_reads_the_answer()
    {
        foreach (var name in new[] { "first.txt", "dial.txt" })
            (await Answer(new { upload = await student.SendFile(name, "around"u8.ToArray()), name })).Status.ShouldBe(HttpStatusCode.OK);
        var put = (await Seen())["running"]!["questions"]![0]!;
        (put["answer"]!.GetValue<string>(), put["file"]!["name"]!.GetValue<string>()).ShouldBe(("dial.txt", "dial.txt"));
        var own = put["file"]!["address"]!.GetValue<string>();
        (await student.Get(own)).Text.ShouldBe("around");
        using var other = await School.As(DemoPeople.HeldUp);
        (await other.Get(own)).Status.ShouldBe(HttpStatusCode.NotFound);
        await Do("end-quiz", new { item, n = 1 });

        var piece = (await Lead.Get(Route("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(one => one!["pieces"]!.AsArray())
            .Single(one => one!["item"]!.GetValue<long>() == item)!;
        var file = piece["quiz"]!["answers"]![0]!["file"]!;
        file["name"]!.GetValue<string>().ShouldBe("dial.txt");
        (await Lead.Get(file["address"]!.GetValue<string>())).Text.ShouldBe("around");
        (await student.Get(file["address"]!.GetValue<string>())).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Seen())["done"]![0]!["questions"]![0]!["question"]!["file"]!["name"]!.GetValue<string>().ShouldBe("dial.txt");

        // What answers a question is not swept away, and goes when its student is erased.
        await School.Sql(connection => connection.ExecuteAsync("SELECT sweep_files(now() + interval '100 days')"));
        (await student.Get(own)).Text.ShouldBe("around");
        await School.Sql(connection =>
            connection.ExecuteAsync(
                "SELECT erase_files(id), erase_quizzes(id) FROM person WHERE name = @name",
                new { name = DemoPeople.OnTrack }
            )
        );
        (
            await School.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT count(*) FROM work_file WHERE name = 'dial.txt'"))
        ).ShouldBe(0);
        (await Verifier.Run(School.Database.Owner, TestContext.Current.CancellationToken)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Only_a_file_of_ones_own_answers_it()
    {
        (await Answer("dial.txt")).Json["title"]!.GetValue<string>().ShouldBe("This question is answered with a file. Choose one.");
        using var other = await School.As(DemoPeople.HeldUp);
        var theirs = await other.SendFile("theirs.txt", "x"u8.ToArray());
        (await Answer(new { upload = theirs })).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Answer(null)).Status.ShouldBe(HttpStatusCode.OK);
        (await Seen())["running"]!["questions"]![0]!["file"].ShouldBeNull();
    }
}
