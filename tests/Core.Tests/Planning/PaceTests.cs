using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
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
    public void A_section_is_behind_by_the_classes_that_what_was_taught_took_more_than_planned(
        int took,
        bool done,
        int? left,
        int behindBy,
        string at
    )
    {
        // Mondays and Wednesdays; by the plan the first lesson was on Monday.
        var edition = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1), Plans.Lesson("l2", 1), Plans.Lesson("l3", 1)));
        var section = Plans.Section("s1") with { Taught = [new(new("l1"), took, done, left, Tuesday)] };
        var pace = Pace.Of(Plans.Schedule(edition, section).Section(new("s1")), Tuesday);
        (pace.BehindBy, pace.Lesson?.Name).ShouldBe((behindBy, at));
    }

    [Fact]
    public void Held_against_the_edition_before_lessons_stand_by_teaching_time_on_another_timetable_too()
    {
        var edition = Plans.Edition(
            Plans.Unit("u1", Plans.Lesson("l1", 1), Plans.Lesson("l2", 1), Plans.Lesson("l3", 1), Plans.Lesson("l4", 1))
        );
        Taught Took(string lesson, int classes) => new(new(lesson), classes, true, null, Tuesday);
        // The first took two classes in one section, one in the others: what is in the middle counts. The second was taught along with it;
        // the fourth not at all.
        var last = LastTime.Of(
            Plans.Schedule(
                edition,
                Plans.Section("s1") with
                {
                    Taught = [Took("l1", 2), Took("l2", 0), Took("l3", 1)],
                },
                Plans.Section("s2") with
                {
                    Taught = [Took("l1", 1), Took("l2", 0), Took("l3", 1)],
                },
                Plans.Section("s3") with
                {
                    Taught = [Took("l1", 2), Took("l2", 0), Took("l3", 2)],
                }
            )
        );
        var now = Plans.Schedule(
            edition,
            Plans.Section("s1"),
            Plans.Section("s2") with
            {
                Slots = [new Slot.InPeriods("mon", ["P1"]) { Counts = 2 }],
            },
            Plans.Section("s3") with
            {
                Slots = [new Slot.InPeriods("mon", ["P1"])],
            },
            Plans.Section("s4", new Adjustment.OfLesson(new("l1"), After: new("l3")), new Adjustment.OfLesson(new("l2"), After: new("l1")))
        );
        (int, int)? In(string section, string lesson) =>
            last.On(now.Section(new(section)), edition).GetValueOrDefault(new(lesson)) is { } at
                ? (at.Start!.Ordinal, at.End!.Ordinal)
                : null;
        new[] { "l1", "l2", "l3", "l4" }.Select(lesson => In("s1", lesson)).ShouldBe([(1, 2), (2, 2), (3, 3), null]);
        // A class that counts as two is as far as two; a term with fewer classes has no place for the rest; another order is laid in that
        // order.
        new[] { "l1", "l2", "l3" }.Select(lesson => In("s2", lesson)).ShouldBe([(1, 1), (1, 1), (2, 2)]);
        new[] { "l1", "l2", "l3" }.Select(lesson => In("s3", lesson)).ShouldBe([(1, 2), (2, 2), null]);
        new[] { "l1", "l2", "l3" }.Select(lesson => In("s4", lesson)).ShouldBe([(2, 3), (3, 3), (1, 1)]);
        LastTime.Of(now).IsEmpty.ShouldBeTrue();
    }

    [Fact]
    public void What_no_longer_fits_cannot_be_told_and_without_classes_there_is_no_pace()
    {
        var edition = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1), Plans.Lesson("l2", 1)));
        var late = Plans.Section("s1") with { Taught = [new(new("l1"), 1, false, 9, Tuesday)] };
        Pace.Of(Plans.Schedule(edition, late).Section(new("s1")), Tuesday).BehindBy.ShouldBeNull();
        Pace.Of(Plans.Schedule(edition, Plans.Section("s1") with { Slots = [] }).Section(new("s1")), Tuesday)
            .ShouldBe(new(null, null, null));
    }
}
