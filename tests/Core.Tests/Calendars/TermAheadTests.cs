using CsCheck;
using NodaTime;
using Polycline.Core.Calendars;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Calendars;

public sealed class TermAheadTests
{
    private static Term Beginning(LocalDate first) =>
        new("Autumn", DateTimeZone.Utc, first, first.PlusDays(100), new([], [], [], new Rotation.Weekly(), [], []));

    [Theory]
    [InlineData("Autumn term 2026", 1, "Autumn term 2027")]
    [InlineData("2026/27, first half", 1, "2027/28, first half")]
    [InlineData("2099–00", 2, "2101–02")]
    [InlineData("2026-2027", 3, "2029-2030")]
    [InlineData("2026-11", 1, "2027-12")]
    [InlineData("Autumn term", 1, "Autumn term")]
    [InlineData("Room 12026", 1, "Room 12026")]
    public void Years_in_its_name_are_later(string name, int years, string later) => TermAhead.NameAfter(name, years).ShouldBe(later);

    [Fact]
    public void It_begins_on_the_same_weekday_within_four_days_of_the_same_date() =>
        Gen.Select(Gen.Int[0, 30_000], Gen.Int[1, 5])
            .Sample(drawn =>
            {
                var term = Beginning(new LocalDate(1990, 1, 1).PlusDays(drawn.Item1));
                var first = TermAhead.FirstAfter(term, drawn.Item2);
                first.DayOfWeek.ShouldBe(term.First.DayOfWeek);
                Math.Abs(NodaTime.Period.DaysBetween(term.First.PlusYears(drawn.Item2), first)).ShouldBeLessThan(4);
                term.First.PlusWeeks(TermAhead.WeeksTo(term, first)).ShouldBe(first);
            });

    [Theory]
    // Monday 31 August 2026; its Tuesday, and the Sunday before.
    [InlineData("2027-08-31", 52)]
    [InlineData("2026-09-06", 0)]
    [InlineData("2026-08-30", -1)]
    public void Weeks_are_counted_from_Monday_to_Monday(string first, int weeks) =>
        TermAhead.WeeksTo(Beginning(new(2026, 8, 31)), NodaTime.Text.LocalDatePattern.Iso.Parse(first).Value).ShouldBe(weeks);
}
