using NodaTime;
using Polycline.Core.Planning;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Planning;

/// <summary>Where a section stands in its plan. The computation, chapter 10.</summary>
public sealed class PaceTests
{
    private static readonly Instant Tuesday = Instant.FromUtc(2026, 9, 8, 12, 0);

    [Theory]
    [InlineData(1, true, null, 0, "l2")]
    [InlineData(2, true, null, 1, "l1")]
    [InlineData(0, true, null, -1, "l3")]
    [InlineData(1, false, 2, 2, "l1")]
    public void A_section_is_behind_by_the_classes_that_what_was_taught_took_more_than_planned(int took, bool done, int? left, int behindBy, string at)
    {
        // Mondays and Wednesdays; by the plan the first lesson was on Monday.
        var edition = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1), Plans.Lesson("l2", 1), Plans.Lesson("l3", 1)));
        var section = Plans.Section("s1") with { Taught = [new(new("l1"), took, done, left, Tuesday)] };
        var pace = Pace.Of(Plans.Schedule(edition, section).Section(new("s1")), Tuesday);
        (pace.BehindBy, pace.Lesson?.Name).ShouldBe((behindBy, at));
    }

    [Fact]
    public void What_no_longer_fits_cannot_be_told_and_without_classes_there_is_no_pace()
    {
        var edition = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1), Plans.Lesson("l2", 1)));
        var late = Plans.Section("s1") with { Taught = [new(new("l1"), 1, false, 9, Tuesday)] };
        Pace.Of(Plans.Schedule(edition, late).Section(new("s1")), Tuesday).BehindBy.ShouldBeNull();
        Pace.Of(Plans.Schedule(edition, Plans.Section("s1") with { Slots = [] }).Section(new("s1")), Tuesday).ShouldBe(new(null, null, null));
    }
}
