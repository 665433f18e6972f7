using NodaTime;
using NodaTime.Text;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Planning;

/// <summary>Every base and step of an anchor. The computation, chapter 4. Mondays and Wednesdays 08:40, 7 to 18 September 2026.</summary>
public sealed class AnchorTests
{
    [Theory]
    [InlineData("""{"at":"lesson-start"}""", "2026-09-09T08:40")]
    [InlineData("""{"at":"lesson-end"}""", "2026-09-14T09:40")]
    [InlineData("""{"at":"unit-start"}""", "2026-09-07T08:40")]
    [InlineData("""{"at":"unit-end"}""", "2026-09-14T09:40")]
    [InlineData("""{"at":"lesson-start","of":"l0"}""", "2026-09-07T08:40")]
    [InlineData("""{"at":"lesson-end","meetings":1}""", "2026-09-16T08:40")]
    [InlineData("""{"at":"lesson-end","meetings":0,"clock":"meeting-start"}""", "2026-09-14T08:40")]
    [InlineData("""{"at":"lesson-start","meetings":-1,"clock":"meeting-end"}""", "2026-09-07T09:40")]
    [InlineData("""{"at":"lesson-end","meetings":1,"days":1,"clock":"18:00"}""", "2026-09-17T18:00")]
    [InlineData("""{"at":"lesson-end","classDays":2}""", "2026-09-16T09:40")]
    [InlineData("""{"at":"lesson-end","classDays":-1,"clock":"12:00"}""", "2026-09-11T12:00")]
    [InlineData("""{"at":"lesson-start","weeks":1,"days":-7}""", "2026-09-09T08:40")]
    [InlineData("""{"at":"term-start"}""", "2026-09-07T00:00")]
    [InlineData("""{"at":"term-start","meetings":1}""", "2026-09-09T08:40")]
    [InlineData("""{"at":"term-end","meetings":-1}""", "2026-09-16T08:40")]
    [InlineData("""{"at":"fixed","date":"2026-09-10","time":"10:00"}""", "2026-09-10T10:00")]
    [InlineData("""{"at":"fixed","date":"2026-09-14","time":"00:00","clock":"meeting-end"}""", "2026-09-14T09:40")]
    [InlineData("""{"at":"fixed","date":"2026-09-11","time":"10:00","clock":"meeting-end"}""", "2026-09-11T10:00")]
    [InlineData("""{"at":"own-opens","days":2}""", "2026-09-09T00:00")]
    // Out of the term a due becomes its end; an opening is not resolved.
    [InlineData("""{"at":"lesson-end","meetings":9}""", "2026-09-18T23:59", null)]
    [InlineData("""{"at":"lesson-start","meetings":-9}""", null, null)]
    [InlineData("""{"at":"term-end","days":3}""", "2026-09-18T23:59", "2026-09-21T23:59")]
    [InlineData("""{"at":"lesson-end","of":"l9"}""", null, null)]
    public void As_a_due_and_as_an_opening(string json, string? due, string? opens = "same")
    {
        var anchor = PlanParts.Anchor(json);
        Resolved(due: anchor).Due.At.ShouldBe(Local(due), "due");
        if (anchor.At != AnchorBase.OwnOpens)
            Resolved(opens: anchor).Opens.At.ShouldBe(Local(opens == "same" ? due : opens), "opens");
    }

    // Berlin's clocks skip from 02:00 to 03:00 on Sunday 29 March 2026; classes are on Mondays and Fridays at 02:30.
    [Theory]
    [InlineData("""{"at":"lesson-start","days":6}""", "2026-03-29T01:30:00Z")]
    [InlineData("""{"at":"lesson-start","days":6,"classDays":1}""", "2026-03-30T00:30:00Z")]
    [InlineData("""{"at":"lesson-start","weeks":1,"days":-1,"classDays":-1}""", "2026-03-27T01:30:00Z")]
    [InlineData("""{"at":"fixed","date":"2026-03-29","time":"02:30"}""", "2026-03-29T01:30:00Z")]
    [InlineData("""{"at":"fixed","date":"2026-03-29","time":"02:30","classDays":1}""", "2026-03-30T00:30:00Z")]
    [InlineData("""{"at":"fixed","date":"2026-03-29","time":"02:30","days":1}""", "2026-03-30T00:30:00Z")]
    [InlineData("""{"at":"lesson-start","days":6,"classDays":1,"clock":"meeting-end"}""", "2026-03-30T01:30:00Z")]
    public void A_clock_time_stays_local_through_all_steps_and_becomes_a_moment_once(string json, string opens)
    {
        var term = TermDays.Of(
            new(
                "Spring",
                DateTimeZoneProviders.Tzdb["Europe/Berlin"],
                new(2026, 3, 16),
                new(2026, 4, 10),
                new([IsoDayOfWeek.Monday, IsoDayOfWeek.Friday], [], [], new Rotation.Weekly(), [], [])
            )
        );
        var edition = Plans.Edition(
            Plans.Unit("u1", Plans.Lesson("l1", 2), Plans.Lesson("l2", 1, Plans.Task("i", PlanParts.Anchor(json))))
        );
        var section = Plans.Section("s1") with
        {
            Slots = [new Slot.AtTimes("mon", new(2, 30), new(3, 30)), new Slot.AtTimes("fri", new(2, 30), new(3, 30))],
        };
        SectionSchedule.Of(term, edition, section).Item(new("i"))!.Dates!.Opens.At.ShouldBe(InstantPattern.General.Parse(opens).Value);
    }

    [Fact]
    public void Dates_that_lead_back_to_themselves_are_all_unresolved_and_so_is_what_hangs_on_them()
    {
        var dates = Resolved(new() { At = AnchorBase.OwnDue }, new() { At = AnchorBase.OwnOpens, Days = 1 });
        (dates.Opens.IsUnresolved, dates.Due.IsUnresolved).ShouldBe((true, true));
        Resolved(due: new() { At = AnchorBase.OwnDue }).Due.IsUnresolved.ShouldBeTrue();
    }

    [Fact]
    public void What_has_opened_stands_before_the_plan_and_its_due_comes_no_earlier_than_announced()
    {
        var item = Plans.Task("i1", new() { At = AnchorBase.LessonStart }, new() { At = AnchorBase.LessonEnd });
        var edition = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, item)));
        var (opened, announced) = (Instant.FromUtc(2026, 9, 9, 7, 40), Instant.FromUtc(2026, 9, 11, 7, 40));
        var section = Plans.Section("s1") with { Opened = [new(item.Ref, opened, announced)] };
        var dates = Plans.Schedule(edition, section).Section(section.Ref).Item(item.Ref)!.Dates!;
        (dates.Opens.At, dates.Opens.Layer, dates.Due.At, dates.Due.Layer, dates.DueEarlier).ShouldBe(
            (opened, Layer.Opened, announced, Layer.Opened, true)
        );
        var own = section with
        {
            Adjustments = [new Adjustment.OfItem { Item = item.Ref, Due = Anchor.OnDate(new(2026, 9, 8), new(12, 0)) }],
        };
        Plans.Schedule(edition, own).Section(own.Ref).Item(item.Ref)!.Dates!.Due.Layer.ShouldBe(Layer.Section);
    }

    private static ItemDates Resolved(Anchor? opens = null, Anchor? due = null)
    {
        var item = Plans.Task("i1", opens ?? new() { At = AnchorBase.TermStart }, due);
        var edition = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l0", 1), Plans.Lesson("l1", 2, item)));
        return Plans.Schedule(edition, Plans.Section("s1")).Section(new("s1")).Item(item.Ref)!.Dates!;
    }

    private static Instant? Local(string? local) =>
        local is null
            ? null
            : LocalDateTimePattern
                .CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm")
                .Parse(local)
                .Value.InZoneLeniently(Plans.Fortnight.Zone)
                .ToInstant();
}
