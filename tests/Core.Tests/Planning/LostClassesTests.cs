using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Planning;

/// <summary>What can be done about a class that is lost. The computation, chapter 10.</summary>
public sealed class LostClassesTests
{
    // Classes on Mon 7, Wed 9, Mon 14 and Wed 16 September.
    private static readonly Edition Course = Plans.Edition(
        Plans.Unit("u1", Plans.Lesson("l1", 1), Plans.Lesson("l2", 1), Plans.Lesson("l3", 1) with { Optional = true })
    );

    [Fact]
    public void A_spare_class_takes_its_lesson_and_nothing_else_moves()
    {
        var use = Lost(Plans.Section("s1"), 1).UseSpare().ShouldHaveSingleItem();
        use.Change.ShouldBe(new(new("l1"), After: new("l3")));
        use.At.Date.ShouldBe(new(2026, 9, 16));
        Dates(Plans.Section("s1") with { Changes = [new MeetingChange.Cancel(new(2026, 9, 7), null)], Adjustments = [use.Change] })
            .ShouldBe(["l2 2026-09-09", "l3 2026-09-14", "l1 2026-09-16"]);
    }

    [Fact]
    public void A_gap_before_a_lesson_fixed_to_a_date_is_a_spare_class_too()
    {
        Section section = Plans.Section("s1", new Adjustment.OfLesson(new("l3"), Pin: new(2026, 9, 16)));
        var use = Lost(section, 1).UseSpare().ShouldHaveSingleItem();
        use.Change.ShouldBe(new(new("l1"), After: new("l2")));
        use.At.Date.ShouldBe(new(2026, 9, 14));
        Dates(
                section with
                {
                    Changes = [new MeetingChange.Cancel(new(2026, 9, 7), null)],
                    Adjustments = [.. section.Adjustments, use.Change],
                }
            )
            .ShouldBe(["l2 2026-09-09", "l1 2026-09-14", "l3 2026-09-16"]);
    }

    [Fact]
    public void Without_enough_spare_classes_or_where_part_of_the_lesson_is_taught_elsewhere_there_is_no_such_way()
    {
        Lost(Plans.Section("s1"), 1, 2).UseSpare().ShouldBeEmpty();
        Lost(Plans.Section("s1", new Adjustment.OfLesson(new("l1"), Length: 2)), 1).UseSpare().ShouldBeEmpty();
        Lost(Plans.Section("s1") with { Taught = [new(new("l1"), 1, true, null, null)] }, 1).UseSpare().ShouldBeEmpty();
    }

    [Fact]
    public void An_optional_lesson_after_it_is_dropped_and_what_comes_after_that_does_not_move()
    {
        var made = Lost(Plans.Section("s1"), 1).Drop();
        made.ShouldBe([new(new("l3"), Skip: true)]);
        Dates(Plans.Section("s1") with { Changes = [new MeetingChange.Cancel(new(2026, 9, 7), null)], Adjustments = [.. made] })
            .ShouldBe(["l1 2026-09-09", "l2 2026-09-14"]);
        Lost(Plans.Section("s1"), 1, 2).Drop().ShouldBeEmpty();
        Lost(Plans.Section("s1", made[0]), 1).Drop().ShouldBeEmpty();
    }

    [Fact]
    public void Lessons_are_shortened_the_next_ones_first_as_far_as_they_can_be()
    {
        var section = Plans.Section("s1", new Adjustment.OfLesson(new("l2"), Length: 2));
        Lost(section, 1).Shorten(lesson => lesson.Name == "l2" ? 1 : null).ShouldBe([new(new("l2"), Length: 1)]);
        Lost(section, 1, 2)
            .Shorten(lesson =>
                lesson.Name == "l2" ? 1
                : lesson.Name == "l3" ? 0
                : null
            )
            .ShouldBe([new(new("l2"), Length: 1), new(new("l3"), Length: 0)]);
        Lost(section, 1, 2).Shorten(lesson => lesson.Name == "l2" ? 1 : null).ShouldBeEmpty();
        Lost(section, 1).Shorten(_ => null).ShouldBeEmpty();
    }

    [Fact]
    public void A_class_that_no_lesson_has_needs_nothing()
    {
        Lost(Plans.Section("s1"), 4).Drop().ShouldBeEmpty();
        Lost(Plans.Section("s1"), 4).UseSpare().ShouldBeEmpty();
    }

    private static LostClasses Lost(Section section, params int[] ordinals) =>
        new(Plans.Schedule(Course, section).Section(section.Ref), Basis.Meetings, [.. ordinals]);

    private static IEnumerable<string> Dates(Section section) =>
        Plans
            .Schedule(Course, section)
            .Section(section.Ref)
            .Forecast.Lessons.Select(lesson => $"{lesson.Lesson.Name} {lesson.Start!.Date:uuuu-MM-dd}");
}
