using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Enrolling;

/// <summary>What somebody who joined late is asked for, beside the worked cases. The computation, chapter 11.</summary>
public sealed class CatchUpTests
{
    private static readonly Anchor Early = Anchor.OnDate(new(2026, 9, 7), new(12, 0));
    private static readonly Instant Joining = Instant.FromUtc(2026, 9, 9, 6, 0);

    private static CatchUp Asked(IEnumerable<Item> items, int perClass = 1, Adjustment[]? adjustments = null, params Fact[] facts)
    {
        var section = Plans.Section("s1", adjustments ?? []) with { Students = [new(new("p1"), new(2026, 9, 9))] };
        var term = Plans.Fortnight with { Last = new(2026, 10, 30) };
        var schedule = PlanSchedule.Of(TermDays.Of(term), Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, [.. items]))), [section]);
        var student = Plans.Student("s1", facts) with { Enrolments = [(section.Ref, section.Students[0])] };
        return CatchUp.Of(schedule, student, Joining, perClass, []);
    }

    private static GateNode Done(string item, Deed deed = Deed.Submitted) => new GateNode.Done(new(item), deed);

    private static Item Past(string id, GateNode? gate = null) => Plans.Task(id, due: Early, gate: gate);

    private static string[] Lines(CatchUp asked) => [.. asked.Lines.Select(line => $"{line.Item} {line.Meeting.Ordinal}")];

    [Fact]
    public void In_a_circle_somebody_has_to_be_first()
    {
        // i1 and i2 wait for one another, i3 for both.
        var asked = Asked([Past("i3", Done("i1")), Past("i1", Done("i2")), Past("i2", Done("i1"))]);
        Lines(asked).ShouldBe(["i1 3", "i2 4", "i3 5"]);
    }

    [Fact]
    public void What_has_no_due_is_asked_for_only_where_nothing_else_would_do()
    {
        var free = Plans.Task("i1");
        var other = Plans.Task("i2");
        var either = new GateNode.AnyOf([Done("i1"), Done("i2")]);
        Lines(Asked([free, other, Past("i3", either)])).ShouldBe(["i3 3"]);
        var both = Asked([free, other, Past("i3", new GateNode.AllOf([Done("i1"), Done("i2")]))]);
        both.Lines.Select(line => (line.Item.Name, line.Asked))
            .ShouldBe([("i1", CatchUpReason.Needed), ("i2", CatchUpReason.Needed), ("i3", CatchUpReason.Due)]);
        both.Lines[2].Needs.ShouldBe([new("i1"), new("i2")]);
    }

    [Fact]
    public void What_is_due_later_keeps_its_own_due_and_what_waits_for_it_comes_after()
    {
        var later = Plans.Task("i1", due: Anchor.OnDate(new(2026, 9, 23), new(12, 0)));
        Lines(Asked([later, Past("i2", Done("i1"))])).ShouldBe(["i2 7"]);
    }

    [Fact]
    public void What_was_handed_in_and_waits_to_be_given_back_holds_nothing_up()
    {
        var handedIn = new Fact(new("p1"), new("i1"), FactEvent.Submitted, Joining - Duration.FromDays(1));
        var asked = Asked([Past("i1"), Past("i2", Done("i1", Deed.Returned))], facts: handedIn);
        Lines(asked).ShouldBe(["i2 3"]);
        asked.Lines[0].Needs.ShouldBe([new("i1")]);
    }

    [Fact]
    public void What_is_held_back_leaves_stuck_what_cannot_do_without_it_and_all_behind_that()
    {
        var asked = Asked(
            [Past("i1"), Past("i2", Done("i1")), Past("i3", Done("i2"))],
            adjustments: [new Adjustment.OfItem { Item = new("i1"), Hold = true }]
        );
        asked.Lines.ShouldBeEmpty();
        asked.Stuck.Select(stuck => (stuck.Item.Name, stuck.By.Single().Name)).ShouldBe([("i2", "i1"), ("i3", "i2")]);
    }

    [Fact]
    public void A_discussion_that_is_over_is_only_named()
    {
        var talk = Past("i1") with { Kind = ItemKind.Discussion };
        var asked = Asked([talk, Past("i2")]);
        asked.Over.ShouldBe([new("i1")]);
        Lines(asked).ShouldBe(["i2 3"]);
    }

    [Fact]
    public void Where_the_class_comes_after_the_closing_it_is_closed_too()
    {
        var asked = Asked([Past("i1"), Past("i2") with { Closes = Anchor.OnDate(new(2026, 9, 15), new(12, 0)) }, Past("i3", Done("i2"))]);
        // i2 helps i3 and goes first, to the 14th; at one a class, i1 is next.
        Lines(asked).ShouldBe(["i2 3", "i1 4", "i3 5"]);
        var two = Asked([Past("i1") with { Closes = Anchor.OnDate(new(2026, 9, 13), new(12, 0)) }, Past("i2", Done("i1"))]);
        two.Closed.Select(closed => (closed.Item.Name, closed.Hangs.Single()))
            .ShouldBe([("i1", new HangingItem(new("i2"), Hanging.Waived))]);
        two.Stuck.Single().By.ShouldBe([new("i1")]);
    }

    [Fact]
    public void Who_was_there_from_the_beginning_has_nothing_to_catch_up()
    {
        var schedule = Plans.Schedule(Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, Past("i1")))), Plans.Section("s1"));
        var asked = CatchUp.Of(schedule, Plans.Student("s1"), Joining, 1, [new("i1")]);
        (asked.Section, asked.Joined).ShouldBe((new Ref<Section>("s1"), (LocalDate?)null));
        (asked.Lines.Length, asked.Left.Length).ShouldBe((0, 0));
    }
}
