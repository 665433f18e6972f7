using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.Reading;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A text that a team writes: saved as one types, merged block by block, put in place or dropped.</summary>
public sealed class TextDraftTests : LeadOfASchool
{
    private const string Began = "<p data-block=\"aaaaaa\">Look up.</p><p data-block=\"bbbbbb\">Write it down.</p>";

    private Caller co = null!;
    private long item;

    protected override async Task Prepare()
    {
        co = await School.As(DemoPeople.CoTeacher);
        item = await School.Item("Cloud diary");
        await PutInPlace(Began);
    }

    private async Task PutInPlace(string html) =>
        await Post(
            "write-item",
            new
            {
                item,
                html,
                version = (await Lead.Get(Route($"items/{item}"))).Json["version"]!.GetValue<long>(),
            }
        );

    private async Task<JsonNode> Text(Caller who) => (await who.Get(Route($"items/{item}/text"))).Json;

    private Task<Reply> Write(Caller who, JsonNode began, string html) =>
        who.Post(
            Route("write-text"),
            new
            {
                item,
                @base = began["base"]!.GetValue<string>(),
                html,
            },
            Guid.NewGuid()
        );

    private async Task<string> StudentReads()
    {
        using var student = await School.As(DemoPeople.OnTrack);
        return (await student.Get($"/api/sections/{School.Ids["section:9 Alder"]}/items/{item}")).Json["html"]!.GetValue<string>();
    }

    [Fact]
    public async Task Students_read_the_text_as_it_was_until_it_is_put_in_place()
    {
        var began = await Text(Lead);
        (began["html"]!.GetValue<string>(), began["writing"]).ShouldBe((Began, null));
        var saved = (await Write(Lead, began, Began.Replace("Look up.", "Look up at noon."))).Json;
        (saved["base"]!.GetValue<string>(), saved["twice"]!.GetValue<int>()).ShouldBe((saved["now"]!.GetValue<string>(), 0));
        (await StudentReads()).ShouldContain("Look up.");
        var read = await Text(co);
        read["html"]!.GetValue<string>().ShouldContain("Look up at noon.");
        read["writing"]!["by"]!.GetValue<string>().ShouldBe(DemoPeople.Lead);
        (await co.Get(Route($"items/{item}"))).Json["writing"].ShouldNotBeNull();

        // Put in place, nobody is writing any more; what somebody else wrote since would still be there.
        await PutInPlace(read["html"]!.GetValue<string>());
        (await End(Lead, began)).ShouldBeFalse();
        (await End(Lead, read)).ShouldBeTrue();
        (await StudentReads()).ShouldContain("Look up at noon.");
        (await Text(co))["writing"].ShouldBeNull();
        (await Lead.Get(Route($"items/{item}"))).Json["writing"].ShouldBeNull();
    }

    private async Task<bool> End(Caller who, JsonNode read) =>
        (await who.Post(Route("end-text"), new { item, @base = read["base"]!.GetValue<string>() }, Guid.NewGuid())).Json[
            "ended"
        ]!.GetValue<bool>();

    [Fact]
    public async Task Two_at_once_are_merged_by_blocks_and_the_same_block_stands_twice()
    {
        var began = await Text(Lead);
        await Write(co, began, Began.Replace("Write it down.", "Write it in the log."));
        var mine = (await Write(Lead, began, $"<h2>Clouds</h2>{Began.Replace("Look up.", "Look up at noon.")}")).Json;
        mine["now"]!.GetValue<string>().ShouldNotBe(mine["base"]!.GetValue<string>());
        var both = await Text(Lead);
        both["base"]!.GetValue<string>().ShouldBe(mine["now"]!.GetValue<string>());
        TextBlocks
            .Of(both["html"]!.GetValue<string>())
            .Select(block => block.Html)
            .ShouldBe(["<h2>Clouds</h2>", "<p>Look up at noon.</p>", "<p>Write it in the log.</p>"]);
        // Going on from what one sent, and on what both have, and both on the same block.
        var here = both["html"]!.GetValue<string>();
        (await Write(co, both, here.Replace("in the log", "in the blue log"))).Json["twice"]!.GetValue<int>().ShouldBe(0);
        (await Write(Lead, both, here.Replace("in the log", "on the card"))).Json["twice"]!.GetValue<int>().ShouldBe(1);
        TextBlocks
            .Of((await Text(co))["html"]!.GetValue<string>())
            .Select(block => block.Html)
            .ShouldBe(["<h2>Clouds</h2>", "<p>Look up at noon.</p>", "<p>Write it in the blue log.</p>", "<p>Write it on the card.</p>"]);
    }

    [Fact]
    public async Task What_is_written_on_a_text_that_was_put_in_place_or_dropped_meanwhile_is_not_lost()
    {
        var began = await Text(co);
        await Write(Lead, began, Began.Replace("Look up.", "Look up at noon."));
        var theirs = await Text(co);
        // Dropped by one while the other has it open.
        (await End(Lead, theirs)).ShouldBeTrue();
        await Write(co, theirs, theirs["html"]!.GetValue<string>().Replace("Write it down.", "Draw it."));
        TextBlocks
            .Of((await Text(Lead))["html"]!.GetValue<string>())
            .Select(block => block.Html)
            .ShouldBe(["<p>Look up.</p>", "<p>Draw it.</p>"]);
        // A text that nobody has any more: nothing is known of what was changed, so all that differs stands.
        var unknown = JsonNode.Parse($$"""{ "base": "{{new string('0', 64)}}" }""")!;
        (await Write(co, unknown, Began)).Json["twice"]!.GetValue<int>().ShouldBe(1);
    }

    [Fact]
    public async Task Of_many_versions_the_last_are_kept_and_the_texts_of_the_others_go()
    {
        var began = await Text(Lead);
        for (var n = 0; n < 130; n++)
            began = (await Write(Lead, began, $"<p data-block=\"aaaaaa\">Cloud {n}</p>")).Json;
        (
            await School.Sql(connection =>
                connection.QuerySingleAsync<(int, int)>(
                    "SELECT (SELECT count(*) FROM text_draft_version)::int, (SELECT count(*) FROM body WHERE kind = 'draft')::int"
                )
            )
        ).ShouldBe((100, 100));
        (await Text(Lead))["html"]!.GetValue<string>().ShouldContain("Cloud 129");
    }

    [Fact]
    public async Task A_picture_opens_for_the_team_in_the_text_being_written_and_for_students_once_it_is_in_place()
    {
        var upload = await Lead.SendFile(
            "sky.svg",
            "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 2 1'><path d='M0 0h2'/></svg>"u8.ToArray()
        );
        await Write(Lead, await Text(Lead), $"{Began}<p><img src=\"/api/me/uploads/{upload}/bytes\" alt=\"The sky\"></p>");
        var html = (await Text(co))["html"]!.GetValue<string>();
        var address = html.Split("src=\"")[1].Split('"')[0];
        (await co.Get(address)).Status.ShouldBe(HttpStatusCode.OK);
        using var student = await School.As(DemoPeople.OnTrack);
        var theirs = address.Replace($"/api/editions/{School.WeatherWatch}", $"/api/sections/{School.Ids["section:9 Alder"]}");
        (await student.Get(address)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await student.Get(theirs)).Status.ShouldBe(HttpStatusCode.NotFound);
        // Whoever goes on writing did not send the picture, and puts it in place all the same.
        await PutInPlace(html);
        (await student.Get(theirs)).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Theory]
    [InlineData("base", "x", "Name the text")]
    [InlineData("html", "<b>", "deep")]
    public async Task What_cannot_be_a_text_is_refused_by_its_field(string field, string value, string says)
    {
        var body = new JsonObject
        {
            ["item"] = item,
            ["base"] = "",
            ["html"] = "<p>a</p>",
        };
        body[field] = field == "html" ? string.Concat(Enumerable.Repeat(value, 200)) : value;
        var refused = await Lead.Post(Route("write-text"), body, Guid.NewGuid());
        refused.Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        refused.Json["field"]!.GetValue<string>().ShouldBe(field);
        refused.Json["title"]!.GetValue<string>().ShouldContain(says);
    }

    [Fact]
    public async Task Whoever_only_reads_or_teaches_sections_alone_writes_no_text_of_the_course()
    {
        foreach (var role in new[] { "reader", "sections" })
        {
            await School.Sql(connection =>
                connection.ExecuteAsync(
                    "UPDATE master_member m SET role = @role FROM person p WHERE p.id = m.person AND p.name = @CoTeacher",
                    new { role, DemoPeople.CoTeacher }
                )
            );
            (await Write(co, await Text(co), "<p>a</p>")).Status.ShouldBe(HttpStatusCode.Forbidden, role);
        }
    }
}
