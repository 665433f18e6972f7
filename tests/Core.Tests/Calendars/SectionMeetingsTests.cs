using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Calendars;

/// <summary>
/// When a section meets, and what its changes make of that: on Mondays and Wednesdays, for a fortnight from 7 September.
/// The computation, chapter 2.
/// </summary>
public sealed class SectionMeetingsTests
{
    private static readonly LocalDate Monday = new(2026, 9, 7),
        Wednesday = new(2026, 9, 9);

    [Fact]
    public void Without_a_change_it_meets_as_its_timetable_says_numbered_in_time()
    {
        Of()
            .Meetings.Select(meeting => $"{meeting.Ordinal} {meeting.Date:MM-dd} {meeting.Start:HH:mm} {meeting.Label}")
            .ShouldBe(["1 09-07 08:40 mon", "2 09-09 08:40 wed", "3 09-14 08:40 mon", "4 09-16 08:40 wed"]);
        Of().Meetings[0].Minutes.ShouldBe(60);
        Of().Findings.ShouldBeEmpty();
    }

    [Fact]
    public void A_cancelled_class_is_kept_as_what_it_was_and_the_others_are_numbered_anew()
    {
        var list = Of(new MeetingChange.Cancel(Wednesday, null));
        list.Meetings.Select(meeting => (meeting.Ordinal, meeting.Date.Day)).ShouldBe([(1, 7), (2, 14), (3, 16)]);
        var gone = list.Cancelled.ShouldHaveSingleItem();
        (gone.Origin.Date, gone.EndsAt - gone.StartsAt).ShouldBe((Wednesday, Duration.FromMinutes(60)));
    }

    [Fact]
    public void A_moved_class_keeps_for_how_many_it_counts_and_what_it_was_at_first_however_often_it_is_moved()
    {
        var list = Of(
            [new Slot.InPeriods("mon", ["P1"], Counts: 2)],
            new MeetingChange.Move(Monday, null, new(2026, 9, 8), new(10, 0), new(11, 30)),
            new MeetingChange.Move(new(2026, 9, 8), null, new(2026, 9, 10), new(9, 0), new(10, 0))
        );
        var moved = list.Meetings[0];
        (moved.Date.Day, moved.Counts, moved.Minutes, moved.Label, moved.Origin.Date).ShouldBe((10, 2, 60, null, Monday));
        list.Cancelled.ShouldBeEmpty();
    }

    [Fact]
    public void Changes_apply_in_turn_so_that_what_was_added_can_be_cancelled_and_what_is_gone_makes_a_change_sleep()
    {
        var extra = new MeetingChange.Extra(new(2026, 9, 12), new(9, 0), new(10, 0), 3);
        // A Saturday is no class day; what is added may stand on it all the same.
        Of(extra).Meetings.Single(meeting => meeting.Date.Day == 12).Counts.ShouldBe(3);
        var cancel = new MeetingChange.Cancel(extra.Date, null);
        Of(extra, cancel).Meetings.Length.ShouldBe(4);
        var asleep = Of(cancel, extra);
        (asleep.Meetings.Length, asleep.Findings.ShouldHaveSingleItem()).ShouldBe((5, new Finding(FindingCode.ChangeIdle, "2026-09-12")));
        Of(new MeetingChange.Cancel(Monday, null), new MeetingChange.Cancel(Monday, null))
            .Findings.ShouldHaveSingleItem()
            .Code.ShouldBe(FindingCode.ChangeIdle);
    }

    [Fact]
    public void A_change_that_may_mean_several_classes_is_refused_until_it_names_the_start_of_one()
    {
        ImmutableArray<Slot> twice = [new Slot.InPeriods("mon", ["P1"]), new Slot.AtTimes("mon", new(14, 0), new(15, 0))];
        var refused = Should.Throw<MeetingChangeException>(() => Of(twice, new MeetingChange.Cancel(Monday, null)));
        (refused.Change, refused.Member).ShouldBe((0, null));
        refused.Message.ShouldContain("name the start");
        Of(twice, new MeetingChange.Cancel(Monday, new(14, 0))).Meetings[0].Start.ShouldBe(new LocalTime(8, 40));
    }

    [Fact]
    public void Outside_the_term_nothing_is_added_or_moved_and_the_member_at_fault_is_named()
    {
        LocalDate later = new(2026, 9, 21);
        var extra = Should.Throw<MeetingChangeException>(() => Of(new MeetingChange.Extra(later, new(9, 0), new(10, 0))));
        (extra.Change, extra.Member).ShouldBe((0, "add.date"));
        var move = Should.Throw<MeetingChangeException>(() =>
            Of(new MeetingChange.Cancel(Wednesday, null), new MeetingChange.Move(Monday, null, later, new(9, 0), new(10, 0)))
        );
        (move.Change, move.Member).ShouldBe((1, "move.to.date"));
        // Even one that sleeps.
        Should.Throw<MeetingChangeException>(() => Of(new MeetingChange.Move(new(2026, 9, 8), null, later, new(9, 0), new(10, 0))));
    }

    [Fact]
    public void Classes_that_overlap_are_found_and_so_is_a_section_that_never_meets()
    {
        var overlap = Of(new MeetingChange.Extra(Monday, new(9, 0), new(9, 30)));
        overlap.Findings.ShouldBe([new(FindingCode.MeetingOverlap, "2026-09-07T09:00")]);
        // One right after the other is no overlap.
        Of(new MeetingChange.Extra(Monday, new(9, 40), new(10, 0))).Findings.ShouldBeEmpty();
        Of([new Slot.InPeriods("sat", ["P1"])]).Findings.ShouldBe([new(FindingCode.NoMeetings, "s1")]);
        // A period that a day does not have is no class either.
        Of([new Slot.InPeriods("mon", ["P1", "P9"])]).Meetings.ShouldBeEmpty();
    }

    [Fact]
    public void Labels_that_a_timetable_may_name_are_the_rotations_and_of_weeks_in_turn_any_weekday_too()
    {
        SectionMeetings.LabelsOf(new Rotation.Weekly()).Count().ShouldBe(7);
        SectionMeetings.LabelsOf(new Rotation.ByDays(["1", "2", "3"], false)).ShouldBe(["1", "2", "3"]);
        var weeks = SectionMeetings.LabelsOf(new Rotation.ByWeeks(["A", "B"], true)).ToList();
        (weeks.Count, weeks[0], weeks[7], weeks[^1]).ShouldBe((21, "A-mon", "B-mon", "sun"));
    }

    private static MeetingList Of(params MeetingChange[] changes) => Of(Plans.Twice, changes);

    private static MeetingList Of(ImmutableArray<Slot> slots, params MeetingChange[] changes) =>
        SectionMeetings.Of(TermDays.Of(Plans.Fortnight), "s1", slots, [.. changes]);
}
