using System.Collections.Immutable;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Planning;

/// <summary>What a change is said to do to students, before it is done. Two sections, three students, one of whom has handed in.</summary>
public sealed class ReachTests
{
    private static readonly Instant Monday = Instant.FromUtc(2026, 9, 7, 9, 0);
    private static readonly string[] Alder = ["ann", "ben"],
        Birch = ["cas"];
    private static readonly Fact HandedIn = new(new("ben"), new("a"), FactEvent.Submitted, Monday - Duration.FromMinutes(30));

    [Fact]
    public void Publishing_says_where_it_opens_now_and_for_how_many_or_when_it_opens_first()
    {
        var open = Of(Course(Plans.Task("b") with { Published = false }), Course(Plans.Task("b")));
        (open.Sentence, open.Effect).ShouldBe(("Opens now in both sections, for 3 students.", Effect.Some));
        var later = Of(Course(Plans.Task("b", Days(3)) with { Published = false }), Course(Plans.Task("b", Days(3))));
        later.Sentence.ShouldBe(
            "Is listed from now on in both sections, for 3 students. Opens later in both sections, first Thu 10 Sep, 00:00 in 9 Alder."
        );
    }

    [Fact]
    public void Taking_away_says_from_whom_and_that_what_was_begun_can_still_be_read()
    {
        var without = Of(Course(), Course() with { Units = [Plans.Unit("u1", Plans.Lesson("l1", 1))] }, removed: [Plans.Task("a")]);
        (without.Sentence, without.Effect).ShouldBe(
            (
                "Disappears in both sections, for 2 students. 1 student who has begun it can still read it, with all they wrote.",
                Effect.Takes
            )
        );
        var held = Of(Course(), Course(), new Adjustment.OfItem { Item = new("a"), Hold = true });
        (held.Sentence, held.Effect).ShouldBe(
            ("Disappears in 9 Birch, for 1 student. Keeps 1 item back in 9 Birch, for 1 student.", Effect.Takes)
        );
        var dropped = Of(
            Course(Plans.Task("b", Days(3), Days(5))),
            Course(Plans.Task("b", Days(3), Days(5))),
            new Adjustment.OfItem { Item = new("b"), Skip = true }
        );
        dropped.Sentence.ShouldBe("Disappears in 9 Birch, for 1 student. Drops 1 item in 9 Birch, for 1 student.");
        dropped.Rows.ShouldNotContain(row => row.Field == "due");
    }

    [Fact]
    public void A_due_set_into_the_past_says_for_how_many_it_is_overdue_and_a_later_one_who_has_handed_in()
    {
        var past = Of(Course(Plans.Task("b")), Course(Plans.Task("b", due: Days(0))));
        (past.Sentence, past.Effect).ShouldBe(
            ("Is overdue at once in both sections, for 3 students. 2 dates move in both sections, for 3 students.", Effect.Takes)
        );
        var later = Of(Course(), Edition(Plans.Task("a", due: Days(2))));
        (later.Sentence, later.Effect).ShouldBe(
            ("2 dates move in both sections, for 3 students. 1 student has handed in work for it.", Effect.Some)
        );
    }

    [Fact]
    public void Narrowing_says_who_loses_it_who_keeps_it_and_who_had_begun_even_before_anybody_has_seen_it()
    {
        static Item For(Item item, params string[] students) =>
            item with
            {
                For = new([.. students.Select(name => new Ref<Student>(name))], null, []),
            };
        var seen = Of(Course(), Edition(For(Plans.Task("a"), "ann")));
        (seen.Sentence, seen.Effect).ShouldBe(
            (
                "Disappears in 9 Birch, for 1 student. 1 student who has begun "
                    + "it can still read it, with all they wrote. 1 student keeps it.",
                Effect.Takes
            )
        );
        seen.Keep.Select(one => one.Student.Name).ShouldBe(["ann"]);
        Of(Course(), Edition(For(Plans.Task("a")))).Sentence.ShouldEndWith(" Nobody keeps it.");
        var unseen = Plans.Task("b", Days(3)) with { Before = BeforeOpening.Unseen };
        var later = Of(Course(unseen), Course(For(unseen, "ann", "cas")));
        (later.Sentence, later.Effect).ShouldBe(("1 student who has not seen it yet will not get it. 2 students keep it.", Effect.Takes));
        // What is dropped or unpublished is no question of whom it is for, nor is one more who gets it.
        Of(Course(), Course(), new Adjustment.OfItem { Item = new("a"), Skip = true }).Keep.ShouldBeEmpty();
        Of(Edition(For(Plans.Task("a"), "ann")), Edition(For(Plans.Task("a"), "ann", "cas")))
            .Sentence.ShouldBe("Opens now in 9 Birch, for 1 student.");
    }

    [Fact]
    public void What_no_student_sees_yet_changes_nothing_for_them_and_what_falls_out_of_the_term_is_counted()
    {
        var unseen = Of(
            Course(Plans.Task("b") with { Published = false }),
            Course(Plans.Task("b") with { Published = false, Title = "Another" })
        );
        (unseen.Sentence, unseen.Effect).ShouldBe(("Students see nothing of this yet: only the team does.", Effect.None));
        var longer = Of(
            Edition(1, Plans.Task("a"), Plans.Task("b", new() { At = AnchorBase.LessonEnd })),
            Edition(5, Plans.Task("a"), Plans.Task("b", new() { At = AnchorBase.LessonEnd, Meetings = 1 }))
        );
        longer.Sentence.ShouldContain("1 item falls out of the term in 9 Alder.");
        longer.Sentence.ShouldContain("9 Alder no longer fits, by 1 class.");
    }

    private static Anchor Days(int days) => new() { At = AnchorBase.TermStart, Days = days };

    private static Edition Course(params Item[] more) => Edition([Plans.Task("a"), .. more]);

    private static Edition Edition(params Item[] items) => Edition(1, items);

    private static Edition Edition(int length, params Item[] items) => Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", length, items)));

    // The adjustments are those of 9 Birch after the change.
    private static Reach Of(Edition before, Edition after, Adjustment? birch = null, ImmutableArray<Item> removed = default)
    {
        var was = Plans.Schedule(before, Plans.Section("s1"), Plans.Section("s2"));
        var will = PlanSchedule.Of(
            was.Term,
            after,
            [Plans.Section("s1"), birch is null ? Plans.Section("s2") : Plans.Section("s2", birch)],
            removed
        );
        StudentRecord[] students = [.. Alder.Select(name => Student("s1", name)), .. Birch.Select(name => Student("s2", name))];
        return Reach.Between(
            was,
            will,
            [
                new(new("s1"), "9 Alder", [.. Alder.Select(name => new Ref<Student>(name))]),
                new(new("s2"), "9 Birch", [.. Birch.Select(name => new Ref<Student>(name))]),
            ],
            SightReach.Between(was, will, students, Monday),
            Monday
        );
    }

    private static StudentRecord Student(string section, string name) =>
        new(
            new(name),
            new HashSet<string>(),
            null,
            [(new(section), new(new(name)))],
            new Dictionary<Ref<Item>, ForOneStudent>(),
            new(name == "ben" ? [HandedIn] : [])
        );
}
