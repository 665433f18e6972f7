using System.Net;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.Reading;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Texts: what is kept of them, and their pictures, which open for whoever may read the text.</summary>
public sealed class TextTests : LeadOfASchool
{
    private static readonly byte[] Drawing =
        "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 2 1'><path d='M0 0h2'/></svg>"u8.ToArray();

    public static TheoryData<string, string> Kept =>
        new()
        {
            {
                "<table><tbody><tr><th colspan=\"2\">Wind</th></tr><tr><td>W</td><td style=\"color:red\">5</td></tr></tbody></table>",
                "<table><tbody><tr><th colspan=\"2\">Wind</th></tr><tr><td>W</td><td>5</td></tr></tbody></table>"
            },
            {
                "<table><tr><td colspan=\"9999999\" rowspan=\"-1\">a</td></tr></table>",
                "<table><tbody><tr><td>a</td></tr></tbody></table>"
            },
            { "<aside data-kind=\"warning\"><p>Mind the tide</p></aside>", "<aside data-kind=\"warning\"><p>Mind the tide</p></aside>" },
            { "<aside data-kind=\"x\" onclick=\"run()\"><p>a</p></aside>", "<aside data-kind=\"note\"><p>a</p></aside>" },
            { "<p>See <a href=\"javascript:run()\">here</a></p>", "<p>See <a>here</a></p>" },
            { "<p>a<img src=\"https://elsewhere.example/x.png\" alt=\"x\">b</p>", "<p>ab</p>" },
            { "<p>a<img src=\"file:0000\" onerror=\"run()\">b</p>", "<p>ab</p>" },
            { "<svg><script>run()</script></svg><p>a</p>", "<p>a</p>" },
            {
                "<p><math data-tex=\"\\frac{p}{h}\" onclick=\"run()\"><mfrac><mi>p</mi><mi style=\"color:red\">h</mi></mfrac></math></p>",
                "<p><math data-tex=\"\\frac{p}{h}\"><mfrac><mi>p</mi><mi>h</mi></mfrac></math></p>"
            },
            { "<p data-tex=\"x\" display=\"block\">a</p>", "<p>a</p>" },
            { "<math><mi href=\"javascript:run()\">x</mi></math>", "<math><mi>x</mi></math>" },
            { "<p><math><mtext><b>bold</b><a href=\"https://a.example\">x</a></mtext></math></p>", "<p>boldx</p>" },
            { "<p><math><mtext><table><tr><td>x</td></tr></table></mtext></math></p>", "<p>x</p>" },
            { "<p><math><annotation-xml encoding=\"text/html\"><p>x</p></annotation-xml></math></p>", "<p>x</p>" },
            { "<audio src=\"https://elsewhere.example/x.mp3\" autoplay controls></audio><p>a</p>", "<p>a</p>" },
            { "<video src=\"file:00\"><track src=\"/api/me\"><source src=\"/api/me\">x</video><p title=\"t\" controls>a</p>", "<p>a</p>" },
            { "<iframe src=\"/api/me\"></iframe><style>p{}</style><p>a</p>", "<p>a</p>" },
        };

    [Theory]
    [MemberData(nameof(Kept))]
    public void Of_a_text_only_what_is_named_is_kept(string html, string kept) => FormattedText.Canonical(html).ShouldBe(kept);

    // What one reader takes for a formula and another for markup must not change what is kept.
    [Theory]
    [InlineData("<math><mtext><table><mglyph><style><!--</style><img title=\"--&gt;&lt;img src=1 onerror=run()&gt;\">")]
    [InlineData("<math><mtext><mglyph><svg><mtext><style><path id=\"</style><img onerror=run() src>\">")]
    [InlineData("<math><annotation-xml encoding=\"text/html\"><style><img src=1 onerror=run()></style></annotation-xml></math>")]
    [InlineData("<math><mi data-tex=\"</math><img src=1 onerror=run()>\">x</mi></math>")]
    [InlineData("<p><math data-tex=\"&quot;&gt;&lt;img src=1 onerror=run()&gt;\"><mi>x</mi></math></p>")]
    [InlineData("<form><math><mtext></form><form><mglyph><style></math><img src onerror=run()>")]
    public void Kept_and_read_again_a_text_is_the_same_and_runs_nothing(string html)
    {
        var kept = FormattedText.Canonical(html);
        FormattedText.Canonical(kept).ShouldBe(kept);
        var page = new AngleSharp.Html.Parser.HtmlParser().ParseDocument(kept);
        page.QuerySelectorAll("img, style, script, svg, form").ShouldBeEmpty();
        page.All.SelectMany(element => element.Attributes)
            .ShouldAllBe(attribute => !attribute.Name.StartsWith("on", StringComparison.OrdinalIgnoreCase));
    }

    private async Task<Reply> Write(long item, string html)
    {
        var version = await School.Sql(connection =>
            connection.ExecuteScalarAsync<long>("SELECT version FROM item WHERE id = @item", new { item })
        );
        return await Lead.Post(
            Route("write-item"),
            new
            {
                item,
                html,
                version,
            },
            Guid.NewGuid()
        );
    }

    private async Task<string> Html(long item) => (await Lead.Get(Route($"items/{item}"))).Json["html"]!.GetValue<string>();

    private static string Source(string html) => html.Split("src=\"")[1].Split('"')[0];

    [Fact]
    public async Task A_picture_of_a_text_opens_for_whoever_may_read_the_text_and_for_nobody_else()
    {
        var (item, later) = (await School.Item("Cloud diary"), await School.Item("Write a warning"));
        var upload = await Lead.SendFile("front.svg", Drawing);
        var sent = $"/api/me/uploads/{upload}/bytes";
        using var student = await School.As(DemoPeople.OnTrack);
        (await Lead.Get(sent)).Status.ShouldBe(HttpStatusCode.OK);
        (await student.Get(sent)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Write(item, $"<p>Look:</p><img src=\"{sent}\" alt=\"A warm front\">")).Status.ShouldBe(HttpStatusCode.OK);

        var html = await Html(item);
        html.ShouldContain("alt=\"A warm front\"");
        var picture = await Lead.Get(Source(html));
        (picture.Status, picture.Message.Content.Headers.ContentType!.MediaType).ShouldBe((HttpStatusCode.OK, "image/svg+xml"));
        var section = School.Ids["section:9 Alder"];
        var own = Source((await student.Get($"/api/sections/{section}/items/{item}")).Json["html"]!.GetValue<string>());
        (await student.Get(own)).Status.ShouldBe(HttpStatusCode.OK);
        (await student.Get(Source(html))).Status.ShouldBe(HttpStatusCode.NotFound);
        // Before it opens, through the same student's eyes, it is not there; nor under an item that has not this text.
        var view = $"as=student:{School.Ids["person:" + DemoPeople.OnTrack]}&at=2026-09-03T09:00:00Z";
        (await Lead.Get($"{own}?{view}")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await student.Get(own.Replace($"/items/{item}/", $"/items/{later}/", StringComparison.Ordinal))).Status.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await student.Get(own[..^64] + new string('z', 64))).Status.ShouldBe(HttpStatusCode.NotFound);

        // Saved again as the page shows it, it stays the same text; copied to another item of the course it is there too.
        (await Write(item, html)).Json["applied"]!.GetValue<bool>().ShouldBeFalse();
        (await Write(later, html)).Status.ShouldBe(HttpStatusCode.OK);
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task To_know_what_a_picture_is_called_is_no_right_to_it()
    {
        var item = await School.Item("Cloud diary");
        // Kept here, but in no text of this course: a student's own, say.
        using var student = await School.As(DemoPeople.OnTrack);
        var theirs = await student.SendFile("mine.svg", Drawing);
        var hash = await School.Sql(connection =>
            connection.ExecuteScalarAsync<string>("SELECT encode(file, 'hex') FROM upload WHERE id = @theirs", new { theirs })
        );
        foreach (var source in new[] { $"file:{hash}", $"/api/editions/1/items/1/pictures/{hash}", $"/api/me/uploads/{theirs}/bytes" })
        {
            var refused = await Write(item, $"<img src=\"{source}\" alt=\"\">");
            (refused.Status, refused.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "html"), source);
        }
        (await Write(item, $"<p>a</p><img src=\"/api/me/uploads/{new string('-', 36)}/bytes\">")).Status.ShouldBe(HttpStatusCode.OK);
        TextBlocks.Of(await Html(item)).Single().Html.ShouldBe("<p>a</p>");
        var notes = await Lead.SendFile("notes.txt", "no picture"u8.ToArray());
        (await Write(item, $"<img src=\"/api/me/uploads/{notes}/bytes\">")).Json["title"]!
            .GetValue<string>()
            .ShouldBe("“notes.txt” is not a picture. Add it to the files instead.");
    }

    [Fact]
    public async Task A_sound_and_a_film_stand_in_a_text_for_those_who_read_it_and_are_sent_from_where_one_wants_to_listen()
    {
        var item = await School.Item("Cloud diary");
        byte[] wave = [.. "RIFF"u8, 36, 4, 0, 0, .. "WAVEfmt "u8, .. new byte[1024]];
        var horn = await Lead.SendFile("foghorn.wav", wave);
        (
            await Write(
                item,
                $"<p>Listen.</p><audio src=\"/api/me/uploads/{horn}/bytes\" autoplay onplay=\"run()\" title=\" A foghorn \"></audio>"
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        using var student = await School.As(DemoPeople.OnTrack);
        var html = string.Concat(
            TextBlocks
                .Of((await student.Get($"/api/sections/{School.Ids["section:9 Alder"]}/items/{item}")).Json["html"]!.GetValue<string>())
                .Select(block => block.Html)
        );
        html.ShouldMatch(
            "^<p>Listen.</p><audio src=\"[^\"]+/pictures/[0-9a-f]{64}\" title=\"A foghorn\" controls=\"\" preload=\"metadata\"></audio>$"
        );
        var address = html.Split('"')[1];
        var part = await student.Send(HttpMethod.Get, address, null, request => request.Headers.Range = new(4, 7));
        (part.Status, part.Message.Content.Headers.ContentType!.MediaType).ShouldBe((HttpStatusCode.PartialContent, "audio/wav"));
        (await part.Message.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)).ShouldBe(wave[4..8]);
        foreach (var element in new[] { "img", "video" })
            (await Write(item, $"<{element} src=\"/api/me/uploads/{horn}/bytes\">")).Json["title"]!
                .GetValue<string>()
                .ShouldContain("“foghorn.wav” is not a ");
    }
}
