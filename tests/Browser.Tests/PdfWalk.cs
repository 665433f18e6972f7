using System.Text;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A PDF file is read on the page that has it, page by page, with nothing fetched from elsewhere.</summary>
public sealed class PdfWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    // Two pages in a face that the file does not bring along.
    private static byte[] Pdf(params string[] pages)
    {
        var pdf = new StringBuilder("%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n");
        var kids = string.Join(' ', pages.Select((_, n) => $"{10 + (2 * n)} 0 R"));
        pdf.Append($"2 0 obj<</Type/Pages/Kids[{kids}]/Count {pages.Length}>>endobj\n")
            .Append("3 0 obj<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>endobj\n");
        foreach (var (words, n) in pages.Select((words, n) => (words, n)))
        {
            var drawn = $"BT /F1 30 Tf 40 100 Td ({words}) Tj ET";
            pdf.Append($"{10 + (2 * n)} 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Contents {11 + (2 * n)} 0 R")
                .Append("/Resources<</Font<</F1 3 0 R>>>>>>endobj\n")
                .Append($"{11 + (2 * n)} 0 obj<</Length {drawn.Length}>>stream\n{drawn}\nendstream endobj\n");
        }
        return Encoding.ASCII.GetBytes(pdf.Append("trailer<</Root 1 0 R>>\n%%EOF").ToString());
    }

    [Fact]
    public async Task A_pdf_is_shown_when_asked_for_and_read_aloud_and_one_that_is_damaged_says_so()
    {
        var folder = Directory.CreateTempSubdirectory("polycline-").FullName;
        await File.WriteAllBytesAsync(
            Path.Combine(folder, "tides.pdf"),
            Pdf("High water", "Low water"),
            TestContext.Current.CancellationToken
        );
        await File.WriteAllTextAsync(Path.Combine(folder, "broken.pdf"), "%PDF-1.4\nnothing more", TestContext.Current.CancellationToken);
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        orla.Press(orla.See("//button[normalize-space() = 'Cloud diary']"));
        orla.See("div[role=group][aria-label='Add files']");
        orla.All("input[type=file][aria-label='Add files']")
            .Single()
            .SendKeys($"{Path.Combine(folder, "tides.pdf")}\n{Path.Combine(folder, "broken.pdf")}");
        orla.Press(orla.See("//button[normalize-space() = 'Add 2 files']"));
        orla.Press(orla.See("//button[@aria-label = 'Show tides.pdf']"));
        orla.SeeText("page 1 of 2");
        orla.Until(() => Reads(orla) == "High water", "the words of the first page");
        Drawn(orla).ShouldBeTrue();
        orla.IsAccessible("a PDF file");
        orla.Press(orla.See("//button[normalize-space() = 'next page']"));
        orla.Until(() => Reads(orla) == "Low water", "the words of the second page");
        orla.HeardNoComplaint();
        orla.Press(orla.See("//button[@aria-label = 'Show broken.pdf']"));
        orla.SeeText("It can’t be shown here. Save the file to read it.");
    }

    private static string Reads(Person person) => person.Ask<string>("return document.querySelector('.pdf .said-only')?.textContent ?? ''");

    // Something dark on the white.
    private static bool Drawn(Person person) =>
        person.Ask<bool>(
            """
            const canvas = document.querySelector('.pdf canvas')
            const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height)
            return data.some((value, at) => at % 4 === 0 && value < 80)
            """
        );
}
