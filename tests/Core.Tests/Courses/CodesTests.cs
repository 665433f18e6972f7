using CsCheck;
using Polycline.Core.Courses;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Courses;

/// <summary>The computation, chapter 7, and the order of siblings.</summary>
public sealed class CodesTests
{
    private static Item Item(int id, string? code = null) =>
        new()
        {
            Ref = new($"i{id}"),
            Kind = ItemKind.Page,
            Title = $"Item {id}",
            Published = id % 2 == 0,
            Code = code,
        };

    private static Edition Of(CodeStyle style, params Unit[] units) => Plans.Edition(units) with { Codes = style };

    private static Unit Unit(int id, Item[] inLesson, params Item[] own) =>
        new(new($"u{id}"), $"Unit {id}", [Plans.Lesson($"l{id}", 1, inLesson)], [.. own]);

    private static string Codes(Edition edition)
    {
        var codes = Polycline.Core.Courses.Codes.Of(edition);
        return string.Join(' ', edition.InReadingOrder().Select(item => codes[item.Ref]));
    }

    [Fact]
    public void Items_are_numbered_within_their_unit_in_reading_order_unpublished_ones_too() =>
        Codes(Of(CodeStyle.ByUnit, Unit(1, [Item(1), Item(2)], Item(3)), Unit(2, [Item(4)]))).ShouldBe("1.01 1.02 1.03 2.01");

    [Fact]
    public void Straight_through_they_take_three_digits() =>
        Codes(Of(CodeStyle.Straight, Unit(1, [Item(1)], Item(2)), Unit(2, [Item(3)]))).ShouldBe("#001 #002 #003");

    [Fact]
    public void A_given_code_is_kept_and_left_out_by_the_others_wherever_it_is_given() =>
        Codes(Of(CodeStyle.ByUnit, Unit(1, [Item(1), Item(2, "1.02"), Item(3)], Item(4)), Unit(2, [Item(5, "1.03"), Item(6)])))
            .ShouldBe("1.01 1.02 1.04 1.05 1.03 2.01");

    [Theory]
    [InlineData("3.", "3.07", false, "3.07a")]
    [InlineData("3.", "3.07a", false, "3.07c")]
    [InlineData("3.", null, false, "3.00a")]
    [InlineData("3.", "3.09", true, "3.10")]
    [InlineData("8.", null, true, "8.01")]
    [InlineData("#", "#041", false, "#041a")]
    [InlineData("+", null, true, "+3")]
    public void What_comes_when_codes_are_fixed_takes_a_letter_between_two_and_the_next_number_at_the_end(
        string prefix,
        string? before,
        bool isLast,
        string code
    ) =>
        Polycline
            .Core.Courses.Codes.OfLater(
                prefix,
                before,
                isLast,
                new HashSet<string> { "3.07", "3.07b", "3.09", "3.09a", "#041", "+2" } is var taken && before == "3.07a"
                    ? [.. taken, "3.07a"]
                    : taken
            )
            .ShouldBe(code);

    [Fact]
    public void A_unit_of_over_99_items_takes_as_many_digits_as_it_needs()
    {
        var edition = Of(CodeStyle.ByUnit, Unit(1, [.. Enumerable.Range(1, 100).Select(n => Item(n))]), Unit(2, [Item(101)]));
        Codes(edition).ShouldStartWith("1.001 1.002");
        Codes(edition).ShouldEndWith("1.100 2.01");
    }

    [Fact]
    public void What_a_section_adds_is_numbered_in_the_order_added()
    {
        var codes = Polycline.Core.Courses.Codes.OfAdded([Item(1), Item(2, "+2"), Item(3)], ["+3"]);
        new[] { "i1", "i2", "i3" }.Select(id => codes[new(id)]).ShouldBe(["+1", "+2", "+4"]);
    }

    [Fact]
    public void No_two_items_share_a_code_and_every_code_has_the_form_of_its_style()
    {
        var given = Gen.OneOf(Gen.Const((string?)null), Gen.Int[1, 12].Select(n => (string?)$"1.{n:00}"));
        Gen.Select(given.Array[0, 20], Gen.Int[0, 20], Gen.Bool)
            .Sample(
                (codes, split, straight) =>
                {
                    var seen = new HashSet<string>();
                    var items = codes.Select((code, n) => Item(n + 1, code is not null && seen.Add(code) ? code : null)).ToArray();
                    var edition = Of(
                        straight ? CodeStyle.Straight : CodeStyle.ByUnit,
                        Unit(1, [.. items.Take(split)]),
                        Unit(2, [.. items.Skip(split)])
                    );
                    var all = Polycline.Core.Courses.Codes.Of(edition);
                    all.Count.ShouldBe(items.Length);
                    all.Values.Distinct().Count().ShouldBe(items.Length);
                    foreach (var item in items.Where(item => item.Code is null))
                        all[item.Ref].ShouldMatch(straight ? @"^#\d{3}$" : @"^[12]\.\d\d$");
                }
            );
    }

    [Fact]
    public void There_is_always_a_rank_between_two_and_before_and_after_all()
    {
        Gen.Int[0, 1_000_000]
            .Array[1, 60]
            .Sample(places =>
            {
                var ranks = new List<string> { "0010", "0020" };
                foreach (var place in places)
                {
                    var at = place % (ranks.Count + 1);
                    ranks.Insert(at, Rank.Between(at == 0 ? null : ranks[at - 1], at == ranks.Count ? null : ranks[at]));
                }
                ranks.ShouldBe(ranks.Distinct().Order(StringComparer.Ordinal));
            });
        Should.Throw<ArgumentException>(() => Rank.Between("1", "10"));
    }
}
