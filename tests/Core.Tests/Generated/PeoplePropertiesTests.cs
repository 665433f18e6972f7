using System.Collections.Immutable;
using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Generated;

/// <summary>What always holds of joining late, moving and following, on whatever plan. The computation, chapter 11.</summary>
public sealed class PeoplePropertiesTests
{
    private static readonly Ref<Student> P1 = new("p1");

    private static PlanSchedule Schedule(Plan plan) => PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);

    private static Gen<(Plan Plan, Instant At, int PerClass)> Asked(Gen<Plan> plans) => Gen.Select(plans, SomePlan.Moments, Gen.Int[1, 3]);

    // The first section lists the student from some day on; most plans would give them nothing to catch up otherwise.
    private static Plan JoinedLate(Plan plan, Instant at) =>
        plan with
        {
            Home = plan.Home.Clear(),
            Sections =
            [
                .. plan.Sections.Select(
                    (section, place) => section with { Students = place == 0 ? [new(P1, plan.Term.Local(at).Date.PlusDays(-2))] : [] }
                ),
            ],
        };

    [Fact]
    public void A_catch_up_names_each_item_once_fills_no_class_too_much_and_comes_in_order()
    {
        var (lines, needs, stuck) = (new Reached(), new Reached(), new Reached());
        Asked(SomePlan.TangledPlans)
            .Sample(
                (drawn, at, perClass) =>
                {
                    var plan = JoinedLate(drawn, at);
                    var (schedule, student) = (Schedule(plan), StudentRecord.Of(plan, P1));
                    var answer = CatchUp.Of(schedule, student, at, perClass, []);
                    var all = answer
                        .Lines.Select(line => line.Item)
                        .Concat(answer.Closed.Select(closed => closed.Item))
                        .Concat(answer.Stuck.Select(one => one.Item))
                        .Concat(answer.Unplaced)
                        .Concat(answer.Over)
                        .ToList();
                    all.ShouldBeUnique();
                    answer.Lines.GroupBy(line => line.Meeting.Ordinal).ShouldAllBe(lines => lines.Count() <= perClass);
                    answer.Lines.ShouldAllBe(line => line.Due > at && line.Meeting.Date > answer.Joined);
                    if (answer.Lines.Length > 1)
                        lines.Now();
                    if (answer.Stuck.Length > 0)
                        stuck.Now();

                    // Accepted, nothing of it is overdue before its new due, and asked again nothing of it is proposed again.
                    var accepted = plan with
                    {
                        Exceptions =
                        [
                            .. plan.Exceptions,
                            .. answer.Lines.Select(line => new ForOneStudent
                            {
                                Student = P1,
                                Item = line.Item,
                                Due = Anchor.OnDate(line.Meeting.Date, line.Meeting.Start),
                            }),
                        ],
                    };
                    var (later, known) = (Schedule(accepted), StudentRecord.Of(accepted, P1));
                    foreach (var line in answer.Lines)
                    {
                        new Explain(later, known)
                            .Decide(line.Item, line.Due - Duration.FromSeconds(1))
                            .State.ShouldNotBe(ReleaseState.Overdue);
                        if (line.Needs.Length > 0)
                            needs.Now();
                    }
                    CatchUp
                        .Of(later, known, at, perClass, [])
                        .Lines.Where(line => line.Asked == CatchUpReason.Due)
                        .Select(line => line.Item)
                        .Intersect(answer.Lines.Select(line => line.Item))
                        .ShouldBeEmpty();
                },
                iter: 1500
            );
        lines.ShouldBeOften();
        needs.ShouldBeOften();
        stuck.ShouldBeOften();
    }

    [Fact]
    public void Save_for_circles_nothing_is_to_be_done_before_what_it_waits_for()
    {
        var chains = new Reached();
        Asked(SomePlan.Plans)
            .Sample(
                (drawn, at, perClass) =>
                {
                    var plan = JoinedLate(drawn, at);
                    var lines = CatchUp.Of(Schedule(plan), StudentRecord.Of(plan, P1), at, perClass, []).Lines;
                    // What fell out may close a circle too; the answer does not say what it waits for, so all that its gates name counts.
                    var needs = Schedule(plan)
                        .Section(plan.Sections[0].Ref)
                        .Items.ToDictionary(here => here.Item.Ref, here => NamedBy(here.Item));
                    foreach (var line in lines)
                        needs[line.Item] = line.Needs;
                    foreach (var (place, line) in lines.Index())
                    foreach (var (other, needed) in lines.Index().Where(pair => line.Needs.Contains(pair.Item.Item)))
                    {
                        if (LeadsTo(needed.Item, line.Item, needs))
                            continue;
                        chains.Now();
                        other.ShouldBeLessThan(place);
                        needed.Meeting.Ordinal.ShouldBeLessThan(line.Meeting.Ordinal);
                    }
                },
                iter: 5000
            );
        chains.ShouldBeOften(10);
    }

    private static IEnumerable<Ref<Item>> NamedBy(CourseItem item) =>
        new[] { item.Unit.Gate, item.Lesson?.Gate, item.Item.Gate }
            .OfType<Gate>()
            .SelectMany(gate => gate.Root.Leaves())
            .Select(leaf => leaf.ItemOf)
            .OfType<Ref<Item>>();

    private static bool LeadsTo(Ref<Item> from, Ref<Item> to, Dictionary<Ref<Item>, IEnumerable<Ref<Item>>> needs)
    {
        var (seen, open) = (new HashSet<Ref<Item>>(), new Stack<Ref<Item>>([from]));
        while (open.TryPop(out var item))
            if (item == to)
                return true;
            else if (seen.Add(item))
                foreach (var other in needs.GetValueOrDefault(item, []))
                    open.Push(other);
        return false;
    }

    [Fact]
    public void Moved_what_was_open_stays_open_or_is_closed_dropped_or_held_and_nothing_becomes_overdue_by_it()
    {
        var (moved, kept, asked) = (new Reached(), new Reached(), new Reached());
        Gen.Select(SomePlan.Plans, Gen.Int[3, 40])
            .Sample(
                (drawn, day) =>
                {
                    if (drawn.Sections.Length < 2)
                        return;
                    var on = drawn.Term.First.PlusDays(day);
                    var (from, to) = (drawn.Sections[0].Ref, drawn.Sections[1].Ref);
                    var plan = drawn with
                    {
                        Home = drawn.Home.Clear(),
                        Sections = [.. drawn.Sections.Select((section, place) => section with { Students = place == 0 ? [new(P1)] : [] })],
                    };
                    var schedule = Schedule(plan);
                    var move = new MoveMark(from, to, on);
                    var answer = SectionMove.Of(schedule, plan, P1, move, null, new Dictionary<Ref<Item>, MoveChoice>());
                    var accepted = plan with
                    {
                        Exceptions = [.. plan.Exceptions, .. answer.Exceptions],
                        Sections =
                        [
                            .. plan.Sections.Select(section =>
                                section.Ref == from ? section with { Students = [new(P1, null, on.PlusDays(-1))] }
                                : section.Ref == to ? section with { Students = [new(P1, on)] }
                                : section
                            ),
                        ],
                    };
                    var now = plan.Term.Zone.AtLeniently(on.AtMidnight()).ToInstant();
                    var then = now - Duration.FromSeconds(1);
                    // Nothing that happened later is known to the proposal.
                    var before = new Explain(schedule, StudentRecord.Of(plan, P1).Until(then));
                    var after = new Explain(Schedule(accepted), StudentRecord.Of(accepted, P1).Until(then));
                    foreach (var row in answer.Rows)
                    {
                        var (was, comes) = (before.Decide(row.Item, then), after.Decide(row.Item, now));
                        if (row.State is MovedState.Earlier or MovedState.Later)
                            moved.Now();
                        if (row.KeptOpen)
                            kept.Now();
                        if (row.State == MovedState.AlreadyDue)
                            asked.Now();
                        if (was.State is ReleaseState.Open or ReleaseState.Overdue && row.State != MovedState.LeftBehind)
                            comes.Deciding.ShouldBeOneOf(
                                ReleaseState.Open,
                                ReleaseState.Overdue,
                                ReleaseState.Closed,
                                ReleaseState.NotAssigned,
                                ReleaseState.Excused,
                                ReleaseState.Held,
                                ReleaseState.Unpublished
                            );
                        // Overdue here is only what was due, or shut, there too.
                        if (comes.State == ReleaseState.Overdue)
                            (was.Dates is { } dates && (dates.Due.At < now || dates.Closes.At < now)).ShouldBeTrue($"{row}");
                    }

                    // Back on the same day, and the file is what it was.
                    var back = SectionMove.Of(
                        Schedule(accepted),
                        accepted,
                        P1,
                        new(to, from, on),
                        null,
                        ImmutableDictionary<Ref<Item>, MoveChoice>.Empty
                    );
                    (back.IsBack, back.Rows.Length, back.TakesBack).ShouldBe((true, 0, answer.Exceptions.Length));
                    accepted.Exceptions.RemoveAll(exception => exception.Move == move).ShouldBe(plan.Exceptions);
                },
                iter: 1500
            );
        moved.ShouldBeOften();
        kept.ShouldBeOften();
        asked.ShouldBeOften();
    }

    [Fact]
    public void Of_what_a_section_holds_each_is_in_a_pair_or_stays_and_no_work_is_lost()
    {
        string[] titles = ["Clouds", "clouds!", "Fronts", "FRONTS", "Rain", "", "?"];
        var things = Gen.Select(Gen.Int[0, titles.Length - 1], Gen.Int[0, 6], Gen.Int[0, 2], Gen.Int[0, 9]);
        var (paired, ambiguous) = (new Reached(), new Reached());
        Gen.Select(SomePlan.Plans, things.Array[0, 12])
            .Sample(
                (drawn, drawnThings) =>
                {
                    // Titles that some of the section's are like.
                    var n = 0;
                    var plan = drawn with
                    {
                        Edition = drawn.Edition with
                        {
                            Units =
                            [
                                .. drawn.Edition.Units.Select(unit =>
                                    unit with
                                    {
                                        Title = titles[n++ % 5],
                                        Items = [.. unit.Items.Select(item => item with { Title = titles[n++ % 5] })],
                                    }
                                ),
                            ],
                        },
                    };
                    var holds = drawnThings
                        .Select(
                            (thing, place) =>
                                new OwnThing(
                                    $"o{place}",
                                    thing.Item3 == 0 ? Level.Unit : Level.Item,
                                    titles[thing.Item1],
                                    null,
                                    thing.Item3 == 0 ? null : (ItemKind)thing.Item2,
                                    Work: new(thing.Item4, 1, 0, thing.Item1)
                                )
                        )
                        .ToList();
                    var answer = CourseJoin.Of(Schedule(plan), plan, plan.Sections[0].Ref, plan.Term.First, null, holds);
                    answer
                        .Pairs.Select(pair => pair.Own)
                        .Concat(answer.Stays.Select(stays => stays.Own))
                        .ShouldBe(holds.Select(thing => thing.Id), ignoreOrder: true);
                    answer.Pairs.Select(pair => pair.Edition).ShouldBeUnique();
                    answer.Pairs.Select(pair => pair.Own).Intersect(answer.Ambiguous.SelectMany(match => match.Own)).ShouldBeEmpty();
                    (answer.Matched + answer.Own).ShouldBe(answer.Before);
                    answer.Before.ShouldBe(holds.Aggregate(default(WorkCount), (sum, thing) => sum + thing.Work));
                    if (answer.Pairs.Length > 0)
                        paired.Now();
                    if (answer.Ambiguous.Length > 0)
                        ambiguous.Now();
                },
                iter: 500
            );
        paired.ShouldBeOften();
        ambiguous.ShouldBeOften();
    }
}
