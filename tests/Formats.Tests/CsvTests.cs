using System.Text;
using Polycline.Formats;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Tables for spreadsheets.</summary>
public sealed class CsvTests
{
    [Fact]
    public void Spreadsheets_read_every_letter_and_every_cell_as_it_is()
    {
        var bytes = Csv.Write([
            ["code", "title", "due"],
            ["3.02", "Say \"stratus\", and why", null],
            ["3.03", "Nuées\nbasses", "Thu 22 Oct"],
        ]);
        bytes[..3].ShouldBe(Encoding.UTF8.Preamble.ToArray());
        Encoding
            .UTF8.GetString(bytes[3..])
            .ShouldBe("code,title,due\r\n3.02,\"Say \"\"stratus\"\", and why\",\r\n3.03,\"Nuées\nbasses\",Thu 22 Oct\r\n");
    }

    [Theory]
    [InlineData("=HYPERLINK(\"https://elsewhere.example\")")]
    [InlineData("+1")]
    [InlineData("-1+1")]
    [InlineData("@SUM(A1)")]
    public void What_begins_like_a_formula_is_not_carried_out(string title) =>
        Encoding
            .UTF8.GetString(
                Csv.Write([
                    [title],
                ])[3..]
            )
            .TrimStart('"')
            .ShouldStartWith("'");

    [Fact]
    public void No_rows_are_an_empty_table() => Csv.Write([]).Length.ShouldBeLessThanOrEqualTo(3);
}
