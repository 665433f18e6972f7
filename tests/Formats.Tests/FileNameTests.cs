using Polycline.Formats.Files;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Names that are made for files.</summary>
public sealed class FileNameTests
{
    [Theory]
    [InlineData("3.02 What is up?", "sheet.csv", "3.02 What is up-.csv")]
    [InlineData("../../etc/passwd", "a.txt", "-..-etc-passwd.txt")]
    [InlineData("fdp\u202Etxt", "a.pdf", "fdptxt.pdf")]
    [InlineData("CON", "a.txt", "copy.txt")]
    [InlineData(" . ", "a.txt", "copy.txt")]
    [InlineData("notes", "no ending", "notes")]
    public void Every_computer_can_save_them(string words, string like, string name)
    {
        FileNames.Made(words, like).ShouldBe(name);
        FileNames.Fault(name).ShouldBeNull();
    }

    [Fact]
    public void However_long_the_words_the_ending_stays_and_a_number_fits()
    {
        var name = FileNames.Made(new string('w', 400), "a.pptx");
        name.ShouldEndWith(".pptx");
        var second = FileNames.Free(name, [name]);
        second.ShouldEndWith(" (2).pptx");
        FileNames.Fault(second).ShouldBeNull();
    }
}
