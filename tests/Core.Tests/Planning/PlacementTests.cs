using System.Collections.Immutable;
using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Planning;

/// <summary>Properties of placement, on whatever meetings and lessons. The computation, chapter 3.</summary>
public sealed class PlacementTests
{
    private static readonly TermDays Term = TermDays.Of(Plans.Fortnight with { Last = new(2026, 10, 30) });

    private static readonly Gen<ImmutableArray<Meeting>> SomeMeetings = Gen.Select(Gen.Int[0, 4], Gen.Int[1, 3])
        .Array[0, 5]
        .Select(slots =>
            SectionMeetings
                .Of(
                    Term,
                    "s",
                    [
                        .. slots
                            .DistinctBy(slot => slot.Item1)
                            .Select(slot => new Slot.AtTimes(
                                new[] { "mon", "tue", "wed", "thu", "fri" }[slot.Item1],
                                new(9, 0),
                                new(9 + slot.Item2, 0),
                                Counts: slot.Item2
                            )),
                    ],
                    []
                )
                .Meetings
        );

    private static readonly Gen<LessonToPlace[]> SomeLessons = Gen.Select(Gen.Int[0, 5], Gen.Int[0, 60], Gen.Int[0, 9])
        .Array[0, 14]
        .Select(drawn =>
            drawn
                .Select(
                    (one, n) => new LessonToPlace(new($"l{n}"), one.Item1, one.Item3 < 2 ? Plans.Fortnight.First.PlusDays(one.Item2) : null)
                )
                .ToArray()
        );

    [Fact]
    public void What_is_placed_and_what_is_left_over_is_the_length_and_no_part_is_taken_twice()
    {
        Gen.Select(SomeMeetings, SomeLessons, Gen.Bool)
            .Sample(
                (meetings, lessons, minutes) =>
                {
                    var sized = lessons.Select(lesson => lesson with { Length = lesson.Length * (minutes ? 23 : 1) }).ToList();
                    var basis = minutes ? Basis.Minutes : Basis.Meetings;
                    var placement = Placement.Of(sized, meetings, basis, 10);
                    var capacity = meetings.Sum(meeting => minutes ? meeting.Minutes : meeting.Counts);
                    placement.Lessons.Select(lesson => lesson.Lesson).ShouldBe(sized.Select(lesson => lesson.Lesson));
                    sized
                        .Zip(placement.Lessons)
                        .ShouldAllBe(pair => pair.Second.Overflow >= 0 && pair.Second.Overflow <= pair.First.Length);
                    (sized.Sum(lesson => lesson.Length) - placement.Lacking).ShouldBeLessThanOrEqualTo(capacity);
                    placement.Lacking.ShouldBe(
                        placement.Findings.Where(finding => finding.Code == FindingCode.Overflow).Sum(finding => finding.By!.Value)
                    );
                    placement.Lessons.ShouldAllBe(lesson =>
                        lesson.Ordinals.SequenceEqual(lesson.Ordinals.Order()) && lesson.StartsAt <= lesson.EndsAt || !lesson.IsPlaced
                    );
                    // Spare, free and taken meetings are all there are.
                    placement
                        .Spare.Concat(placement.Free)
                        .Concat(placement.Lessons.SelectMany(lesson => lesson.Ordinals))
                        .Distinct()
                        .Order()
                        .ShouldBe(Enumerable.Range(1, meetings.Length));
                }
            );
    }

    [Fact]
    public void Without_pins_lessons_follow_one_another_and_nothing_is_spare()
    {
        Gen.Select(SomeMeetings, SomeLessons)
            .Sample(
                (meetings, lessons) =>
                {
                    var placement = Placement.Of([.. lessons.Select(lesson => lesson with { Pin = null })], meetings, Basis.Meetings, 10);
                    var placed = placement.Lessons.Where(lesson => lesson.IsPlaced).ToList();
                    placed
                        .Zip(placed.Skip(1))
                        .ShouldAllBe(pair =>
                            pair.First.EndsAt <= pair.Second.EndsAt && pair.First.End!.Ordinal <= pair.Second.Start!.Ordinal
                        );
                    placement.Spare.ShouldBeEmpty();
                }
            );
    }

    [Fact]
    public void A_section_without_differences_is_the_bare_plan_and_what_is_put_back_leaves_no_trace()
    {
        var edition = Plans.Edition(
            Plans.Unit(
                "u1",
                Plans.Lesson(
                    "l1",
                    2,
                    Plans.Task("i1", new() { At = AnchorBase.LessonStart }, new() { At = AnchorBase.LessonEnd, Meetings = 1 })
                )
            )
        );
        var bare = Plans.Schedule(edition, Plans.Section("s1")).Section(new("s1"));
        var differs = Plans
            .Schedule(
                edition,
                Plans.Section("s1", new Adjustment.OfItem { Item = new("i1"), Due = Anchor.OnDate(new(2026, 9, 11), new(12, 0)) })
            )
            .Section(new("s1"));
        var dates = differs.Item(new("i1"))!.Dates!;
        dates.Due.ShouldBe(new(Instant.FromUtc(2026, 9, 11, 11, 0), Layer.Section, true));
        dates.Opens.ShouldBe(bare.Item(new("i1"))!.Dates!.Opens);
        bare.Forecast.ShouldBeSameAs(bare.Planned);
        Plans.Schedule(edition, Plans.Section("s1")).Section(new("s1")).Item(new("i1"))!.Dates.ShouldBe(bare.Item(new("i1"))!.Dates);
    }

    [Fact]
    public void Reach_names_what_comes_out_differently_and_whom_it_reaches()
    {
        Edition Of(string title, int length) =>
            Plans.Edition(
                Plans.Unit(
                    "u1",
                    Plans.Lesson("l0", length),
                    Plans.Lesson("l1", 1, Plans.Task("i1", new() { At = AnchorBase.LessonStart }) with { Title = title })
                )
            );
        PlanSchedule Two(Edition edition) =>
            Plans.Schedule(edition, Plans.Section("s1"), Plans.Section("s2", new Adjustment.OfLesson(new("l0"), Length: 1)));
        ImmutableArray<SectionSize> sizes = [new(new("s1"), "9 Alder", People(1, 24)), new(new("s2"), "9 Birch", People(24, 1))];
        var before = Two(Of("A log", 1));

        var renamed = Reach.Between(before, Two(Of("A diary", 1)), sizes);
        renamed.Rows.ShouldBe([new ReachRow("i1", "1.01 A diary", null, "title", "A log", "A diary")]);
        renamed.Sentence.ShouldBe("Changes in both sections at once, for 24 students.");

        var longer = Reach.Between(before, Two(Of("A log", 2)), sizes);
        longer
            .Rows.Select(row => (row.Section, row.Field, row.Before, row.After))
            .ShouldBe([(null, "length", "1", "2"), ("9 Alder", "opens", "Wed 9 Sep, 08:40", "Mon 14 Sep, 08:40")]);
        longer.Sentence.ShouldBe("Changes in both sections at once, for 24 students. 1 date moves in 9 Alder, for 24 students.");

        var adjusted = Plans.Schedule(
            Of("A log", 1),
            Plans.Section("s1"),
            Plans.Section(
                "s2",
                new Adjustment.OfItem
                {
                    Item = new("i1"),
                    Opens = new Anchor { At = AnchorBase.TermStart },
                }
            )
        );
        Reach.Between(before, adjusted, sizes).Sentence.ShouldBe("1 date moves in 9 Birch, for 1 student.");
        Reach.Between(before, Two(Of("A diary", 1)), []).Sentence.ShouldBe("No section follows this edition yet: only the team sees it.");
        Reach.Between(before, before, sizes).Sentence.ShouldBe("Nothing changes for anyone.");

        // The one student of 9 Birch is in 9 Alder too, and counts once.
        static ImmutableArray<Ref<Student>> People(int first, int count) =>
            [.. Enumerable.Range(first, count).Select(n => new Ref<Student>($"p{n}"))];
    }
}
