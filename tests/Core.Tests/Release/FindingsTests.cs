using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Release;

/// <summary>What can be known before anyone is stuck. The computation, chapter 6.</summary>
public sealed class FindingsTests
{
    private static GateNode.Done Returned(string item) => new(new(item), Deed.Returned);

    private static GateNode.Scored Score(string item, decimal? min, decimal? below = null) => new(new(item), min, below);

    private static Edition Of(params Item[] items) => Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, items)));

    private static List<string> Found(Edition edition, params Adjustment[] adjustments) =>
        Found(edition, [Plans.Section("s1", adjustments)]);

    private static List<string> Found(Edition edition, Section[] sections) =>
        [
            .. PlanFindings
                .Of(Plans.Schedule(edition, sections))
                .Select(finding =>
                    $"{EnumNames.Of(finding.Code)}{(finding.Section is null ? "" : $" in {finding.Section}")}: "
                    + string.Join(' ', finding.Targets)
                    + (
                        finding.Gaps is { } gaps
                            ? " " + string.Join(' ', gaps.Select(gap => FormattableString.Invariant($"{gap.From}–{gap.To}")))
                            : ""
                    )
                    + (finding.Options is { } options ? " " + string.Join(' ', options) : "")
                ),
        ];

    [Fact]
    public void Codes_stand_in_the_order_of_their_names_by_which_findings_are_sorted() =>
        Enum.GetValues<FindingCode>()
            .Select(EnumNames.Of)
            .ShouldBe(Enum.GetValues<FindingCode>().Select(EnumNames.Of).Order(StringComparer.Ordinal));

    [Fact]
    public void A_circle_is_named_once_through_items_lessons_and_units_and_not_for_who_only_leads_into_it()
    {
        var edition = Of(
            Plans.Task("a", gate: Returned("b")),
            Plans.Task("b", gate: Returned("a")),
            Plans.Task("c", gate: Returned("a")),
            Plans.Task("d", gate: Returned("d"))
        );
        Found(edition).ShouldBe(["gate-circle: a b", "gate-circle: d"]);
        var throughUnit = edition with
        {
            Units =
            [
                Plans.Unit("u1", Plans.Lesson("l1", 1, Plans.Task("a"))) with
                {
                    Gate = new(Returned("x")),
                },
                Plans.Unit("u2", Plans.Lesson("l2", 1, Plans.Task("x", gate: Returned("a")))),
            ],
        };
        Found(throughUnit).ShouldBe(["gate-circle: u1 x"]);
        var chain = Of([.. Enumerable.Range(0, 3_000).Select(n => Plans.Task($"i{n}", gate: Returned($"i{(n + 1) % 3_000}")))]);
        PlanFindings.Of(Plans.Schedule(chain)).Single().Targets.Length.ShouldBe(3_000);
    }

    [Fact]
    public void What_no_facts_can_meet_is_found_and_what_is_too_large_is_not_judged()
    {
        var choice = new Item
        {
            Ref = new("c"),
            Kind = ItemKind.Choice,
            Title = "Which",
            Options = ["x", "y", "z"],
        };
        GateNode Pick(string option) => new GateNode.Picked(new("c"), option);
        Found(Of(choice, Plans.Task("both", gate: new GateNode.AllOf([Pick("x"), Pick("y")])), Plans.Task("one", gate: Pick("z"))))
            .ShouldBe(["gate-never: both"]);
        Found(
                Of(
                    choice with
                    {
                        Picks = 2,
                    },
                    Plans.Task("both", gate: new GateNode.AllOf([Pick("x"), Pick("y")])),
                    Plans.Task("one", gate: Pick("z"))
                )
            )
            .ShouldBeEmpty();
        Found(Of(Plans.Task("a"), Plans.Task("empty", gate: Score("a", 70, 70)))).ShouldBe(["gate-never: empty"]);
        Found(Of(Plans.Task("a"), Plans.Task("not", gate: new GateNode.AllOf([Returned("a"), new GateNode.Not(Returned("a"))]))))
            .ShouldBe(["gate-never: not"]);
        var many = Enumerable.Range(0, 17).Select(n => Plans.Task($"i{n}")).ToArray();
        var large = new GateNode.AllOf([.. many.Select(item => Returned(item.Ref.Name)), new GateNode.Not(Returned("i0"))]);
        Found(Of([.. many, Plans.Task("large", gate: large)])).ShouldBeEmpty();
    }

    [Fact]
    public void Branches_of_a_score_leave_gaps_or_overlap_and_options_of_a_choice_are_tied_to_nothing()
    {
        Found(Of(Plans.Task("q"), Plans.Task("low", gate: Score("q", null, 50)), Plans.Task("high", gate: Score("q", 70))))
            .ShouldBe(["branch-gap: q low high 50–70"]);
        Found(Of(Plans.Task("q"), Plans.Task("low", gate: Score("q", null, 70)), Plans.Task("high", gate: Score("q", 70, 100))))
            .ShouldBe(["branch-gap: q low high 100–100"]);
        Found(
                Of(
                    Plans.Task("q"),
                    Plans.Task("low", gate: Score("q", null, 80)),
                    Plans.Task("high", gate: new GateNode.AllOf([Score("q", 70)]))
                )
            )
            .ShouldBe(["branch-overlap: q low high"]);
        Found(
                Of(
                    Plans.Task("q"),
                    Plans.Task("a"),
                    Plans.Task("low", gate: Score("q", null, 80)),
                    Plans.Task("high", gate: new GateNode.AllOf([Score("q", 70), Returned("a")]))
                )
            )
            .ShouldBeEmpty();
        var choice = new Item
        {
            Ref = new("c"),
            Kind = ItemKind.Choice,
            Title = "Which",
            Options = ["x", "y", "z"],
        };
        Found(Of(choice, Plans.Task("x", gate: new GateNode.Picked(new("c"), "x")))).ShouldBe(["choice-gap: c y z"]);
        Found(Of(choice)).ShouldBeEmpty();
    }

    [Fact]
    public void What_seems_to_be_for_one_option_of_a_choice_and_hangs_on_none_is_found_beside_them()
    {
        Item Titled(string id, string title, GateNode? gate = null) => Plans.Task(id, gate: gate) with { Title = title };
        GateNode Poster() => new GateNode.Picked(new("c"), "o1");
        var choice = Plans.Task("c") with
        {
            Kind = ItemKind.Choice,
            Title = "How you show it",
            Options = ["o1", "o2"],
            Offered = new([new("o1", "Poster", "", null), new("o2", "A talk", "", null)], false),
        };
        List<string> Untied(Edition edition) =>
            [
                .. ConditionChecks
                    .OfCourse(Plans.Schedule(edition, []))
                    .Select(finding =>
                        $"{string.Join(' ', finding.Targets)}: {finding.Titled(Plans.Schedule(edition, [])).Options!.Value[0]}"
                    ),
            ];

        // By its title, in whole words, of one option alone.
        Untied(Of(choice, Titled("a", "Your poster: draft"), Titled("b", "Posters of others"), Titled("d", "A talk or a poster")))
            .ShouldBe(["a c: Poster"]);
        // By where it stands; what waits for something that hangs on the choice hangs on it too.
        Untied(Of(choice, Titled("a", "Draw", Poster()), Titled("b", "Colour"), Titled("d", "Hang up", Poster()), Titled("e", "Sweep up")))
            .ShouldBe(["b c: Poster"]);
        Untied(Of(choice, Titled("a", "Poster", Poster()), Titled("b", "Poster again", Returned("a")))).ShouldBeEmpty();
        // Another unit has its own reasons.
        Untied(
                Plans.Edition(
                    Plans.Unit("u1", Plans.Lesson("l1", 1, choice)),
                    Plans.Unit("u2", Plans.Lesson("l2", 1, Titled("a", "Poster")))
                )
            )
            .ShouldBeEmpty();
    }

    [Fact]
    public void In_a_section_a_condition_hangs_on_what_it_does_not_have_or_waits_for_less()
    {
        var edition = Of(
            Plans.Task("a"),
            Plans.Task("b", gate: Returned("a")),
            Plans.Task("c", gate: Returned("b")),
            Plans.Task("d", gate: new GateNode.AnyOf([Returned("a"), Returned("c")]))
        );
        Found(edition, new Adjustment.OfItem { Item = new("b"), Hold = true }).ShouldBe(["gate-blocked in s1: c b"]);
        Found(edition, new Adjustment.OfItem { Item = new("b"), Skip = true }).ShouldBe(["gate-waived in s1: c b"]);
        Found(edition, new Adjustment.OfItem { Item = new("a"), Skip = true })
            .ShouldBe(["gate-waived in s1: b a", "gate-waived in s1: d a"]);
        Found(
                edition,
                new Adjustment.OfItem { Item = new("a"), Published = false },
                new Adjustment.OfItem { Item = new("b"), Published = false }
            )
            .ShouldBe(["gate-blocked in s1: c b"]);
        var scored = Of(Plans.Task("a"), Plans.Task("b", gate: Score("a", 70)));
        Found(scored, new Adjustment.OfItem { Item = new("a"), Skip = true }).ShouldBe(["gate-blocked in s1: b a"]);
    }

    [Fact]
    public void What_is_due_before_what_it_waits_for_opens_is_found()
    {
        var late = Of(
            Plans.Task("a", opens: new() { At = AnchorBase.TermStart, Days = 7 }),
            Plans.Task("b", due: new() { At = AnchorBase.TermStart, Days = 3 }, gate: Returned("a")),
            Plans.Task("c", due: new() { At = AnchorBase.TermStart, Days = 9 }, gate: Returned("a")),
            Plans.Task("d", due: new() { At = AnchorBase.TermStart, Days = 3 }, gate: new GateNode.AnyOf([Returned("a"), Returned("c")]))
        );
        Found(late).ShouldBe(["gate-late in s1: b a"]);
    }

    [Fact]
    public void A_student_in_two_sections_on_one_date_is_named_with_both_and_not_who_moved()
    {
        Section With(string id, params Enrolment[] students) => Plans.Section(id) with { Students = [.. students] };
        LocalDate day = new(2026, 9, 10);
        Found(
                Of(Plans.Task("a")),
                [
                    With("s1", new Enrolment(new("p1")), new Enrolment(new("p2"), null, day)),
                    With("s2", new Enrolment(new("p1"), day), new Enrolment(new("p2"), day.PlusDays(1))),
                ]
            )
            .ShouldBe(["double-enrolment: p1 s1 s2"]);
    }

    [Fact]
    public void Of_scores_the_latest_of_an_attempt_counts_and_then_the_best_or_the_last_attempt_and_picks_can_be_withdrawn()
    {
        Ref<Item> item = new("q");
        Fact At(int minute, FactEvent what, decimal? score = null, int attempt = 1, string? option = null) =>
            new(new("p1"), item, what, Instant.FromUtc(2026, 9, 7, 8, minute), score, attempt, option);
        var end = Instant.FromUtc(2026, 9, 8, 0, 0);
        var scored = new FactBook([At(1, FactEvent.Scored, 90), At(2, FactEvent.Scored, 60), At(3, FactEvent.Scored, 40, 2)]);
        (
            scored.Score(item, false, end),
            scored.Score(item, true, end),
            scored.Score(item, false, Instant.FromUtc(2026, 9, 7, 8, 1))
        ).ShouldBe((60, 40, 90));
        var picked = new FactBook([
            At(1, FactEvent.Picked, option: "a"),
            At(2, FactEvent.Picked, option: null),
            At(3, FactEvent.Picked, option: "b"),
            At(4, FactEvent.Picked, option: "c"),
            At(5, FactEvent.Picked, option: "b"),
        ]);
        picked.Picked(item, 1, end).ShouldBe(["b"]);
        picked.Picked(item, 3, end).ShouldBe(["b", "c"]);
        // Of facts at the same moment the one later in the list is the later.
        var tie = new FactBook([At(1, FactEvent.Submitted), At(1, FactEvent.TakenBack)]);
        tie.Holds(item, Deed.Submitted, end).ShouldBeFalse();
    }
}
