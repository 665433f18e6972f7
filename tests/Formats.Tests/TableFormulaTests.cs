using System.Text;
using Polycline.Formats.Files;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>What a spreadsheet would carry out is found, and what people write in tables is let be.</summary>
public sealed class TableFormulaTests
{
    [Theory]
    [InlineData("day,wind\nMon,=1+1\n", "=1+1")]
    [InlineData("a;b\n1;\"=HYPERLINK(\"\"https://elsewhere.example\"\")\"\n", "=HYPERLINK(https://elsewhere.example)")]
    [InlineData("a\tb\n1\t@SUM(A1)", "@SUM(A1)")]
    [InlineData("x, +cmd|' /C calc'!A0", "+cmd|' /C calc'!A0")]
    [InlineData("-(1)", "-(1)")]
    [InlineData("\uFEFF=A1", "=A1")]
    public async Task Formulas_are_found_wherever_they_stand(string text, string formula)
    {
        TableFormulas.In(text).ShouldBe(formula);
        using var bytes = new MemoryStream(Encoding.UTF8.GetBytes(text));
        (await TableFormulas.In(bytes, TestContext.Current.CancellationToken)).ShouldBe(formula);
    }

    [Theory]
    [InlineData("day,temperature\nMon,-3.5\nTue,+4\nWed,-\nThu,– none\n")]
    [InlineData("\"he said \"\"= or @\"\" twice, = yes\",2\n")]
    [InlineData("a = b,c@d.example,1-2,=\n")]
    [InlineData("")]
    public void Numbers_dashes_and_sentences_are_not_formulas(string text) => TableFormulas.In(text).ShouldBeNull();

    [Fact]
    public async Task One_at_the_very_end_of_a_long_table_is_found()
    {
        var text = string.Concat(Enumerable.Repeat("1,2,3\n", 100_000)) + "=NOW()";
        using var bytes = new MemoryStream(Encoding.UTF8.GetBytes(text));
        (await TableFormulas.In(bytes, TestContext.Current.CancellationToken)).ShouldBe("=NOW()");
    }
}
