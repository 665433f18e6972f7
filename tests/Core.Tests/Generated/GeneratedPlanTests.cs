using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Generated;

/// <summary>What holds on whatever plan. The computation, chapters 2 to 6.</summary>
public sealed class GeneratedPlanTests
{
    private static PlanSchedule Schedule(Plan plan) => PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);

    [Fact]
    public void Meetings_are_numbered_in_order_and_lessons_and_items_are_all_there()
    {
        SomePlan.Plans.Sample(plan =>
        {
            foreach (var section in Schedule(plan).Sections)
            {
                var meetings = section.Meetings.Meetings;
                meetings.Select(meeting => meeting.Ordinal).ShouldBe(Enumerable.Range(1, meetings.Length));
                meetings.Zip(meetings.Skip(1)).ShouldAllBe(pair => pair.First.StartsAt <= pair.Second.StartsAt);
                meetings.ShouldAllBe(meeting =>
                    meeting.StartsAt <= meeting.EndsAt && meeting.Minutes <= (meeting.EndsAt - meeting.StartsAt).TotalMinutes
                );
                section
                    .Course.Lessons.Where(lesson => !lesson.IsOwn)
                    .Select(lesson => lesson.Ref)
                    .ShouldBe(plan.Edition.Units.SelectMany(unit => unit.Lessons).Select(lesson => lesson.Ref), ignoreOrder: true);
                section
                    .Forecast.Lessons.Select(lesson => lesson.Lesson)
                    .ShouldBe(section.Course.Lessons.Where(lesson => !lesson.Skipped).Select(lesson => lesson.Ref));
                section
                    .Items.Where(item => !item.Item.IsOwn)
                    .Select(item => item.Item.Ref)
                    .ShouldBe(plan.Edition.InReadingOrder().Select(item => item.Ref));
                section.Findings.ShouldBe(
                    section
                        .Findings.OrderBy(finding => EnumNames.Of(finding.Code), StringComparer.Ordinal)
                        .ThenBy(finding => finding.Target, StringComparer.Ordinal)
                );
            }
        });
    }

    [Fact]
    public void Lessons_take_class_time_that_is_there_in_order_and_what_is_placed_and_what_is_not_make_up_the_length()
    {
        var (inMinutes, followed) = (new Reached(), new Reached());
        SomePlan.Plans.Sample(plan =>
        {
            foreach (var section in Schedule(plan).Sections)
            {
                var meetings = section.Meetings.Meetings;
                int Capacity(int ordinal) =>
                    plan.Edition.Basis == Basis.Meetings ? meetings[ordinal - 1].Counts : meetings[ordinal - 1].Minutes;
                var lengths = section.Course.Lessons.ToDictionary(lesson => lesson.Ref, lesson => lesson.Length);
                foreach (var lesson in section.Planned.Lessons)
                {
                    lesson.Ordinals.Zip(lesson.Ordinals.Skip(1)).ShouldAllBe(pair => pair.First < pair.Second);
                    lesson.Overflow.ShouldBeInRange(0, lengths[lesson.Lesson]);
                    var placed = lengths[lesson.Lesson] - lesson.Overflow;
                    lesson.Ordinals.Sum(Capacity).ShouldBeGreaterThanOrEqualTo(placed);
                    // What stands between its start and its end is what it takes.
                    if (
                        plan.Edition.Basis == Basis.Minutes
                        && placed > 0
                        && section.Findings.All(finding => finding.Code != FindingCode.MeetingOverlap)
                        && section.Course.Lessons.All(other => other.Pin is null)
                    )
                    {
                        meetings
                            .SelectMany(meeting => meeting.Stretches)
                            .Sum(stretch => MinutesIn(stretch, lesson.StartsAt!.Value, lesson.EndsAt!.Value))
                            .ShouldBe(placed);
                        inMinutes.Now();
                    }
                }
                section
                    .Planned.Lessons.Sum(lesson => lengths[lesson.Lesson] - lesson.Overflow)
                    .ShouldBeLessThanOrEqualTo(meetings.Sum(meeting => Capacity(meeting.Ordinal)));
                section.Planned.Lacking.ShouldBe(section.Planned.Lessons.Sum(lesson => lesson.Overflow));
                section
                    .Planned.Spare.Concat(section.Planned.Free)
                    .Concat(section.Planned.Lessons.SelectMany(lesson => lesson.Ordinals))
                    .Distinct()
                    .Order()
                    .ShouldBe(meetings.Select(meeting => meeting.Ordinal));
                // Overlapping classes aside, the lessons that flow follow one another.
                if (section.Findings.All(finding => finding.Code is not (FindingCode.MeetingOverlap or FindingCode.AfterPin)))
                {
                    var flowing = section
                        .Planned.Lessons.Where(lesson => lesson.IsPlaced && section.Lesson(lesson.Lesson)!.Pin is null)
                        .ToList();
                    flowing.Zip(flowing.Skip(1)).ShouldAllBe(pair => pair.First.EndsAt <= pair.Second.StartsAt);
                    if (flowing.Count > 1)
                        followed.Now();
                }
            }
        });
        inMinutes.ShouldBeOften();
        followed.ShouldBeOften();
    }

    private static int MinutesIn(Stretch stretch, Instant from, Instant to) =>
        Instant.Max(stretch.From, from) is var start && Instant.Min(stretch.To, to) is var end && end > start
            ? (int)(end - start).TotalMinutes
            : 0;

    [Fact]
    public void A_difference_put_back_leaves_no_trace()
    {
        SomePlan.Plans.Sample(plan =>
        {
            var bare = plan with { Sections = [.. plan.Sections.Select(section => section with { Adjustments = [] })] };
            string Answer(Plan asked) =>
                string.Join(
                    '\n',
                    Schedule(asked)
                        .Sections.SelectMany(section =>
                            section
                                .Items.Select(item => $"{item.Dates}")
                                .Concat(
                                    section.Forecast.Lessons.Select(lesson =>
                                        $"{lesson.Lesson} {lesson.StartsAt} {lesson.EndsAt} {lesson.Overflow}"
                                    )
                                )
                                .Concat(section.Findings.Select(finding => $"{finding}"))
                        )
                );
            var before = Answer(bare);
            Answer(plan);
            Answer(bare).ShouldBe(before);
            // Put back field by field, by hand, the plan is the same again.
            var lengths = plan.Edition.Units.SelectMany(unit => unit.Lessons).ToDictionary(lesson => lesson.Ref, lesson => lesson.Length);
            var back = bare with
            {
                Sections =
                [
                    .. bare.Sections.Select(section =>
                        section with
                        {
                            Adjustments =
                            [
                                .. lengths.Keys.Select(lesson => new Adjustment.OfLesson(lesson, Length: 7, Skip: true, Hold: true)),
                                .. plan
                                    .Edition.InReadingOrder()
                                    .Select(item => new Adjustment.OfItem
                                    {
                                        Item = item.Ref,
                                        Hold = true,
                                        Skip = true,
                                    }),
                                .. lengths.Select(lesson => new Adjustment.OfLesson(
                                    lesson.Key,
                                    Length: lesson.Value,
                                    Skip: false,
                                    Hold: false
                                )),
                                .. plan
                                    .Edition.InReadingOrder()
                                    .Select(item => new Adjustment.OfItem
                                    {
                                        Item = item.Ref,
                                        Hold = false,
                                        Skip = false,
                                    }),
                            ],
                        }
                    ),
                ],
            };
            Answer(back).ShouldBe(before);
        });
    }

    [Fact]
    public void A_course_without_conditions_releases_by_dates_alone()
    {
        var decided = new Reached();
        Gen.Select(SomePlan.Plans, SomePlan.Moments)
            .Sample(
                (drawn, at) =>
                {
                    var plan = WithGates(drawn, _ => null);
                    var schedule = Schedule(plan);
                    foreach (var record in new[] { StudentRecord.Of(plan, new("p1")), StudentRecord.Of(plan, new("p2")) })
                    foreach (var item in plan.Edition.InReadingOrder())
                    {
                        var decision = new Explain(schedule, record).Decide(item.Ref, at);
                        decision.Gates.ShouldBeEmpty();
                        if (
                            decision.Deciding
                            is not (ReleaseState.Upcoming or ReleaseState.Open or ReleaseState.Overdue or ReleaseState.Closed)
                        )
                            continue;
                        (decision.Deciding == ReleaseState.Upcoming, decision.Deciding == ReleaseState.Closed).ShouldBe(
                            (at < decision.Dates!.Opens.At, !(at < decision.Dates.Opens.At) && at >= decision.Dates.Closes.At)
                        );
                        decided.Now();
                    }
                }
            );
        decided.ShouldBeOften();
    }

    [Fact]
    public void Excusing_from_a_step_or_dropping_it_never_locks_what_was_open()
    {
        // Of conditions that ask for all of something; of an "any" what is dropped is one way less.
        var stayedOpen = new Reached();
        Gen.Select(SomePlan.Plans, SomePlan.Moments, Gen.Int[0, 100])
            .Sample(
                (drawn, at, which) =>
                {
                    var plan = WithGates(drawn, gate =>
                        gate is null
                            ? null
                            : new(
                                new GateNode.AllOf([
                                    .. gate.Root.Leaves().Where(leaf => leaf is GateNode.Done or GateNode.From or GateNode.HasTaught),
                                ])
                            )
                    );
                    if (!plan.Edition.InReadingOrder().Any())
                        return;
                    var schedule = Schedule(plan);
                    var record = Lawful(
                        schedule,
                        StudentRecord.Of(plan, new("p1")) with
                        {
                            Exceptions = new Dictionary<Ref<Item>, ForOneStudent>(),
                        }
                    );
                    var step = plan.Edition.InReadingOrder().ElementAt(which % plan.Edition.InReadingOrder().Count()).Ref;
                    var excused = record with
                    {
                        Exceptions = new Dictionary<Ref<Item>, ForOneStudent>
                        {
                            [step] = new()
                            {
                                Student = record.Student,
                                Item = step,
                                Excused = true,
                            },
                        },
                    };
                    var dropped = Schedule(
                        plan with
                        {
                            Sections =
                            [
                                .. plan.Sections.Select(section =>
                                    section with
                                    {
                                        Adjustments = [.. section.Adjustments, new Adjustment.OfItem { Item = step, Skip = true }],
                                    }
                                ),
                            ],
                        }
                    );
                    var explain = new Explain(schedule, record);
                    foreach (
                        var item in plan
                            .Edition.InReadingOrder()
                            .Where(item =>
                                item.Ref != step && explain.Decide(item.Ref, at).State is ReleaseState.Open or ReleaseState.Overdue
                            )
                    )
                    {
                        new Explain(schedule, excused).Decide(item.Ref, at).State.ShouldBeOneOf(ReleaseState.Open, ReleaseState.Overdue);
                        new Explain(dropped, record).Decide(item.Ref, at).State.ShouldBeOneOf(ReleaseState.Open, ReleaseState.Overdue);
                        if (explain.Decide(item.Ref, at).Gates.Length > 0)
                            stayedOpen.Now();
                    }
                },
                iter: 200
            );
        stayedOpen.ShouldBeOften(4);
    }

    [Fact]
    public void Whatever_becomes_of_a_plan_nothing_begun_becomes_unreadable()
    {
        var begun = new Reached();
        Gen.Select(SomePlan.Plans, SomePlan.Moments)
            .Sample(
                (plan, at) =>
                {
                    var changed = plan with
                    {
                        Edition = plan.Edition with { Units = [.. plan.Edition.Units.Select(unit => unit with { Published = false })] },
                        Sections =
                        [
                            .. plan.Sections.Select(section =>
                                section with
                                {
                                    Slots = [],
                                    Adjustments =
                                    [
                                        .. plan
                                            .Edition.InReadingOrder()
                                            .Select(item => new Adjustment.OfItem
                                            {
                                                Item = item.Ref,
                                                Hold = true,
                                                Skip = item.Ref.Name.Length % 2 == 0,
                                            }),
                                    ],
                                }
                            ),
                        ],
                    };
                    foreach (var record in new[] { StudentRecord.Of(plan, new("p1")), StudentRecord.Of(plan, new("p2")) })
                    foreach (
                        var item in plan
                            .Edition.InReadingOrder()
                            .Where(item => record.Facts.HasBegun(item.Ref, at) && record.SectionAt(plan.Term, at) is not null)
                    )
                    {
                        (
                            new Explain(Schedule(changed), record).Decide(item.Ref, at)
                            is { Sees: >= Sees.Read }
                                or { State: ReleaseState.Excused }
                        ).ShouldBeTrue();
                        begun.Now();
                    }
                }
            );
        begun.ShouldBeOften();
    }

    private static Plan WithGates(Plan plan, Func<Gate?, Gate?> change) =>
        plan with
        {
            Edition = plan.Edition with
            {
                Units =
                [
                    .. plan.Edition.Units.Select(unit =>
                        unit with
                        {
                            Gate = change(unit.Gate),
                            Items = [.. unit.Items.Select(item => item with { Gate = change(item.Gate) })],
                            Lessons =
                            [
                                .. unit.Lessons.Select(lesson =>
                                    lesson with
                                    {
                                        Gate = change(lesson.Gate),
                                        Items = [.. lesson.Items.Select(item => item with { Gate = change(item.Gate) })],
                                    }
                                ),
                            ],
                        }
                    ),
                ],
            },
            Sections =
            [
                .. plan.Sections.Select(section =>
                    section with
                    {
                        Adjustments = [.. section.Adjustments.Where(adjustment => adjustment is not Adjustment.AddItem)],
                    }
                ),
            ],
        };

    // Nobody works on what is not open to them, and nothing is taken back.
    private static StudentRecord Lawful(PlanSchedule schedule, StudentRecord student)
    {
        var facts = new List<Fact>();
        foreach (
            var fact in student
                .Facts.All.Where(fact => fact.Event is FactEvent.Opened or FactEvent.Ticked or FactEvent.Submitted or FactEvent.Returned)
                .OrderBy(fact => fact.At)
        )
            if (
                new Explain(schedule, student with { Facts = new(facts) }).Decide(fact.Item, fact.At).State
                is ReleaseState.Open
                    or ReleaseState.Overdue
            )
                facts.Add(fact with { Again = false });
        return student with { Facts = new(facts) };
    }

    [Fact]
    public void A_deadline_of_the_plan_never_disappears_beyond_the_term()
    {
        SomePlan.Plans.Sample(plan =>
        {
            var term = TermDays.Of(plan.Term);
            foreach (
                var (item, dates) in Schedule(plan).Sections.SelectMany(section => section.Items).Where(item => item.Dates is not null)
            )
            {
                foreach (var date in new[] { dates!.Due, dates.Closes }.Where(date => date is { At: not null, Layer: not Layer.Opened }))
                    term.Term.Local(date.At!.Value).Date.ShouldBeLessThanOrEqualTo(plan.Term.Last);
                if (item.Opened is { } opened)
                    dates.Opens.ShouldBe(new(opened.At, Layer.Opened, true));
                if (dates.DueEarlier)
                    (dates.Due.At, dates.Due.Layer).ShouldBe((item.Opened!.Due, Layer.Opened));
            }
        });
    }

    [Fact]
    public void Without_taught_records_the_forecast_is_the_plan_and_without_differences_sections_alike_are_alike()
    {
        SomePlan.Plans.Sample(plan =>
        {
            var bare = plan.Sections.Select(section => section with { Taught = [], Adjustments = [], Opened = [] }).ToList();
            var twin = bare[0] with { Ref = new("twin") };
            var schedule = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, [.. bare, twin]);
            schedule.Sections.ShouldAllBe(section => ReferenceEquals(section.Planned, section.Forecast));
            var (one, other) = (schedule.Section(bare[0].Ref), schedule.Section(twin.Ref));
            one.Items.Select(item => item.Dates).ShouldBe(other.Items.Select(item => item.Dates));
            one.Forecast.Lessons.Select(lesson => (lesson.StartsAt, lesson.EndsAt, lesson.Overflow))
                .ShouldBe(other.Forecast.Lessons.Select(lesson => (lesson.StartsAt, lesson.EndsAt, lesson.Overflow)));
        });
    }

    [Fact]
    public void Every_decision_is_what_its_reasons_say()
    {
        Gen.Select(SomePlan.Plans, SomePlan.Moments)
            .Sample(
                (plan, at) =>
                {
                    var schedule = Schedule(plan);
                    foreach (var student in new Ref<Student>[] { new("p1"), new("p2") })
                    {
                        var record = StudentRecord.Of(plan, student);
                        var explain = new Explain(schedule, record);
                        foreach (var item in plan.Edition.InReadingOrder())
                            Holds(explain.Decide(item.Ref, at), item, record, at);
                    }
                }
            );
    }

    private static void Holds(Decision decision, Item item, StudentRecord student, Instant at)
    {
        var begun = student.Facts.HasBegun(item.Ref, at);
        (decision.State == ReleaseState.Withdrawn).ShouldBe(decision.Because is not null);
        if (decision.State == ReleaseState.Withdrawn)
            (begun, decision.Sees).ShouldBe((true, Sees.Read));
        if (begun && decision.State is not (ReleaseState.NotEnrolled or ReleaseState.Excused))
            (decision.Sees >= Sees.Read).ShouldBeTrue("what someone has begun stays readable to them");
        switch (decision.Deciding)
        {
            case ReleaseState.Upcoming:
                (at < decision.Dates!.Opens.At).ShouldBeTrue();
                break;
            case ReleaseState.Unscheduled:
                decision.Dates!.Opens.IsUnresolved.ShouldBeTrue();
                break;
            case ReleaseState.Locked:
                decision.Gates.ShouldContain(gate => !gate.Met);
                student.Exceptions.GetValueOrDefault(item.Ref)?.Unlocked.ShouldNotBe(true);
                break;
            case ReleaseState.Open or ReleaseState.Overdue or ReleaseState.Closed:
                decision.Gates.ShouldAllBe(gate => gate.Met);
                (decision.Dates!.Opens.At > at).ShouldBeFalse();
                (decision.Deciding == ReleaseState.Closed).ShouldBe(decision.Dates.Closes.At <= at);
                break;
        }
        if (decision.Deciding == ReleaseState.Overdue)
            (at > decision.Dates!.Due.At && !student.Facts.IsDone(item, at)).ShouldBeTrue();
    }

    [Fact]
    public void What_is_open_by_latched_conditions_stays_open_and_what_has_opened_stays_open_when_the_plan_moves()
    {
        var (latched, opened) = (new Reached(), new Reached());
        Gen.Select(SomePlan.Plans, SomePlan.Moments, Gen.Int[1, 400])
            .Sample(
                (plan, at, later) =>
                {
                    var (schedule, record) = (Schedule(plan), StudentRecord.Of(plan, new("p1")));
                    var explain = new Explain(schedule, record);
                    // Lengths that were not planned: every lesson twice as long.
                    var moved = PlanSchedule.Of(
                        TermDays.Of(plan.Term),
                        plan.Edition with
                        {
                            Units =
                            [
                                .. plan.Edition.Units.Select(unit =>
                                    unit with
                                    {
                                        Lessons = [.. unit.Lessons.Select(lesson => lesson with { Length = lesson.Length * 2 })],
                                    }
                                ),
                            ],
                        },
                        plan.Sections
                    );
                    foreach (var item in plan.Edition.InReadingOrder())
                    {
                        var decision = explain.Decide(item.Ref, at);
                        if (decision.State is not (ReleaseState.Open or ReleaseState.Overdue))
                            continue;
                        var then = explain.Decide(item.Ref, at + Duration.FromHours(later));
                        if (decision.Gates.All(gate => gate.Gate.IsLatched) && then.Section == decision.Section)
                        {
                            then.State.ShouldBeOneOf(ReleaseState.Open, ReleaseState.Overdue, ReleaseState.Closed);
                            if (!decision.Gates.IsEmpty)
                                latched.Now();
                        }
                        if (decision.Dates!.Opens.Layer == Layer.Opened)
                        {
                            new Explain(moved, record)
                                .Decide(item.Ref, at)
                                .Deciding.ShouldNotBeOneOf(ReleaseState.Upcoming, ReleaseState.Unscheduled);
                            opened.Now();
                        }
                    }
                }
            );
        latched.ShouldBeOften(4);
        opened.ShouldBeOften(4);
    }

    [Fact]
    public void Findings_are_sorted_and_name_what_is_there_and_no_course_drawn_so_has_a_circle()
    {
        SomePlan.Plans.Sample(plan =>
        {
            var findings = PlanFindings.Of(Schedule(plan));
            var known = plan
                .Edition.Units.Select(unit => unit.Ref.Name)
                .Concat(plan.Edition.Units.SelectMany(unit => unit.Lessons).Select(lesson => lesson.Ref.Name))
                .Concat(Schedule(plan).Sections.SelectMany(section => section.Items).Select(item => item.Item.Ref.Name))
                .Concat(["p1", "p2"])
                .Concat(plan.Sections.Select(section => section.Ref.Name))
                .ToHashSet();
            findings.ShouldAllBe(finding => finding.Targets.All(known.Contains));
            findings.Zip(findings.Skip(1)).ShouldAllBe(pair => PlanFinding.Order(pair.First, pair.Second) <= 0);
            findings
                .Where(finding => finding.Code == FindingCode.DoubleEnrolment)
                .Select(finding => finding.Targets[0])
                .ShouldBe(
                    new[] { "p1", "p2" }.Where(student =>
                        Enumerable
                            .Range(0, 100)
                            .Any(day =>
                                plan.Sections.Count(section =>
                                    section.Students.Any(enrolment =>
                                        enrolment.Student.Name == student && enrolment.Holds(plan.Term.First.PlusDays(day))
                                    )
                                ) > 1
                            )
                    )
                );
        });
    }

    [Fact]
    public void A_condition_that_can_never_be_met_is_met_by_no_facts_whatever_and_any_other_by_some()
    {
        Ref<Item>[] two = [new("a"), new("b")];
        var edition = Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, [.. two.Select(item => Plans.Task(item.Name))])));
        Gen<GateNode> Node(int depth) =>
            Gen.Int[0, depth > 0 ? 6 : 2]
                .SelectMany(kind =>
                    kind switch
                    {
                        0 or 1 => Gen.Select(Gen.Int[0, 1], Gen.Int[0, 3])
                            .Select(drawn => (GateNode)new GateNode.Done(two[drawn.Item1], (Deed)drawn.Item2)),
                        2 => Gen.Select(Gen.Int[0, 1], Gen.Int[0, 2], Gen.Bool)
                            .Select(drawn => (GateNode)new GateNode.Scored(two[drawn.Item1], drawn.Item2 * 40, drawn.Item3 ? 60 : null)),
                        3 => Node(depth - 1).Array[1, 3].Select(nodes => (GateNode)new GateNode.AllOf([.. nodes])),
                        4 => Node(depth - 1).Array[1, 3].Select(nodes => (GateNode)new GateNode.AnyOf([.. nodes])),
                        5 => Node(depth - 1).Array[2, 3].Select(nodes => (GateNode)new GateNode.AtLeast(2, [.. nodes])),
                        _ => Node(depth - 1).Select(node => (GateNode)new GateNode.Not(node)),
                    }
                );
        Node(3)
            .Sample(
                node =>
                {
                    var gated = edition with { Units = [edition.Units[0] with { Items = [Plans.Task("g", gate: node)] }] };
                    var never = PlanFindings
                        .Of(Plans.Schedule(gated, Plans.Section("s1")))
                        .Any(finding => finding.Code == FindingCode.GateNever);
                    never.ShouldBe(!Everything(two).Any(facts => Meets(gated, node, facts)));
                },
                iter: 60
            );
    }

    private static bool Meets(Edition edition, GateNode node, IEnumerable<Fact> facts) =>
        new GateEvaluation(Plans.Schedule(edition, Plans.Section("s1")).Section(new("s1")), Plans.Student("s1", [.. facts]))
            .Trace(new(node), Instant.MaxValue)
            .Outcome == Outcome.Met;

    // Every set of deeds on each of the items, with no score or one of each kind that makes a difference.
    private static IEnumerable<IEnumerable<Fact>> Everything(Ref<Item>[] items)
    {
        if (items.Length == 0)
            return
            [
                [],
            ];
        var own =
            from deeds in Enumerable.Range(0, 16)
            from score in new decimal?[] { null, 0, 40, 60, 80 }
            select Of(items[0], deeds, score);
        return from one in own from rest in Everything(items[1..]) select one.Concat(rest);
    }

    private static IEnumerable<Fact> Of(Ref<Item> item, int deeds, decimal? score)
    {
        FactEvent[] events = [FactEvent.Opened, FactEvent.Ticked, FactEvent.Submitted, FactEvent.Returned];
        for (var deed = 0; deed < events.Length; deed++)
            if ((deeds & (1 << deed)) != 0)
                yield return new(new("p1"), item, events[deed], Instant.MinValue);
        if (score is { } percent)
            yield return new(new("p1"), item, FactEvent.Scored, Instant.MinValue, percent);
    }
}
