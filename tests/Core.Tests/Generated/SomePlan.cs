using System.Collections.Immutable;
using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Tests.Core.Generated;

/// <summary>Plans of every shape, drawn from a seed: the same seed, the same plan.</summary>
internal sealed class SomePlan
{
    private static readonly LocalDate First = new(2026, 9, 7);
    private static readonly string[] Weekdays = ["mon", "tue", "wed", "thu", "fri"];

    private readonly Random chance;
    private readonly Dictionary<string, int> made = [];
    private readonly List<Ref<Item>> items = [];
    private readonly List<Ref<Item>> choices = [];
    private readonly List<Ref<Lesson>> lessons = [];
    private readonly List<Ref<Unit>> units = [];
    private readonly List<Ref<Item>> ofOneSection = [];

    private SomePlan(int seed) => chance = new(seed);

    public static Gen<Plan> Plans { get; } = Gen.Int[0, 1_000_000].Select(seed => new SomePlan(seed).Draw());

    /// <summary>The same, but conditions name whatever item, later ones and their own too.</summary>
    public static Gen<Plan> TangledPlans { get; } = Gen.Int[0, 1_000_000].Select(seed => new SomePlan(seed).DrawTangled());

    /// <summary>Some moment of the term or near it.</summary>
    public static Gen<Instant> Moments { get; } =
        Gen.Int[-5 * 24, 75 * 24].Select(hours => Instant.FromUtc(2026, 9, 7, 6, 0) + Duration.FromHours(hours));

    private Plan Draw()
    {
        var term = DrawTerm();
        var edition = new Edition(
            "Weather",
            One(Basis.Meetings, Basis.Minutes),
            One(0, 10, 25),
            One(CodeStyle.ByUnit, CodeStyle.Straight),
            One(BeforeOpening.Listed, BeforeOpening.Unseen),
            [.. Many(1, 3, DrawUnit)]
        );
        edition = edition with { Units = [.. edition.Units.Select(unit => unit with { Gate = Maybe(0.2, () => DrawGate()) })] };
        var sections = Many(1, 3, () => DrawSection(term, edition.Basis));
        return new(
            term,
            edition,
            [.. sections],
            ImmutableDictionary<string, ImmutableArray<Ref<Student>>>
                .Empty.Add("support", [new("p2")])
                .Add("early", [.. One<Ref<Student>[]>([], [new("p1")], [new("p1"), new("p2")])]),
            chance.NextDouble() < 0.3
                ? ImmutableDictionary<Ref<Student>, Ref<Section>>.Empty.Add(new("p1"), sections[^1].Ref)
                : ImmutableDictionary<Ref<Student>, Ref<Section>>.Empty,
            [.. Many(0, 5, DrawException)],
            [.. Many(0, 60, DrawFact)]
        )
        {
            Arrangements =
            [
                .. Many(0, 2, () => new Arrangement(One<Ref<Student>>(new("p1"), new("p2")), MaybeValue(0.8, () => chance.Next(0, 9)), 25)),
            ],
        };
    }

    private Plan DrawTangled()
    {
        var plan = Draw();
        return plan with
        {
            Edition = plan.Edition with
            {
                Units =
                [
                    .. plan.Edition.Units.Select(unit =>
                        unit with
                        {
                            Items = [.. unit.Items.Select(Regated)],
                            Lessons = [.. unit.Lessons.Select(lesson => lesson with { Items = [.. lesson.Items.Select(Regated)] })],
                        }
                    ),
                ],
            },
        };

        Item Regated(Item item) => item with { Gate = Maybe(0.5, () => DrawGate()), For = Maybe(0.4, () => DrawFor()) };
    }

    private Term DrawTerm() =>
        new(
            "Autumn",
            DateTimeZoneProviders.Tzdb[
                One("Europe/Dublin", "America/St_Johns", "Pacific/Apia", "UTC", "Pacific/Auckland", "Australia/Sydney")
            ],
            First,
            First.PlusDays(chance.Next(4, 70)),
            new(
                [.. Enumerable.Range(1, One(5, 5, 7)).Select(day => (IsoDayOfWeek)day)],
                [
                    .. Many(0, 2, () => First.PlusDays(chance.Next(-3, 60)))
                        .Select(from => new Closure(from, from.PlusDays(chance.Next(0, 6)), "")),
                ],
                [.. Many(0, 2, () => new ExtraDay(First.PlusDays(chance.Next(-3, 60)), ""))],
                One<Rotation>(
                    new Rotation.Weekly(),
                    new Rotation.ByWeeks(["A", "B"], true),
                    new Rotation.ByWeeks(["A", "B"], false),
                    new Rotation.ByDays(["1", "2", "3"], false),
                    new Rotation.ByDays(["1", "2", "3"], true)
                ),
                [new("P1", new(8, 40), new(9, 30)), new("P2", new(9, 30), new(10, 20)), new("P3", new(10, 40), new(11, 30))],
                [],
                One(OffDays.Stay, OffDays.Back, OffDays.Forward)
            )
        );

    private Unit DrawUnit()
    {
        var unit = New<Unit>("u", units);
        return new(unit, unit.Name, [.. Many(0, 4, DrawLesson)], [.. Many(0, 2, () => DrawItem("i"))], chance.NextDouble() < 0.9);
    }

    private Lesson DrawLesson()
    {
        var lesson = New<Lesson>("l", lessons);
        return new(
            lesson,
            lesson.Name,
            chance.Next(0, 4) * One(1, 1, 30),
            [.. Many(0, 3, () => DrawItem("i"))],
            Published: chance.NextDouble() < 0.95,
            Gate: Maybe(0.1, () => DrawGate())
        );
    }

    // A gate names what was drawn before, so that there are circles only where a test makes one.
    private Item DrawItem(string prefix)
    {
        var kind = One(ItemKind.Page, ItemKind.Task, ItemKind.Task, ItemKind.Quiz, ItemKind.Choice, ItemKind.Handout);
        var gate = Maybe(0.35, () => DrawGate());
        var item = New<Item>(prefix, items);
        if (kind == ItemKind.Choice)
            choices.Add(item);
        return new()
        {
            Ref = item,
            Kind = kind,
            Title = item.Name,
            Published = chance.NextDouble() < 0.9,
            For = Maybe(0.15, () => DrawFor()),
            Opens = Maybe(0.6, () => DrawAnchor()),
            Due = Maybe(0.5, () => DrawAnchor()),
            Closes = Maybe(0.2, () => DrawAnchor()),
            Gate = gate,
            Before = MaybeValue(0.2, () => One(BeforeOpening.Listed, BeforeOpening.Unseen)),
            Options = kind == ItemKind.Choice ? ["a", "b", "c"] : [],
            Picks = One(1, 1, 2),
        };
    }

    private ForWhom DrawFor() =>
        One<ForWhom>(
            new(null, ["support"], []),
            new(null, null, ["early"]),
            new([new("p1")], null, ["support"]),
            new([], null, []),
            new([new("p2")], ["early"], [])
        );

    private Anchor DrawAnchor()
    {
        var at = One(
            AnchorBase.LessonStart,
            AnchorBase.LessonEnd,
            AnchorBase.UnitStart,
            AnchorBase.UnitEnd,
            AnchorBase.TermStart,
            AnchorBase.TermEnd,
            AnchorBase.OwnOpens,
            AnchorBase.OwnDue,
            AnchorBase.Fixed
        );
        if (at == AnchorBase.Fixed)
            // The clocks of Auckland skip half past two on 27 September, those of Sydney on 4 October.
            return Anchor.OnDate(First.PlusDays(One(20, 27, chance.Next(-3, 80))), new(One(2, chance.Next(0, 24)), 30)) with
            {
                ClassDays = MaybeValue(0.3, () => chance.Next(-2, 3)),
            };
        return new()
        {
            At = at,
            Of = null,
            Meetings = MaybeValue(0.4, () => chance.Next(-3, 5)),
            Weeks = MaybeValue(0.1, () => chance.Next(-1, 3)),
            Days = MaybeValue(0.2, () => chance.Next(-3, 8)),
            ClassDays = MaybeValue(0.2, () => chance.Next(-3, 5)),
            Clock = Maybe(0.4, () =>
                One(
                    new AnchorClock(ClockKind.MeetingStart),
                    new(ClockKind.MeetingEnd),
                    new(ClockKind.Keep),
                    new(ClockKind.Time, new(One(2, 18), 30))
                )
            ),
        };
    }

    private Gate? DrawGate() =>
        items.Count == 0
            ? null
            : new(DrawNode(0), MaybeValue(0.3, () => One(true, false)), MaybeValue(0.2, () => One(WhenLocked.Show, WhenLocked.Hide)));

    private GateNode DrawNode(int depth) =>
        chance.Next(depth < 3 ? 11 : 7) switch
        {
            0 or 1 or 2 => new GateNode.Done(One([.. items]), One(Enum.GetValues<Deed>())),
            3 => new GateNode.Scored(One([.. items]), 50, MaybeValue(0.4, () => 80m), MaybeValue(0.3, () => true)),
            4 => choices.Count == 0 ? new GateNode.InGroup("support") : new GateNode.Picked(One([.. choices]), One("a", "b", "c")),
            5 => lessons.Count == 0 ? new GateNode.InGroup("early") : new GateNode.HasTaught(One([.. lessons])),
            6 => new GateNode.From(
                lessons.Count > 0 && chance.NextDouble() < 0.5
                    ? new()
                    {
                        At = AnchorBase.LessonStart,
                        Of = One([.. lessons]).Name,
                        Meetings = chance.Next(-1, 3),
                    }
                    : new() { At = AnchorBase.TermStart, Days = chance.Next(0, 30) }
            ),
            7 => new GateNode.AllOf([.. Many(0, 3, () => DrawNode(depth + 1))]),
            8 => new GateNode.AnyOf([.. Many(1, 3, () => DrawNode(depth + 1))]),
            9 => new GateNode.AtLeast(1, [.. Many(1, 3, () => DrawNode(depth + 1))]),
            _ => new GateNode.Not(DrawNode(depth + 1)),
        };

    private Section DrawSection(Term term, Basis basis)
    {
        var labels = SectionMeetings.LabelsOf(term.Calendar.Rotation).ToArray();
        var section = New<Section>("s", []);
        var slots = Many(0, 4, () => chance.NextDouble() < 0.7
                ? (Slot)new Slot.InPeriods(One(labels), [.. One<string[]>(["P1"], ["P2", "P3"], ["P3"])], Counts: chance.Next(1, 3))
                // In Auckland and Sydney the clocks skip this half hour on one night of the term.
                : new Slot.AtTimes(One(labels), new(One(2, 18), 15), new(19, 45), Counts: chance.Next(1, 3)));
        MeetingChange Extra() => new MeetingChange.Extra(First.PlusDays(chance.Next(0, 5)), new(7, chance.Next(0, 50)), new(8, 0));
        Taught TaughtOf(Ref<Lesson> lesson)
        {
            var (took, done, left) = (chance.Next(0, 4), chance.NextDouble() < 0.7, MaybeValue(0.3, () => chance.Next(0, 3)));
            return new(lesson, took, done, left, Instant.FromUtc(2026, 9, 7 + chance.Next(0, 20), 12, 0));
        }

        OpeningRecord OpeningOf(Ref<Item> item)
        {
            var at = Instant.FromUtc(2026, 9, 8 + chance.Next(0, 10), 8, 0);
            return new(item, at, MaybeValue(0.5, () => Instant.FromUtc(2026, 9, 20, 8, 0)));
        }

        LocalDate? Day(double share, int from, int to) => MaybeValue(share, () => First.PlusDays(chance.Next(from, to)));
        return new(
            section,
            section.Name,
            [.. slots],
            [.. Many(0, 2, Extra)],
            [.. Many(0, 6, () => DrawAdjustment(basis)).OfType<Adjustment>(), .. DrawOwn(basis)],
            [.. lessons.Where(_ => chance.NextDouble() < 0.15).Select(TaughtOf)],
            [.. items.Where(_ => chance.NextDouble() < 0.1).Select(OpeningOf)],
            [new(new("p1"), Day(0.3, 0, 10), Day(0.3, 10, 30)), new(new("p2"), Day(0.4, 0, 10))]
        );
    }

    // A unit, a lesson and items of one section only; the items may wait for those of the course and for each other.
    private IEnumerable<Adjustment> DrawOwn(Basis basis)
    {
        if (chance.NextDouble() < 0.6)
            yield break;
        var unit = New<Unit>("ou", []);
        yield return new Adjustment.AddUnit(unit, unit.Name, chance.NextDouble() < 0.5 ? null : One([.. units]));
        var lesson = New<Lesson>("ol", []);
        yield return new Adjustment.AddLesson(lesson, lesson.Name, basis == Basis.Minutes ? 40 : 1, null, unit);
        var edition = items.Count;
        foreach (var _ in Many(1, 3, () => 0))
        {
            var item = DrawItem("oi");
            yield return chance.NextDouble() < 0.5 ? new Adjustment.AddItem(item, lesson, null) : new Adjustment.AddItem(item, null, unit);
        }
        // Nothing outside this section may name them but exceptions and facts.
        ofOneSection.AddRange(items[edition..]);
        items.RemoveRange(edition, items.Count - edition);
        choices.RemoveAll(choice => choice.Name.StartsWith("oi", StringComparison.Ordinal));
    }

    private Adjustment? DrawAdjustment(Basis basis) =>
        chance.Next(6) switch
        {
            0 => new Adjustment.OfUnit(One([.. units]), Order: chance.Next(1, units.Count + 1)),
            1 when lessons.Count > 0 => new Adjustment.OfLesson(
                One([.. lessons]),
                Length: chance.Next(0, 4) * (basis == Basis.Minutes ? 25 : 1),
                Skip: MaybeValue(0.3, () => true)
            ),
            2 when lessons.Count > 0 => new Adjustment.OfLesson(One([.. lessons]), Pin: First.PlusDays(chance.Next(0, 30))),
            3 when items.Count > 0 => new Adjustment.OfItem { Item = One([.. items]), Due = Maybe(0.7, () => DrawAnchor()) },
            4 when items.Count > 0 => new Adjustment.OfItem
            {
                Item = One([.. items]),
                Skip = MaybeValue(0.5, () => true),
                Hold = MaybeValue(0.3, () => true),
            },
            _ => null,
        };

    private ForOneStudent DrawException() =>
        new()
        {
            Student = One<Ref<Student>>(new("p1"), new("p1"), new("p2")),
            Item = AnyItem(),
            Opens = chance.NextDouble() < 0.2 ? DrawAnchor() : default(Given<Anchor>),
            Due = chance.NextDouble() < 0.5 ? DrawAnchor() : default(Given<Anchor>),
            Excused = MaybeValue(0.3, () => true),
            Include = MaybeValue(0.2, () => true),
            Exclude = MaybeValue(0.1, () => true),
            Unlocked = MaybeValue(0.2, () => true),
        };

    private Fact DrawFact()
    {
        var what = One(Enum.GetValues<FactEvent>());
        return new(
            One<Ref<Student>>(new("p1"), new("p2")),
            AnyItem(),
            what,
            Instant.FromUtc(2026, 9, 7, 8, 0)
                + Duration.FromHours(One(chance.Next(0, 40 * 24), 24 * chance.Next(0, 40), 24 * 14 * chance.Next(0, 3))),
            what == FactEvent.Scored ? chance.Next(0, 110) : null,
            chance.Next(1, 3),
            what == FactEvent.Picked ? One("a", "b", "c", "d", null) : null,
            what == FactEvent.Returned && chance.NextDouble() < 0.3
        );
    }

    // Of the course, or of one section only, theirs or another.
    private Ref<Item> AnyItem() =>
        (Ref<Item>[])[.. items, .. ofOneSection, .. ofOneSection] is { Length: > 0 } all ? One(all) : new("none");

    private Ref<T> New<T>(string prefix, List<Ref<T>> known)
    {
        made[prefix] = made.GetValueOrDefault(prefix) + 1;
        var name = new Ref<T>($"{prefix}{made[prefix]}");
        known.Add(name);
        return name;
    }

    private T One<T>(params T[] values) => values[chance.Next(values.Length)];

    private List<T> Many<T>(int least, int most, Func<T> draw) =>
        [.. Enumerable.Range(0, chance.Next(least, most + 1)).Select(_ => draw())];

    private T? Maybe<T>(double often, Func<T?> draw)
        where T : class => chance.NextDouble() < often ? draw() : null;

    private T? MaybeValue<T>(double often, Func<T> draw)
        where T : struct => chance.NextDouble() < often ? draw() : null;
}
