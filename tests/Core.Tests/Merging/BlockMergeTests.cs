using CsCheck;
using Polycline.Core.Merging;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Merging;

/// <summary>Two people who write in one text, put together block by block. The next edition, part C, 4 and 5.</summary>
public sealed class BlockMergeTests
{
    // "a b:x c" is three blocks, of which b says x and the others what they are called.
    private static TextBlock[] Text(string blocks) =>
        [
            .. blocks
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(block => block.Split(':'))
                .Select(parts => new TextBlock(parts[0], parts[^1])),
        ];

    private static string Words(IEnumerable<TextBlock> blocks) =>
        string.Join(' ', blocks.Select(block => block.Id == block.Html ? block.Id : $"{block.Id}:{block.Html}"));

    private static MergedText Merged(string before, string mine, string theirs) =>
        BlockMerge.Of(Text(before), Text(mine), Text(theirs), block => $"{block.Id}'");

    [Theory]
    // Each changed another block.
    [InlineData("a b c", "a:x b c", "a b c:y", "a:x b c:y")]
    // Added by both, at different places and at the same.
    [InlineData("a b", "m a b", "a t b", "m a t b")]
    [InlineData("a b", "a m n b", "a t b", "a m n t b")]
    [InlineData("", "m", "t", "m t")]
    // Removed by one, untouched by the other.
    [InlineData("a b c", "a c", "a b c:y", "a c:y")]
    // Moved by one.
    [InlineData("a b c", "c a b", "a b:y c", "c a b:y")]
    [InlineData("a b c", "a b c", "c b a", "c b a")]
    [InlineData("a b c", "b a c", "a c b t", "b t a c")]
    // Added by both alike.
    [InlineData("a", "a n", "a n", "a n")]
    public void What_each_did_stands_in_it(string before, string mine, string theirs, string merged)
    {
        var found = Merged(before, mine, theirs);
        Words(found.Blocks).ShouldBe(merged);
        found.Twice.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("a b", "a:x b", "a:y b", "a:y a':x b", "a")]
    [InlineData("a b", "b", "a:y b", "a:y b", "a")]
    [InlineData("a b", "a:x b", "b", "a:x b", "a")]
    [InlineData("", "n:x", "n:y", "n:y n':x", "n")]
    public void What_both_changed_stands_twice_and_what_one_removed_stays(
        string before,
        string mine,
        string theirs,
        string merged,
        string twice
    )
    {
        var found = Merged(before, mine, theirs);
        Words(found.Blocks).ShouldBe(merged);
        found.Twice.ShouldBe([twice]);
    }

    private static readonly Gen<TextBlock[]> Texts = Gen.Select(Gen.Int[0, 6], Gen.Int[0, 2])
        .Array[0, 7]
        .Select(drawn =>
            drawn.DistinctBy(block => block.Item1).Select(block => new TextBlock($"b{block.Item1}", $"w{block.Item2}")).ToArray()
        );

    [Fact]
    public void Nothing_that_either_wrote_is_lost_and_whoever_changed_nothing_changes_nothing()
    {
        var twice = 0;
        Gen.Select(Texts, Texts, Texts)
            .Sample(
                (before, mine, theirs) =>
                {
                    var merged = BlockMerge.Of(before, mine, theirs, block => $"{block.Id}'");
                    merged.Blocks.Select(block => block.Id).ShouldBeUnique();
                    foreach (var written in mine.Concat(theirs).Except(before))
                        merged.Blocks.Select(block => block.Html).ShouldContain(written.Html);
                    // What neither removed is there, and nothing is there that neither has.
                    merged
                        .Blocks.Select(block => block.Id.TrimEnd('\''))
                        .Distinct()
                        .Except(mine.Concat(theirs).Select(block => block.Id))
                        .ShouldBeEmpty();
                    mine.Select(block => block.Id)
                        .Intersect(theirs.Select(block => block.Id))
                        .Except(merged.Blocks.Select(block => block.Id))
                        .ShouldBeEmpty();
                    BlockMerge.Of(before, before, theirs, block => block.Id).Blocks.ShouldBe(theirs);
                    BlockMerge.Of(before, mine, before, block => block.Id).Blocks.ShouldBe(mine);
                    BlockMerge.Of(before, mine, mine, block => block.Id).Blocks.ShouldBe(mine);
                    if (merged.Twice.Length > 0)
                        Interlocked.Increment(ref twice);
                },
                iter: 2000
            );
        twice.ShouldBeGreaterThan(200);
    }
}
