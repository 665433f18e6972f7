using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Files;
using Shouldly;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Writer;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A course is found by the words of its titles, texts and files, and a student finds only what they may read.</summary>
public sealed class SearchTests : LeadOfASchool
{
    private string InCourse(string rest) => $"/api/editions/{School.WeatherWatch}/{rest}";

    private string InAlder(string rest) => $"/api/sections/{School.Ids["section:9 Alder"]}/{rest}";

    private async Task<List<JsonNode>> Find(string words) => Hits(await Lead.Get(InCourse($"search?words={Uri.EscapeDataString(words)}")));

    private static List<JsonNode> Hits(Reply reply)
    {
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return [.. reply.Json["hits"]!.AsArray().Select(hit => hit!)];
    }

    private static string Title(JsonNode hit) => hit["title"]!.GetValue<string>();

    private async Task Give(string title, string file, byte[] bytes)
    {
        var reply = await Lead.Post(
            InCourse("attach-files"),
            new { item = await School.Item(title), uploads = new[] { await Lead.SendFile(file, bytes) } },
            Guid.NewGuid()
        );
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        await School.Instance.Services.GetRequiredService<FileWords>().Sweep(default);
    }

    private static byte[] Pdf(string words)
    {
        var pdf = new PdfDocumentBuilder();
        var face = pdf.AddStandard14Font(Standard14Font.Helvetica);
        pdf.AddPage(UglyToad.PdfPig.Content.PageSize.A4).AddText(words, 12, new PdfPoint(50, 700), face);
        return pdf.Build();
    }

    [Fact]
    public async Task Words_are_found_in_titles_texts_and_files_and_the_passage_says_where()
    {
        await Give("Cloud diary", "sea-marks.pdf", Pdf("The bellbuoy off the spit rings in a swell."));
        await Give("Cloud diary", "list.csv", "harbour,quickworks\nFenwater,3"u8.ToArray());
        // As one types: the beginning of a word, and any of its forms.
        Title((await Find("isobars by hand"))[0]).ShouldBe("Isobars by hand");
        (await Find("reading scales"))[0]["place"]!.GetValue<string>().ShouldBe("title");
        var inText = (await Find("use the feedback")).First(hit => Title(hit) == "Welcome to Weather Watch");
        inText["place"]!.GetValue<string>().ShouldBe("text");
        inText["passage"]!.AsArray().ShouldContain(piece => piece!["isSought"]!.GetValue<bool>());
        var inPdf = (await Find("bellbuo")).ShouldHaveSingleItem();
        (Title(inPdf), inPdf["file"]!.GetValue<string>()).ShouldBe(("Cloud diary", "sea-marks.pdf"));
        string.Concat(inPdf["passage"]!.AsArray().Select(piece => piece!["text"]!.GetValue<string>())).ShouldContain("off the spit");
        (await Find("quickworks")).ShouldHaveSingleItem()["file"]!.GetValue<string>().ShouldBe("list.csv");
        (await Find("sea marks")).Select(Title).ShouldContain("Cloud diary");
        // Every word, wherever in the item it stands; what is in none is not found.
        (await Find("diary bellbuoy")).ShouldHaveSingleItem();
        (await Find("diary bellbuoy tramway")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("")]
    [InlineData("& | ! ( ) :* <-> ' \\ \"")]
    [InlineData("the and of")]
    [InlineData("'; DROP TABLE item; --")]
    [InlineData("\u0001\u0002\ud83c\udf0a")]
    public async Task Whatever_is_typed_is_only_words(string words) =>
        (await Lead.Get(InCourse($"search?words={Uri.EscapeDataString(words)}"))).Status.ShouldBe(HttpStatusCode.OK);

    [Fact]
    public async Task More_than_anybody_types_is_refused() =>
        (await Lead.Get(InCourse($"search?words={new string('x', 101)}"))).Json["field"]!.GetValue<string>().ShouldBe("words");

    [Fact]
    public async Task A_student_finds_what_they_may_read_and_nothing_else_and_what_opens_is_found_then()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var later = await School.Item("Write a warning");
        await Give("Cloud diary", "open.txt", "An albatross over the pier."u8.ToArray());
        await Give("Write a warning", "kept.txt", "An albatross in the storm."u8.ToArray());
        (await Find("albatross")).Select(Title).ShouldBe(["Cloud diary", "Write a warning"], ignoreOrder: true);
        Hits(await imke.Get(InAlder("search?words=albatross"))).Select(Title).ShouldBe(["Cloud diary"]);
        // Through the student's eyes the team finds the same.
        var eyes = $"as=student:{School.Ids["person:" + DemoPeople.OnTrack]}";
        Hits(await Lead.Get(InAlder($"search?words=albatross&{eyes}"))).Select(Title).ShouldBe(["Cloud diary"]);
        Hits(await imke.Get(InAlder("search?words=warning"))).Select(hit => hit["item"]!.GetValue<long>()).ShouldNotContain(later);
    }

    [Theory]
    [InlineData("broken.pdf", "%PDF-1.7\n1 0 obj << /Type /Catalog /Pages 1 0 R >> endobj trailer << /Root 1 0 R >>")]
    [InlineData("cut.pdf", "%PDF-1.4\n%âãÏÓ\nxref\n0 99999999\n")]
    [InlineData("deep.svg", "<svg xmlns='http://www.w3.org/2000/svg'><text>plumbline</text></svg>")]
    public async Task A_file_that_cannot_be_read_is_tried_once_and_holds_nothing_up(string name, string content)
    {
        await Give("Cloud diary", name, Encoding.UTF8.GetBytes(content));
        (await School.Instance.Services.GetRequiredService<FileWords>().Sweep(default)).ShouldBe(0);
        (await Find("plumbline")).Count.ShouldBe(name == "deep.svg" ? 1 : 0);
        await Give("Cloud diary", "after.txt", "gunwale"u8.ToArray());
        (await Find("gunwale")).ShouldHaveSingleItem();
    }
}
