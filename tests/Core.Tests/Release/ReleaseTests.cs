using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Release;

/// <summary>What students see, and what they are told. The computation, chapter 5.</summary>
public sealed class ReleaseTests
{
    private static readonly Instant Monday = Instant.FromUtc(2026, 9, 7, 8, 0);

    private static Gen<T> One<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(n => values[n]);

    private static Fact Did(string item, FactEvent what, int hours, bool again = false, decimal? score = null) =>
        new(new("p1"), new(item), what, Monday + Duration.FromHours(hours), Score: score, Again: again);

    private static Sights Sights(Edition edition, params Fact[] facts) =>
        new(Plans.Schedule(edition, Plans.Section("s1")), Plans.Student("s1", facts));

    private static Edition Chain() =>
        Plans.Edition(
            Plans.Unit(
                "u1",
                Plans.Lesson(
                    "l1",
                    1,
                    Plans.Task("a", new() { At = AnchorBase.LessonStart }),
                    Plans.Task("b", gate: new GateNode.Done(new("a"), Deed.Returned)),
                    Plans.Task("c", gate: new GateNode.Done(new("b"), Deed.Returned))
                )
            )
        );

    [Fact]
    public void A_step_opens_when_feedback_on_the_one_before_is_given_back_to_go_on()
    {
        var sights = Sights(
            Chain(),
            Did("a", FactEvent.Submitted, 1),
            Did("a", FactEvent.Returned, 2, again: true),
            Did("a", FactEvent.Submitted, 3),
            Did("a", FactEvent.Returned, 4)
        );
        Sight At(string item, int hours) => sights.Of(new(item), Monday + Duration.FromHours(hours))!;
        (At("a", 0).Progress, At("b", 0).State).ShouldBe((Progress.None, ReleaseState.Locked));
        new SightWords(sights).Missing(At("b", 1), Monday + Duration.FromHours(1)).ShouldBe(["feedback on 1.01 Task a is given back"]);
        (At("a", 1).Progress, At("a", 2).Progress).ShouldBe((Progress.WithTeacher, Progress.TryAgain));
        At("b", 3).State.ShouldBe(ReleaseState.Locked);
        (At("a", 4).Progress, At("b", 4).State, At("b", 4).MayWork).ShouldBe((Progress.GivenBack, ReleaseState.Open, true));
        (At("c", 4).State, At("c", 4).MayRead, At("c", 4).Body).ShouldBe((ReleaseState.Locked, false, null));
    }

    [Fact]
    public void Nobody_is_told_of_a_group_a_score_below_or_a_not_nor_of_what_they_may_not_see()
    {
        var hidden = new Gate(
            new GateNode.AllOf([
                new GateNode.InGroup("support"),
                new GateNode.Scored(new("a"), null, 50),
                new GateNode.Not(new GateNode.Done(new("a"), Deed.Ticked)),
                new GateNode.Done(new("x"), Deed.Submitted),
                new GateNode.Scored(new("a"), 40, null),
            ]),
            WhenLocked: WhenLocked.Show
        );
        var edition = Plans.Edition(
            Plans.Unit(
                "u1",
                Plans.Lesson("l1", 1, Plans.Task("a"), Plans.Task("x") with { Published = false }, Plans.Task("b") with { Gate = hidden })
            )
        );
        new SightWords(Sights(edition))
            .Missing(Sights(edition).Of(new("b"), Monday)!, Monday)
            .ShouldBe([$"{SightWords.NotShown} is handed in", "the score in 1.01 Task a is at least 40 %"]);
        // Nor is how they stand with it: only with what they may see.
        new SightWords(Sights(edition))
            .Steps(Sights(edition).Of(new("b"), Monday)!, Monday)
            .ShouldBe([new OwnStep(new("a"), "1.01 Task a", "it is open to you")]);
        // Unless it was said otherwise, such a condition hides the whole.
        Sights(Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, Plans.Task("a"), Plans.Task("b", gate: hidden.Root)))))
            .Of(new("b"), Monday)
            .ShouldBeNull();
    }

    [Fact]
    public void A_student_is_told_how_they_stand_with_each_thing_that_an_item_waits_for_and_whose_turn_it_is()
    {
        var due = new Anchor { At = AnchorBase.TermStart, Days = 9 };
        var edition = Plans.Edition(
            Plans.Unit(
                "u1",
                Plans.Lesson(
                    "l1",
                    1,
                    Plans.Task("a", due: due),
                    Plans.Task("b", new() { At = AnchorBase.TermStart, Days = 3 }),
                    Plans.Task("c", gate: new GateNode.Done(new("a"), Deed.Returned)),
                    Plans.Task(
                        "d",
                        gate: new GateNode.AllOf([
                            new GateNode.Done(new("a"), Deed.Returned),
                            new GateNode.AnyOf([new GateNode.Done(new("b"), Deed.Submitted), new GateNode.Scored(new("a"), 50, null)]),
                            new GateNode.Done(new("c"), Deed.Submitted),
                        ])
                    )
                )
            )
        );
        var at = Monday + Duration.FromHours(5);
        IReadOnlyList<string> Steps(params Fact[] facts)
        {
            var sights = Sights(edition, facts);
            return [.. new SightWords(sights).Steps(sights.Of(new("d"), at)!, at).Select(step => $"{step.Title}: {step.Words}")];
        }
        Fact Did(FactEvent what, int hours, bool again = false) =>
            new(new("p1"), new("a"), what, Monday + Duration.FromHours(hours), Again: again);

        var locked = "1.03 Task c: it is not open to you yet either";
        var later = "1.02 Task b: it opens on Thu 10 Sep, 00:00";
        Steps().ShouldBe(["1.01 Task a: it is open to you, due Wed 16 Sep, 00:00", later, locked]);
        Steps(Did(FactEvent.Submitted, 1))
            .ShouldBe(["1.01 Task a: you handed it in on Mon 7 Sep, 10:00, and your teacher has it", later, locked]);
        Steps(Did(FactEvent.Submitted, 1), Did(FactEvent.Returned, 2, again: true))
            .ShouldBe(["1.01 Task a: it came back to you to try again", later, locked]);
        Steps(Did(FactEvent.Submitted, 1), Did(FactEvent.Returned, 2))
            .ShouldBe([later, "1.01 Task a: your score is not high enough yet", "1.03 Task c: it is open to you"]);
    }

    [Fact]
    public void Two_feedbacks_at_one_instant_open_both_and_what_waits_for_the_two()
    {
        var edition = Plans.Edition(
            Plans.Unit(
                "u1",
                Plans.Lesson(
                    "l1",
                    1,
                    Plans.Task("a"),
                    Plans.Task("b"),
                    Plans.Task("c", gate: new GateNode.Done(new("a"), Deed.Returned)),
                    Plans.Task("d", gate: new GateNode.Done(new("b"), Deed.Returned)),
                    Plans.Task(
                        "e",
                        gate: new GateNode.AllOf([new GateNode.Done(new("a"), Deed.Returned), new GateNode.Done(new("b"), Deed.Returned)])
                    )
                )
            )
        );
        var at = Monday + Duration.FromHours(2);
        Fact Back(string item) => new(new("p1"), new(item), FactEvent.Returned, at);
        foreach (var facts in new[] { new[] { Back("a"), Back("b") }, [Back("b"), Back("a")] })
        {
            Sights(edition, facts)
                .At(at)
                .Where(sight => sight.MayWork)
                .Select(sight => sight.Item.Name)
                .ShouldBe(["a", "b", "c", "d", "e"]);
            Sights(edition, facts)
                .At(at - Duration.Epsilon)
                .Where(sight => sight.MayWork)
                .Select(sight => sight.Item.Name)
                .ShouldBe(["a", "b"]);
        }
    }

    [Fact]
    public void Before_it_opens_an_item_is_listed_or_unseen_as_the_team_chose()
    {
        var later = new Anchor { At = AnchorBase.TermStart, Days = 3 };
        var edition = Plans.Edition(
            Plans.Unit(
                "u1",
                Plans.Lesson(
                    "l1",
                    1,
                    Plans.Task("a", later) with
                    {
                        Body = "text",
                    },
                    Plans.Task("b", later) with
                    {
                        Before = BeforeOpening.Unseen,
                    }
                )
            )
        );
        var sights = Sights(edition);
        var before = sights.Of(new("a"), Monday)!;
        (before.State, before.Sees, before.Body).ShouldBe((ReleaseState.Upcoming, Sees.Title, null));
        sights.Of(new("b"), Monday).ShouldBeNull();
        sights.At(Monday + Duration.FromDays(4)).Select(sight => (sight.Item.Name, sight.MayWork)).ShouldBe([("a", true), ("b", true)]);
    }

    [Fact]
    public void What_is_to_come_is_listed_with_its_condition_and_not_at_all_where_that_may_never_be_theirs()
    {
        var later = new Anchor { At = AnchorBase.TermStart, Days = 3 };
        Sights With(GateNode gate) =>
            Sights(Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, Plans.Task("a"), Plans.Task("b", later, gate: gate)))));
        Sight? Upcoming(GateNode gate) => With(gate).Of(new("b"), Monday);
        var returned = new GateNode.Done(new("a"), Deed.Returned);
        var told = Upcoming(returned)!;
        (told.State, told.Sees).ShouldBe((ReleaseState.Upcoming, Sees.Title));
        new SightWords(With(returned)).Missing(told, Monday).ShouldBe(["feedback on 1.01 Task a is given back"]);
        foreach (
            var hidden in new GateNode[]
            {
                new GateNode.Scored(new("a"), null, 50),
                new GateNode.InGroup("support"),
                new GateNode.Not(new GateNode.Done(new("a"), Deed.Opened)),
                new GateNode.Picked(new("a"), "x"),
            }
        )
            if (hidden is not GateNode.Not)
                Upcoming(hidden).ShouldBeNull();
        // What is due by the day of joining is there to be done, and late for nobody.
        var due = Plans.Edition(
            Plans.Unit("u1", Plans.Lesson("l1", 1, Plans.Task("a", due: new() { At = AnchorBase.TermStart, Days = 1 })))
        );
        var joined = Plans.Student("s1") with { Enrolments = [(new("s1"), new(new("p1"), new LocalDate(2026, 9, 8)))] };
        var sight = new Sights(Plans.Schedule(due, Plans.Section("s1")), joined).Of(new("a"), Monday + Duration.FromDays(3))!;
        (sight.State, sight.BeforeJoining).ShouldBe((ReleaseState.Open, true));
    }

    [Fact]
    public void Dropping_a_step_or_excusing_from_it_never_locks_what_was_open_and_a_latch_holds()
    {
        var facts = Gen.Select(
                One("a", "b", "c"),
                One(FactEvent.Submitted, FactEvent.Returned, FactEvent.TakenBack),
                Gen.Int[0, 40],
                Gen.Bool
            )
            .Select(drawn => Did(drawn.Item1, drawn.Item2, drawn.Item3, drawn is { Item2: FactEvent.Returned, Item4: true }))
            .Array[0, 12];
        Gen.Select(facts, Gen.Int[0, 40])
            .Sample(
                (happened, hours) =>
                {
                    var at = Monday + Duration.FromHours(hours);
                    var plain = Plans.Schedule(Chain(), Plans.Section("s1"));
                    var dropped = Plans.Schedule(Chain(), Plans.Section("s1", new Adjustment.OfItem { Item = new("b"), Skip = true }));
                    // Nobody works on what is not open to them.
                    var lawful = new List<Fact>();
                    foreach (var fact in happened.OrderBy(fact => fact.At))
                        if (new Explain(plain, Plans.Student("s1", [.. lawful])).Decide(fact.Item, fact.At).State == ReleaseState.Open)
                            lawful.Add(fact);
                    var student = Plans.Student("s1", [.. lawful]);
                    var excused = student with
                    {
                        Exceptions = new Dictionary<Ref<Item>, ForOneStudent>
                        {
                            [new("b")] = new()
                            {
                                Student = student.Student,
                                Item = new("b"),
                                Excused = true,
                            },
                        },
                    };
                    if (new Explain(plain, student).Decide(new("c"), at).State is ReleaseState.Open or ReleaseState.Overdue)
                    {
                        new Explain(dropped, student).Decide(new("c"), at).State.ShouldBe(ReleaseState.Open);
                        new Explain(plain, excused).Decide(new("c"), at).State.ShouldBe(ReleaseState.Open);
                        new Explain(plain, student).Decide(new("c"), at + Duration.FromDays(2)).State.ShouldBe(ReleaseState.Open);
                    }
                }
            );
    }

    [Fact]
    public void A_course_without_conditions_releases_by_dates_alone_and_what_was_begun_stays_readable()
    {
        var edition = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, Plans.Task("a", new() { At = AnchorBase.LessonStart }))));
        Gen.Select(Gen.Int[-48, 96], One(Enum.GetValues<FactEvent>()))
            .Sample(
                (hours, what) =>
                {
                    var at = Monday + Duration.FromHours(hours);
                    var fact = Did("a", what, -100, score: what == FactEvent.Scored ? 50 : null);
                    var begun = what is not (FactEvent.Opened or FactEvent.Unticked or FactEvent.TakenBack);
                    var decision = new Explain(Plans.Schedule(edition, Plans.Section("s1")), Plans.Student("s1", fact)).Decide(
                        new("a"),
                        at
                    );
                    var opens = Instant.FromUtc(2026, 9, 7, 7, 40);
                    decision.State.ShouldBe(
                        at >= opens ? ReleaseState.Open
                        : begun ? ReleaseState.Withdrawn
                        : ReleaseState.Upcoming
                    );
                    if (begun)
                        (decision.Sees >= Sees.Read).ShouldBeTrue();
                }
            );
    }
}
