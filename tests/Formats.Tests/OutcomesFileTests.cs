using Polycline.Formats;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>A school's outcomes from a file.</summary>
public sealed class OutcomesFileTests
{
    [Theory]
    [InlineData("code,outcome,subject\r\nG1,\"Read a gauge, and write it down\",Geography\r\nG2,Name a cloud,\r\n")]
    [InlineData("\uFEFFSubject;Number;Description\nGeography;G1;Read a gauge, and write it down\n\n;G2;Name a cloud\n")]
    [InlineData("Code\tText\tArea\nG1\tRead a gauge, and write it down\tGeography\n\t\t\nG2\t Name a cloud \t")]
    public void It_is_read_by_its_headings_in_the_order_of_the_file(string text) =>
        OutcomesFile.Read(text).ShouldBe([new("G1", "Read a gauge, and write it down", "Geography"), new("G2", "Name a cloud", "")]);

    [Theory]
    [InlineData("", "The file is empty.")]
    [InlineData("code,outcome\n", "only headings")]
    [InlineData("a,b\nG1,Read", "No column is headed “code”. The first row says: a, b.")]
    [InlineData("code,b\nG1,Read", "No column is headed “outcome”.")]
    [InlineData("code,outcome\nG1,Read\nG1,Write", "Rows 2 and 3 have the same code, G1.")]
    [InlineData("code,outcome\nG1,", "Row 2 has no outcome")]
    [InlineData("code,outcome\n,Read", "Row 2 has no code")]
    [InlineData("code,outcome\nG1,=HYPERLINK(1)", "formula")]
    [InlineData("code,outcome\nG1,Re\u0001ad", "Row 2 has no outcome, or one that cannot be read.")]
    public void What_is_no_list_says_why(string text, string why) =>
        Should.Throw<OutcomesFileException>(() => OutcomesFile.Read(text)).Message.ShouldContain(why);

    [Fact]
    public void Codes_words_subjects_and_their_number_are_bounded()
    {
        string Of(int code, int words, int subject) =>
            $"code,outcome,subject\n{new string('c', code)},{new string('w', words)},{new string('s', subject)}\n";
        OutcomesFile.Read(Of(40, 500, 80)).Count.ShouldBe(1);
        foreach (
            var (text, what) in new[] { (Of(41, 1, 1), "a code can"), (Of(1, 501, 1), "an outcome can"), (Of(1, 1, 81), "the subject") }
        )
            Should.Throw<OutcomesFileException>(() => OutcomesFile.Read(text)).Message.ShouldContain($"Row 2: {what}");
        string Many(int n) => "code,outcome\n" + string.Concat(Enumerable.Range(1, n).Select(at => $"G{at},Read\n"));
        OutcomesFile.Read(Many(OutcomesFile.Most)).Count.ShouldBe(OutcomesFile.Most);
        Should.Throw<OutcomesFileException>(() => OutcomesFile.Read(Many(OutcomesFile.Most + 1))).Message.ShouldContain("more than 2,000");
    }
}
