using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Questions with formatting and pictures, written, put to students, saved as a package of QTI and taken from one.</summary>
public sealed class QuestionFileTests : LeadOfASchool
{
    private static readonly byte[] Drawing = "<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M0 0h9v9z\"/></svg>"u8.ToArray();

    private long item;
    private long section;
    private Caller student = null!;

    protected override async Task Prepare()
    {
        (item, section) = (await School.Item("Reading scales"), School.Ids["section:9 Alder"]);
        student = await School.As(DemoPeople.OnTrack);
        await QuizTests.Forget(School, item);
    }

    public override async ValueTask DisposeAsync()
    {
        student.Dispose();
        await base.DisposeAsync();
    }

    private async Task<Reply> Write(string text, long? to = null) =>
        await Lead.Post(
            Route("write-quiz"),
            new
            {
                item = to ?? item,
                text,
                rules = new
                {
                    limit = (int?)null,
                    attempts = 2,
                    @using = "best",
                    shown = "at-once",
                },
                version = (await Read(to ?? item))["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );

    private async Task<JsonNode> Read(long quiz) => (await Lead.Get(Route($"items/{quiz}/quiz"))).Json;

    private static string Source(string html) => html.Split("src=\"")[1].Split('"')[0];

    private static string Asked(JsonNode quiz) => quiz["rows"]![0]!["html"]!.GetValue<string>();

    private async Task<string> Written()
    {
        var upload = await Lead.SendFile("dial.svg", Drawing);
        var reply = await Write(
            $"formatted: <p>What does <strong onclick=\"run()\">this</strong> say?<script>run()</script></p>"
                + $"<p><img src=\"/api/me/uploads/{upload}/bytes\" alt=\"A dial\"></p>\n+ rain\n- fair"
        );
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return Asked(await Read(item));
    }

    [Fact]
    public async Task What_is_asked_can_be_formatted_and_show_a_picture_to_whom_it_is_put()
    {
        var asked = await Written();
        asked.ShouldStartWith("<p>What does <strong>this</strong> say?</p><p><img src=\"/api/editions/");
        (await Lead.Get(Source(asked))).Status.ShouldBe(HttpStatusCode.OK);
        // Written again as it is shown, it is the same quiz.
        (await Write((await Read(item))["text"]!.GetValue<string>())).Json["applied"]!.GetValue<bool>().ShouldBeFalse();

        // Before it is put to them, a student has no picture of it, however they come to know what it is called.
        var own = Source(asked).Replace($"/api/editions/{School.WeatherWatch}/", $"/api/sections/{section}/", StringComparison.Ordinal);
        (await student.Get(own)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await student.Post($"/api/sections/{section}/begin-quiz", new { item }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        var put = (await student.Get($"/api/sections/{section}/items/{item}/quiz")).Json["running"]!["questions"]![0]!;
        Source(put["html"]!.GetValue<string>()).ShouldBe(own);
        (await student.Get(own)).Status.ShouldBe(HttpStatusCode.OK);
        using var other = await School.As(DemoPeople.HeldUp);
        (await other.Get(own)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await student.Get(Source(asked))).Status.ShouldBe(HttpStatusCode.NotFound);

        // What was put stays as it was, with its picture, whatever is asked since.
        (await Write("Why?\ntrue")).Status.ShouldBe(HttpStatusCode.OK);
        (await student.Get(own)).Status.ShouldBe(HttpStatusCode.OK);
        (await Verifier.Run(School.Database.Owner, TestContext.Current.CancellationToken)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_picture_of_somebody_else_is_refused_by_its_field()
    {
        var theirs = await student.SendFile("mine.svg", Drawing);
        var reply = await Write($"formatted: <p><img src=\"/api/me/uploads/{theirs}/bytes\" alt=\"\"></p>\nread");
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "text"));
        reply = await Write("formatted: <p><script>run()</script></p>\nread");
        reply.Json["title"]!.GetValue<string>().ShouldBe("Question 1 asks nothing. Write what is asked.");
    }

    [Fact]
    public async Task Questions_go_out_as_a_package_and_into_another_quiz_with_their_pictures()
    {
        var asked = await Written();
        (await Read(item))["leftOut"]!
            .AsArray()
            .Select(words => words!.GetValue<string>())
            .ShouldBe(["How many attempts there are, and which of them counts, is left out."]);
        var package = await Lead.Get(Route($"items/{item}/questions.zip"));
        package.Status.ShouldBe(HttpStatusCode.OK);
        var bytes = await package.Message.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        var upload = await Lead.SendFile("questions.zip", bytes);
        var taken = await Lead.Post(Route("take-questions"), new { upload }, Guid.NewGuid());
        taken.Status.ShouldBe(HttpStatusCode.OK, taken.Text);
        // Read again, it is the same, and its pictures are sent once.
        (await Lead.Post(Route("take-questions"), new { upload }, Guid.NewGuid())).Text.ShouldBe(taken.Text);
        var shown = Source(Asked(taken.Json));
        (await Lead.Get(shown)).Status.ShouldBe(HttpStatusCode.OK);
        (await student.Get(shown)).Status.ShouldBe(HttpStatusCode.NotFound);
        taken.Json["title"]!.GetValue<string>().ShouldBe("Reading scales");

        // Nothing is written until it is saved; then it is the same question with the same picture.
        Asked(await Read(item)).ShouldBe(asked);
        var other = await School.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                "SELECT id FROM item WHERE edition = @edition AND kind = 'quiz' AND id <> @item AND removed_at IS NULL ORDER BY id LIMIT 1",
                new { edition = School.WeatherWatch, item }
            )
        );
        (await Write(taken.Json["text"]!.GetValue<string>(), other)).Status.ShouldBe(HttpStatusCode.OK);
        Asked(await Read(other)).ShouldBe(asked.Replace($"/items/{item}/", $"/items/{other}/", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_package_that_is_none_is_refused_by_its_field()
    {
        var upload = await Lead.SendFile("questions.bin", "no zip"u8.ToArray());
        var reply = await Lead.Post(Route("take-questions"), new { upload }, Guid.NewGuid());
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "upload"));
        reply.Json["title"]!.GetValue<string>().ShouldBe("This is not a package: it is not a zip file.");
        var theirs = await student.SendFile("questions.bin", "no zip"u8.ToArray());
        (await Lead.Post(Route("take-questions"), new { upload = theirs }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.NotFound);
    }
}
