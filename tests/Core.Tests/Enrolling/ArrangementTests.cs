using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Enrolling;

/// <summary>More time that was agreed for everything. The computation, chapter 11.</summary>
public sealed class ArrangementTests
{
    private static readonly Anchor AtEnd = new() { At = AnchorBase.LessonEnd };

    private static Anchor On(int day, int hour) => Anchor.OnDate(new(2026, 9, day), new(hour, 0));

    // The lesson ends on Monday 7 September, 09:40 in Dublin.
    private static ItemDates Dates(
        Item item,
        int days,
        OffDays offDays = OffDays.Stay,
        Given<Anchor> due = default,
        Given<Anchor> closes = default
    )
    {
        var term = Plans.Fortnight with { Calendar = Plans.Fortnight.Calendar with { OffDays = offDays } };
        var schedule = PlanSchedule.Of(
            TermDays.Of(term),
            Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, item))),
            [Plans.Section("s1")]
        );
        var student = Plans.Student("s1") with
        {
            Always = new(new("p1"), days, null),
            Exceptions =
                due.Is || closes.Is
                    ? new Dictionary<Ref<Item>, ForOneStudent>
                    {
                        [item.Ref] = new()
                        {
                            Student = new("p1"),
                            Item = item.Ref,
                            Due = due,
                            Closes = closes,
                        },
                    }
                    : new Dictionary<Ref<Item>, ForOneStudent>(),
        };
        return student.DatesOf(schedule.Section(new("s1")), schedule.Section(new("s1")).Item(item.Ref)!)!;
    }

    private static Instant At(int day, int hour, int minute = 0) => Instant.FromUtc(2026, 9, day, hour, minute);

    [Theory]
    [InlineData(0, OffDays.Back, 7, Layer.Master)]
    [InlineData(2, OffDays.Stay, 9, Layer.Always)]
    // Saturday stays, or goes on to Monday: more time never becomes less.
    [InlineData(5, OffDays.Stay, 12, Layer.Always)]
    [InlineData(5, OffDays.Back, 14, Layer.Always)]
    [InlineData(5, OffDays.Forward, 14, Layer.Always)]
    public void A_due_goes_so_many_days_on_at_the_same_time(int days, OffDays offDays, int day, Layer layer)
    {
        var due = Dates(Plans.Task("i1", due: AtEnd), days, offDays).Due;
        (due.At, due.Layer).ShouldBe((At(day, 8, 40), layer));
    }

    [Fact]
    public void Beyond_the_term_it_is_the_end_of_the_term() =>
        Dates(Plans.Task("i1", due: AtEnd), 60, OffDays.Back).Due.At.ShouldBe(At(18, 22, 59));

    [Fact]
    public void What_is_agreed_for_one_item_beats_what_is_agreed_for_all()
    {
        var item = Plans.Task("i1", due: AtEnd);
        Dates(item, 3, due: On(8, 12)).Due.ShouldBe(new(At(8, 11), Layer.Student, true));
        Dates(item, 3, due: new Given<Anchor>(true, null)).Due.At.ShouldBeNull();
    }

    [Fact]
    public void A_closing_in_between_gives_way_one_on_the_due_follows_and_others_stay()
    {
        Item Closing(Anchor closes) => Plans.Task("i1", due: AtEnd, closes: closes);
        Dates(Closing(On(8, 12)), 3).Closes.ShouldBe(new(At(10, 8, 40), Layer.Always, true));
        Dates(Closing(AtEnd), 3).Closes.At.ShouldBe(At(10, 8, 40));
        Dates(Closing(On(7, 8)), 3).Closes.ShouldBe(new(At(7, 7), Layer.Master, true));
        Dates(Closing(On(11, 12)), 3).Closes.ShouldBe(new(At(11, 11), Layer.Master, true));
        Dates(Closing(new() { At = AnchorBase.OwnDue, Days = 1 }), 3).Closes.ShouldBe(new(At(11, 8, 40), Layer.Master, true));
        Dates(Closing(On(11, 12)), 3, closes: On(8, 12)).Closes.ShouldBe(new(At(8, 11), Layer.Student, true));
    }

    [Fact]
    public void An_opening_on_the_due_does_not_follow() =>
        Dates(Plans.Task("i1", opens: new() { At = AnchorBase.OwnDue, Days = -1 }, due: AtEnd), 3).Opens.At.ShouldBe(At(6, 8, 40));

    [Fact]
    public void Of_several_arrangements_the_later_field_stands()
    {
        var earlier = new Arrangement(new("p1"), 3, 25);
        new Arrangement(new("p1"), null, 50).Over(earlier).ShouldBe(new(new("p1"), 3, 50));
        new Arrangement(new("p1"), 0, null).Over(earlier).ShouldBe(new(new("p1"), 0, 25));
    }
}
