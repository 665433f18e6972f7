using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core;

/// <summary>What items lack before students come to them.</summary>
public sealed class ReadinessTests
{
    private static readonly Ref<Item> Item = new("i1");

    private static readonly Ref<Section> Section = new("s1");

    private static SectionSchedule With(Func<Item, Item> change)
    {
        var task = Plans.Task("i1", new() { At = AnchorBase.LessonStart }, new() { At = AnchorBase.LessonEnd });
        return Plans.Schedule(Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, change(task)))), Plans.Section("s1")).Section(Section);
    }

    private static readonly Interval First = new(Instant.FromUtc(2026, 9, 7, 0, 0), Instant.FromUtc(2026, 9, 9, 0, 0));
    private static readonly Interval Later = new(Instant.FromUtc(2026, 9, 14, 0, 0), Instant.FromUtc(2026, 9, 16, 0, 0));

    private static IEnumerable<Lack> Lacks(Func<Item, Item> change, bool hasFiles = false, Interval? within = null, bool isWhole = false) =>
        Readiness.Of(With(change), _ => hasFiles, within ?? First, isWhole).Select(one => one.Lack);

    private static Item Written(Item item) => item with { Body = "b" };

    [Fact]
    public void What_has_all_it_needs_lacks_nothing_and_a_file_does_for_a_text()
    {
        Lacks(Written).ShouldBeEmpty();
        Lacks(item => item).ShouldBe([Lack.Content]);
        Lacks(item => item, hasFiles: true).ShouldBeEmpty();
    }

    [Fact]
    public void Only_what_comes_is_looked_at_until_it_is_the_whole_term()
    {
        Lacks(item => item, within: Later).ShouldBeEmpty();
        Lacks(item => item, within: Later, isWhole: true).ShouldBe([Lack.Content]);
        Lacks(item => item with { Opens = null, Due = null }).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(ItemKind.Link, Lack.Address)]
    [InlineData(ItemKind.Quiz, Lack.Questions)]
    [InlineData(ItemKind.Choice, Lack.Options)]
    public void Each_kind_lacks_its_own(ItemKind kind, Lack lack) =>
        Lacks(item => item with { Kind = kind, Purpose = Purpose.ToRead }).ShouldBe([lack]);

    [Fact]
    public void What_is_for_marks_needs_a_rubric_and_a_due_date_and_a_page_that_is_due_something_to_do()
    {
        Lacks(item => Written(item) with { Purpose = Purpose.ForMarks }).ShouldBe([Lack.Rubric]);
        Lacks(item => Written(item) with { Purpose = Purpose.ForMarks, Rubric = "r", Due = null }).ShouldBe([Lack.Due]);
        Lacks(item => Written(item) with { Kind = ItemKind.Page, Purpose = Purpose.Practice }).ShouldBe([Lack.Asks]);
        Lacks(item => Written(item) with { Published = false }).ShouldBe([Lack.Published]);
        Lacks(item =>
                Written(item) with
                {
                    Due = new() { At = AnchorBase.OwnOpens, Weeks = 40 },
                }
            )
            .ShouldBe([Lack.Place]);
    }

    [Fact]
    public void A_day_is_crowded_by_more_than_so_many_dues()
    {
        var schedule = With(item => item);
        Readiness.Crowded(schedule, at => at.InUtc().Date, First, 1).ShouldBeEmpty();
        var (day, due) = Readiness.Crowded(schedule, at => at.InUtc().Date, First, 0).Single();
        day.ShouldBe(new LocalDate(2026, 9, 7));
        due.ShouldBe([Item]);
    }
}
