using CsCheck;
using Polycline.Core.Merging;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Merging;

/// <summary>Two who change one text at once.</summary>
public sealed class WordMergeTests
{
    [Theory]
    [InlineData("It rained all day.", "It rained hard all day.", "It rained all day, they said.", "It rained hard all day, they said.")]
    [InlineData("Grey sky", "Grey sky", "Blue sky", "Blue sky")]
    [InlineData("one two three", "one three", "one two three four", "one three four")]
    [InlineData("", "", "new", "new")]
    // Both said the same.
    [InlineData("one two", "one 2", "one 2", "one 2")]
    [InlineData("a b c d e", "A b c d e", "a b c d E", "A b c d E")]
    public void What_both_did_stands_in_it(string before, string mine, string theirs, string merged)
    {
        WordMerge.Of(before, mine, theirs).ShouldBe(merged);
        WordMerge.Of(before, theirs, mine).ShouldBe(merged);
    }

    [Theory]
    [InlineData("Grey sky", "Blue sky", "Red sky")]
    [InlineData("Grey sky", "Grey", "Grey skies")]
    [InlineData("", "mine", "theirs")]
    [InlineData("one two", "one and two", "one or two")]
    public void The_same_words_changed_twice_cannot_be_put_together(string before, string mine, string theirs)
    {
        WordMerge.Of(before, mine, theirs).ShouldBeNull();
        WordMerge.Of(before, theirs, mine).ShouldBeNull();
    }

    private static readonly Gen<string> Text = Gen.Int[0, 7]
        .Select(n => new[] { "rain", "sun", "fog", "wind", " ", ", ", ".", "\n" }[n])
        .Array[0, 12]
        .Select(words => string.Concat(words));

    [Fact]
    public void Sides_may_be_exchanged_and_whoever_changed_nothing_changes_nothing() =>
        Gen.Select(Text, Text, Text)
            .Sample(
                (before, mine, theirs) =>
                {
                    WordMerge.Of(before, mine, theirs).ShouldBe(WordMerge.Of(before, theirs, mine));
                    WordMerge.Of(before, before, theirs).ShouldBe(theirs);
                    WordMerge.Of(before, mine, before).ShouldBe(mine);
                    WordMerge.Of(before, mine, mine).ShouldBe(mine);
                    // At either end of what neither touches, both are whole in it.
                    WordMerge.Of("hail", $"{mine}|hail", $"hail|{theirs}").ShouldBe($"{mine}|hail|{theirs}");
                },
                iter: 2000
            );
}
