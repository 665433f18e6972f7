using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Polycline.Tests.Core.Generated;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Release;

/// <summary>What would be: thresholds moved, feedback given back, a change carried out. The computation, chapters 5 and 10.</summary>
public sealed class WhatIfTests
{
    private static readonly Instant Monday = Instant.FromUtc(2026, 9, 7, 12, 0);

    [Fact]
    public void A_moved_threshold_changes_sides_only_for_who_lies_between()
    {
        StudentRecord[] students =
        [
            Student("ann", Scored("q", 80)),
            Student("ben", Scored("q", 55), Scored("q", 72, 2, hours: 1)),
            Student("cas", Scored("q", 90), Scored("q", 40, 1, hours: 2)),
            Student("dee", Scored("q", 55)),
            Student("eli"),
        ];
        var best = Thresholds.Of(students, new("q"), latest: false, latched: false, Monday + Duration.FromHours(5));
        best.Scored.Select(pair => (pair.Student.Name, pair.Score)).ShouldBe([("ann", 80), ("ben", 72), ("dee", 55), ("cas", 40)]);
        best.Unscored.Select(student => student.Name).ShouldBe(["eli"]);
        best.Passing(55).Select(student => student.Name).ShouldBe(["ann", "ben", "dee"]);
        best.Steps().ShouldBe([(80, 1), (72, 2), (55, 3), (40, 4)]);
        (string.Join(' ', best.Moved(60, 75).Lose), best.Moved(60, 75).Gain.Length).ShouldBe(("ben", 0));
        (string.Join(' ', best.Moved(75, 55).Gain), best.Moved(75, 55).Lose.Length).ShouldBe(("ben dee", 0));
        // Who once had 90 has passed for good, whatever the correction says; not before it was given.
        var latched = Thresholds.Of(students, new("q"), false, true, Monday + Duration.FromHours(5));
        latched.Scored[0].ShouldBe((new("cas"), 90));
        Thresholds.Of(students, new("q"), true, false, Monday).Passing(60).Select(student => student.Name).ShouldBe(["cas", "ann"]);
    }

    [Fact]
    public void A_piece_that_would_open_something_is_told_with_what_and_of_each_item_how_many_wait()
    {
        var back = new GateNode.Done(new("a"), Deed.Returned);
        var plan = Plans.Schedule(
            Plans.Edition(
                Plans.Unit(
                    "u1",
                    Plans.Lesson(
                        "l1",
                        1,
                        Plans.Task("a"),
                        Plans.Task("b"),
                        Plans.Task("c", gate: back),
                        Plans.Task("d", gate: new GateNode.AllOf([back, new GateNode.Done(new("b"), Deed.Submitted)]))
                    )
                )
            ),
            Plans.Section("s1")
        );
        StudentRecord[] students =
        [
            Student("ann", Did("b", FactEvent.Submitted)),
            Student("ben", Did("a", FactEvent.Submitted, 2)),
            Student("cas", Did("b", FactEvent.Submitted, 1), Did("a", FactEvent.Submitted, 3)),
            Student("dee", Did("a", FactEvent.Submitted), Did("a", FactEvent.Returned, 1)),
        ];
        var waits = WhoWaits.Of(plan, students, Monday + Duration.FromHours(4));
        waits.Pieces.Select(piece => $"{piece.Student} {piece.Item} {string.Join(',', piece.Opens)}").ShouldBe(["ben a c", "cas a c,d"]);
        waits.Items.ShouldBe([new(new("a"), 2, 2), new(new("b"), 2, 0)]);
        WhoWaits
            .Of(plan, students, Monday + Duration.FromHours(2) + Duration.FromMinutes(30))
            .Items.ShouldBe([new(new("a"), 1, 1), new(new("b"), 2, 0)]);
    }

    [Fact]
    public void Who_has_nothing_open_while_something_remains_is_named_with_what_it_waits_for()
    {
        var plan = Plans.Schedule(
            Plans.Edition(
                Plans.Unit(
                    "u1",
                    Plans.Lesson(
                        "l1",
                        1,
                        Plans.Task("a"),
                        Plans.Task("b", gate: new GateNode.Done(new("a"), Deed.Returned)),
                        Plans.Task("c", new() { At = AnchorBase.TermStart, Days = 3 }),
                        Plans.Task("x") with
                        {
                            Published = false,
                        }
                    )
                )
            ),
            Plans.Section("s1")
        );
        StudentRecord[] students =
        [
            Student("ann"),
            Student("ben", Did("a", FactEvent.Submitted)),
            Student("cas", Did("a", FactEvent.Submitted), Did("a", FactEvent.Returned, 1)),
        ];
        var at = Monday + Duration.FromHours(2);
        var idle = WhoWaits.Of(plan, students, at).Nothing.ShouldHaveSingleItem();
        (idle.Student.Name, idle.Remains, idle.Item.Name, idle.Because).ShouldBe(("ben", 2, "b", Stalled.GivingBack));
        // Everything done and nothing to come is no reason to be named.
        WhoWaits
            .Of(Plans.Schedule(Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, Plans.Task("a")))), Plans.Section("s1")), students, at)
            .Nothing.ShouldBeEmpty();
    }

    [Fact]
    public void The_reach_of_a_change_tells_who_gains_and_loses_sight_whose_dates_move_and_who_has_begun()
    {
        var due = new Anchor { At = AnchorBase.LessonEnd, Days = 3 };
        var before = Plans.Edition(
            Plans.Unit("u1", Plans.Lesson("l1", 1, Plans.Task("a", due: due), Plans.Task("b") with { Published = false }))
        );
        var after = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 2, Plans.Task("a", due: due), Plans.Task("b"))));
        StudentRecord[] students = [Student("ann"), Student("ben", Did("a", FactEvent.Begun))];
        var reach = SightReach.Between(
            Plans.Schedule(before, Plans.Section("s1")),
            Plans.Schedule(after, Plans.Section("s1")),
            students,
            Monday
        );
        reach.Changes.ShouldBe([
            new()
            {
                Student = new("ann"),
                Section = new("s1"),
                Item = new("a"),
                Before = Sees.Work,
                After = Sees.Work,
                DateMoves = true,
            },
            new()
            {
                Student = new("ann"),
                Section = new("s1"),
                Item = new("b"),
                Before = Sees.Nothing,
                After = Sees.Work,
            },
            new()
            {
                Student = new("ben"),
                Section = new("s1"),
                Item = new("a"),
                Before = Sees.Work,
                After = Sees.Work,
                DateMoves = true,
                HasBegun = true,
            },
            new()
            {
                Student = new("ben"),
                Section = new("s1"),
                Item = new("b"),
                Before = Sees.Nothing,
                After = Sees.Work,
            },
        ]);
        // Keeping it back takes it from both; who has begun still reads it.
        var held = SightReach.Between(
            Plans.Schedule(before, Plans.Section("s1")),
            Plans.Schedule(before, Plans.Section("s1", new Adjustment.OfItem { Item = new("a"), Hold = true })),
            students,
            Monday
        );
        held.Changes.Select(change => (change.Student.Name, change.After, change.HasBegun, change.Takes))
            .ShouldBe([("ann", Sees.Nothing, false, true), ("ben", Sees.Read, true, true)]);
        // One student's exception reaches that student only.
        var excused = students[0] with
        {
            Exceptions = new Dictionary<Ref<Item>, ForOneStudent>
            {
                [new("a")] = new()
                {
                    Student = students[0].Student,
                    Item = new("a"),
                    Excused = true,
                },
            },
        };
        SightReach
            .Between(
                Plans.Schedule(before, Plans.Section("s1")),
                Plans.Schedule(before, Plans.Section("s1")),
                [(students[0], excused), (students[1], students[1])],
                Monday
            )
            .Changes.ShouldHaveSingleItem()
            .ShouldBe(
                new()
                {
                    Student = new("ann"),
                    Section = new("s1"),
                    Item = new("a"),
                    Before = Sees.Work,
                    After = Sees.Title,
                }
            );
    }

    [Fact]
    public void On_whatever_plan_what_a_piece_frees_and_a_change_reaches_is_what_the_plain_evaluator_says()
    {
        Gen.Select(SomePlan.Plans, SomePlan.Moments)
            .Sample(
                (plan, at) =>
                {
                    var before = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);
                    var after = PlanSchedule.Of(
                        TermDays.Of(plan.Term),
                        plan.Edition,
                        [
                            .. plan
                                .Sections.Select(section => section with { Adjustments = [], Opened = [], Taught = [] })
                                .Select(section =>
                                    section with
                                    {
                                        Adjustments =
                                        [
                                            .. plan
                                                .Sections.Single(own => own.Ref == section.Ref)
                                                .Adjustments.Where(adjustment =>
                                                    adjustment is Adjustment.AddUnit or Adjustment.AddLesson or Adjustment.AddItem
                                                ),
                                        ],
                                    }
                                ),
                        ]
                    );
                    foreach (var student in new[] { StudentRecord.Of(plan, new("p1")), StudentRecord.Of(plan, new("p2")) })
                    {
                        var items = before.Sections.SelectMany(section => section.Items).Select(item => item.Item.Ref).Distinct().ToList();
                        var explain = new Explain(before, student);
                        var reached = SightReach
                            .Between(before, after, [student], at)
                            .Changes.Where(change => change.Before != change.After)
                            .Select(change => (change.Item, change.Before, change.After));
                        reached.ShouldBe(
                            items
                                .Select(item => (item, explain.Decide(item, at).Sees, new Explain(after, student).Decide(item, at).Sees))
                                .Where(change =>
                                    change.Item2 != change.Item3
                                    && before.Section(student.SectionAt(plan.Term, at)!.Value).Item(change.item) is not null
                                ),
                            ignoreOrder: true
                        );
                        SightReach.Between(before, before, [student], at).Changes.ShouldBeEmpty();
                        foreach (var piece in WhoWaits.Of(before, [student], at).Pieces)
                        {
                            var given = new Explain(
                                before,
                                student with
                                {
                                    Facts = new([.. student.Facts.All, new(student.Student, piece.Item, FactEvent.Returned, at)]),
                                }
                            );
                            piece.Opens.ShouldBe(
                                items.Where(item => !IsOpen(explain.Decide(item, at)) && IsOpen(given.Decide(item, at))),
                                ignoreOrder: true
                            );
                        }
                    }
                },
                iter: 60
            );
    }

    private static bool IsOpen(Decision decision) => decision.State is ReleaseState.Open or ReleaseState.Overdue;

    private static StudentRecord Student(string name, params Fact[] facts) =>
        new(
            new(name),
            new HashSet<string>(),
            null,
            [(new("s1"), new(new(name)))],
            new Dictionary<Ref<Item>, ForOneStudent>(),
            new([.. facts.Select(fact => fact with { Student = new(name) })])
        );

    private static Fact Did(string item, FactEvent what, int hours = 0) =>
        new(new("p1"), new(item), what, Monday + Duration.FromHours(hours));

    private static Fact Scored(string item, decimal score, int attempt = 1, int hours = 0) =>
        Did(item, FactEvent.Scored, hours) with
        {
            Score = score,
            Attempt = attempt,
        };
}
