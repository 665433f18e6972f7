using System.Collections.Immutable;
using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Explaining;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Generated;

/// <summary>What always holds of <i>why</i> and <i>waiting</i>, on whatever plan. The computation, chapter 11.</summary>
public sealed class WhyPropertiesTests
{
    private static readonly Ref<Student>[] Students = [new("p1"), new("p2"), new("nobody")];

    private static PlanSchedule Schedule(Plan plan) => PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);

    private static Decision Decide(Plan plan, Ref<Student> student, Ref<Item> item, Instant at) =>
        new Explain(Schedule(plan), StudentRecord.Of(plan, student)).Decide(item, at);

    private static bool IsOpen(Decision decision) => decision.State is ReleaseState.Open or ReleaseState.Overdue;

    // What was not known at that moment is left out.
    private static Plan Known(Plan plan, Instant at) =>
        plan with
        {
            Facts = [.. plan.Facts.Where(fact => fact.At <= at)],
            Sections =
            [
                .. plan.Sections.Select(section => section with { Taught = [.. section.Taught.Where(record => !(record.At > at))] }),
            ],
        };

    // In the order in which they are decided.
    private static readonly Dictionary<Obstacle, ReleaseState> StateOf = new()
    {
        [Obstacle.NotEnrolled] = ReleaseState.NotEnrolled,
        [Obstacle.Unpublished] = ReleaseState.Unpublished,
        [Obstacle.Excused] = ReleaseState.Excused,
        [Obstacle.OtherSection] = ReleaseState.NotAssigned,
        [Obstacle.Skipped] = ReleaseState.NotAssigned,
        [Obstacle.LeftOut] = ReleaseState.NotAssigned,
        [Obstacle.NotAmong] = ReleaseState.NotAssigned,
        [Obstacle.Held] = ReleaseState.Held,
        [Obstacle.Unscheduled] = ReleaseState.Unscheduled,
        [Obstacle.Upcoming] = ReleaseState.Upcoming,
        [Obstacle.Locked] = ReleaseState.Locked,
        [Obstacle.Closed] = ReleaseState.Closed,
    };

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Why_agrees_with_the_decision_and_each_of_its_remedies_opens(bool isTangled)
    {
        var remedies = new Dictionary<Type, int>();
        var together = new Reached();
        Gen.Select(isTangled ? SomePlan.TangledPlans : SomePlan.Plans, SomePlan.Moments, Gen.Bool)
            .Sample(
                (some, at, isWaiting) =>
                {
                    var drawn = isWaiting ? Waiting(some, at) : Held(some);
                    var plan = Known(drawn, at);
                    var (asked, schedule) = (Schedule(drawn), Schedule(plan));
                    foreach (var student in Students)
                    {
                        var record = StudentRecord.Of(drawn, student);
                        var explain = new Explain(schedule, StudentRecord.Of(plan, student));
                        foreach (var item in schedule.InReadingOrder())
                        {
                            var why = Explanation.Of(asked, record, item, at);
                            var decision = explain.Decide(item, at);
                            (why.Section, why.State, why.Because).ShouldBe((decision.Section, decision.State, decision.Because));
                            why.Stands.IsEmpty.ShouldBe(IsOpen(decision));
                            if (!why.Stands.IsEmpty)
                                StateOf
                                    .Where(pair => why.Stands.Any(one => one.What == pair.Key))
                                    .Select(pair => pair.Value)
                                    .First()
                                    .ShouldBe(decision.Deciding, $"{item.Name} at {at}");
                            if (decision.Dates is { } dates)
                                (why.Opens.At, why.Due.At, why.Closes.At).ShouldBe((dates.Opens.At, dates.Due.At, dates.Closes.At));
                            Steps(why);
                            foreach (var remedy in why.Remedies)
                            {
                                lock (remedies)
                                    remedies[remedy.GetType()] = remedies.GetValueOrDefault(remedy.GetType()) + 1;
                                if (remedy is Remedy.Wait wait)
                                {
                                    IsOpen(explain.Decide(item, wait.Until)).ShouldBeTrue();
                                    IsOpen(explain.Decide(item, wait.Until - Duration.FromSeconds(1))).ShouldBeFalse();
                                }
                                else
                                    IsOpen(Decide(Done(plan, student, item, why, remedy, at), student, item, at))
                                        .ShouldBeTrue($"{remedy} for {item.Name} at {at}");
                            }
                            if (why.Together is not { } all)
                                continue;
                            together.Now();
                            var mended = all.Aggregate(plan, (sofar, remedy) => Done(sofar, student, item, why, remedy, at));
                            IsOpen(Decide(mended, student, item, at)).ShouldBeTrue();
                        }
                    }
                },
                iter: 120
            );
        remedies.Keys.ShouldBe(typeof(Remedy).GetNestedTypes().Where(type => type.IsSubclassOf(typeof(Remedy))), ignoreOrder: true);
        together.ShouldBeOften();
    }

    // The last step is where the date is.
    private static void Steps(Explanation why)
    {
        foreach (var date in new[] { why.Opens, why.Due, why.Closes })
            if (!date.Steps.IsEmpty)
                date.Steps[^1].Moment.ShouldBe(date.At);
            else
                date.At.ShouldBeNull();
    }

    private static Plan Done(Plan plan, Ref<Student> student, Ref<Item> item, Explanation why, Remedy remedy, Instant at) =>
        remedy switch
        {
            Remedy.GiveBack given => plan with
            {
                Facts = [.. plan.Facts, .. given.Items.Select(piece => new Fact(student, piece, FactEvent.Returned, at))],
            },
            Remedy.OpenForStudent { Opening: var opening } => plan with { Exceptions = plan.Exceptions.Add(opening.For(student, item)) },
            Remedy.MoveOpening => Adjusted(plan, why, new Adjustment.OfItem { Item = item, Opens = new Given<Anchor>(true, null) }),
            Remedy.PutBackHold => Adjusted(plan, why, [.. At(why, Obstacle.Held, hold: false, published: null)]),
            Remedy.Publish => Adjusted(plan, why, [.. At(why, Obstacle.Unpublished, hold: null, published: true)]),
            Remedy.DropCondition dropped => Dropped(plan, dropped.Places),
            _ => plan,
        };

    private static IEnumerable<Adjustment> At(Explanation why, Obstacle what, bool? hold, bool? published) =>
        why
            .Stands.Where(one => one.What == what)
            .Select(one =>
                (Adjustment)(
                    one.Level switch
                    {
                        Level.Unit => new Adjustment.OfUnit(new(one.Id!), Hold: hold, Published: published),
                        Level.Lesson => new Adjustment.OfLesson(new(one.Id!), Hold: hold, Published: published),
                        _ => new Adjustment.OfItem
                        {
                            Item = new(one.Id!),
                            Hold = hold,
                            Published = published,
                        },
                    }
                )
            );

    private static Plan Adjusted(Plan plan, Explanation why, params Adjustment[] adjustments) =>
        plan with
        {
            Sections =
            [
                .. plan.Sections.Select(section =>
                    section.Ref == why.Section ? section with { Adjustments = [.. section.Adjustments, .. adjustments] } : section
                ),
            ],
        };

    private static Plan Dropped(Plan plan, ImmutableArray<string> places)
    {
        var edition = OfItems(plan.Edition, Free);
        return plan with
        {
            Edition = edition with
            {
                Units =
                [
                    .. edition.Units.Select(unit =>
                        unit with
                        {
                            Gate = places.Contains(unit.Ref.Name) ? null : unit.Gate,
                            Lessons =
                            [
                                .. unit.Lessons.Select(lesson => places.Contains(lesson.Ref.Name) ? lesson with { Gate = null } : lesson),
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
                        Adjustments =
                        [
                            .. section.Adjustments.Select(one => one is Adjustment.AddItem add ? add with { Item = Free(add.Item) } : one),
                        ],
                    }
                ),
            ],
        };

        Item Free(Item item) => places.Contains(item.Ref.Name) ? item with { Gate = null } : item;
    }

    // A day ago everybody handed in the first item, for whose feedback every other one of the edition waits besides.
    private static Plan Waiting(Plan plan, Instant at)
    {
        if (plan.Edition.InReadingOrder().FirstOrDefault() is not { Ref: var first })
            return plan;
        var n = 0;
        return plan with
        {
            Edition = OfItems(plan.Edition, item =>
                n++ % 2 == 1 && item.Gate is null ? item with { Gate = new(new GateNode.Done(first, Deed.Returned)) } : item
            ),
            Facts =
            [
                .. plan.Facts.Where(fact => fact.Item != first),
                .. Students.Select(student => new Fact(student, first, FactEvent.Submitted, at - Duration.FromDays(1))),
            ],
        };
    }

    // The last item would be open to everybody, if it were not held in every section.
    private static Plan Held(Plan plan) =>
        plan.Edition.InReadingOrder().LastOrDefault() is not { Ref: var last }
            ? plan
            : plan with
            {
                Edition = OfItems(plan.Edition, item => item.Ref == last ? item with { Gate = null, Published = true } : item),
                Sections =
                [
                    .. plan.Sections.Select(section =>
                        section with
                        {
                            Adjustments =
                            [
                                .. section.Adjustments,
                                new Adjustment.OfItem
                                {
                                    Item = last,
                                    Opens = new Given<Anchor>(true, null),
                                    Closes = new Given<Anchor>(true, null),
                                    Hold = true,
                                },
                            ],
                        }
                    ),
                ],
            };

    private static Edition OfItems(Edition edition, Func<Item, Item> change) =>
        edition with
        {
            Units =
            [
                .. edition.Units.Select(unit =>
                    unit with
                    {
                        Lessons = [.. unit.Lessons.Select(lesson => lesson with { Items = [.. lesson.Items.Select(change)] })],
                        Items = [.. unit.Items.Select(change)],
                    }
                ),
            ],
        };

    [Fact]
    public void What_a_piece_opens_is_opened_by_giving_it_back_and_who_has_nothing_to_do_has_nothing_open()
    {
        var (pieces, nothing) = (new Reached(), new Reached());
        Gen.Select(SomePlan.Plans, SomePlan.Moments)
            .Sample(
                (drawn, at) =>
                {
                    var plan = Waiting(drawn, at);
                    var schedule = Schedule(plan);
                    var waits = WhoWaits.Of(
                        schedule,
                        [
                            .. plan
                                .Sections.SelectMany(section => section.Students)
                                .Select(one => one.Student)
                                .Distinct()
                                .Select(one => StudentRecord.Of(plan, one)),
                        ],
                        at
                    );
                    foreach (var piece in waits.Pieces)
                    {
                        pieces.Now();
                        var given = plan with { Facts = plan.Facts.Add(new(piece.Student, piece.Item, FactEvent.Returned, at)) };
                        foreach (var item in schedule.InReadingOrder())
                            (!IsOpen(Decide(plan, piece.Student, item, at)) && IsOpen(Decide(given, piece.Student, item, at))).ShouldBe(
                                piece.Opens.Contains(item)
                            );
                    }
                    waits.Items.Sum(item => item.Opening).ShouldBe(waits.Pieces.Length);
                    foreach (var idle in waits.Nothing)
                    {
                        nothing.Now();
                        var facts = StudentRecord.Of(plan, idle.Student).Facts;
                        schedule
                            .InReadingOrder()
                            .Where(item => !facts.IsDone(schedule.Item(item), at))
                            .ShouldAllBe(item => !IsOpen(Decide(plan, idle.Student, item, at)));
                        if (!idle.By.IsEmpty)
                            Decide(plan, idle.Student, idle.Item, at).Deciding.ShouldBe(ReleaseState.Locked);
                    }
                },
                iter: 200
            );
        pieces.ShouldBeOften();
        nothing.ShouldBeOften();
    }
}
