using Polycline.Core.Enrolling;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Enrolling;

/// <summary>Titles that are the same but for case, spacing, punctuation and the way a letter is encoded are one title.</summary>
public sealed class TitleFoldingTests
{
    [Theory]
    [InlineData("Cloud diary", "  cloud-DIARY!", true)]
    [InlineData("Straße", "STRASSE", true)]
    [InlineData("ﬁlm ①", "Film 1", true)]
    [InlineData("Café", "cafe\u0301", true)]
    [InlineData("q\u0323\u0307", "q\u0307\u0323", true)]
    [InlineData("ΣΊΣΥΦΟΣ", "σίσυφος", true)]
    [InlineData("각", "\u1100\u1161\u11A8", true)]
    [InlineData("각", "\uAC00\u11A8", true)]
    [InlineData("İ", "i\u0307", true)]
    [InlineData("a\u200Bb", "ab", true)]
    [InlineData("Café", "Cafe", false)]
    [InlineData("A + B", "A B", false)]
    [InlineData("Part 1", "Part 2", false)]
    [InlineData("q\u0307\u0307", "q\u0307", false)]
    public void Two_titles_are_one_or_not(string one, string other, bool same) =>
        (TitleFolding.Key(one) == TitleFolding.Key(other)).ShouldBe(same);

    [Theory]
    [InlineData("?!")]
    [InlineData(" \t\u00A0")]
    [InlineData("")]
    public void Of_a_title_without_letters_nothing_is_left(string title) => TitleFolding.Key(title).ShouldBeEmpty();

    // What the tables compose, the runtime composes too where it knows of it.
    [Fact]
    public void Letters_come_out_composed()
    {
        TitleFolding.Key("e\u0301").ShouldBe("é");
        TitleFolding.Key("\u1112\u1161\u11AB").ShouldBe("한");
        TitleFolding.Key("\u212B").ShouldBe("å");
    }
}
