using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.PlanFiles;

/// <summary>An edition under other ids: its units, lessons and items, and what its anchors and gates name.</summary>
/// <param name="name">The new id of an old one; ids that come in are given new ones, those that go out stand for their place.</param>
public sealed class Renaming(Func<string, string> name)
{
    /// <summary>Ids by place in reading order: <c>u1</c>, <c>l1</c>, <c>i1</c> …</summary>
    public static Renaming ByPlace(Edition edition)
    {
        var names = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var (unit, n) in edition.Units.Select((unit, n) => (unit, n)))
            names[unit.Ref.Name] = $"u{n + 1}";
        foreach (var (lesson, n) in edition.Units.SelectMany(unit => unit.Lessons).Select((lesson, n) => (lesson, n)))
            names[lesson.Ref.Name] = $"l{n + 1}";
        foreach (var (item, n) in edition.InReadingOrder().Select((item, n) => (item, n)))
            names[item.Ref.Name] = $"i{n + 1}";
        return new(old => names[old]);
    }

    public Edition Of(Edition edition)
    {
        var units = edition.Units.Select(unit => unit.Ref.Name).ToHashSet(StringComparer.Ordinal);
        var adding = edition.AddingUp;
        return edition with
        {
            Units = [.. edition.Units.Select(Of)],
            AddingUp = adding with
            {
                WeightOf = adding.By == WeighedBy.Unit ? OfUnits(adding.WeightOf) : adding.WeightOf,
                Drop = OfUnits(adding.Drop),
            },
        };

        ImmutableSortedDictionary<string, T> OfUnits<T>(ImmutableSortedDictionary<string, T> each) =>
            each.Where(pair => units.Contains(pair.Key))
                .ToImmutableSortedDictionary(pair => name(pair.Key), pair => pair.Value, StringComparer.Ordinal);
    }

    private Unit Of(Unit unit) =>
        unit with
        {
            Ref = Of(unit.Ref),
            Lessons =
            [
                .. unit.Lessons.Select(lesson => lesson with { Ref = Of(lesson.Ref), Items = Items(lesson.Items), Gate = Of(lesson.Gate) }),
            ],
            Items = Items(unit.Items),
            Gate = Of(unit.Gate),
        };

    private ImmutableArray<Item> Items(ImmutableArray<Item> items) =>
        [
            .. items.Select(item =>
                item with
                {
                    Ref = Of(item.Ref),
                    Opens = Of(item.Opens),
                    Due = Of(item.Due),
                    Closes = Of(item.Closes),
                    Gate = Of(item.Gate),
                }
            ),
        ];

    private Anchor? Of(Anchor? anchor) => anchor is { Of: { } of } ? anchor with { Of = name(of) } : anchor;

    private Gate? Of(Gate? gate) => gate is null ? null : gate with { Root = Of(gate.Root) };

    private GateNode Of(GateNode node) =>
        node switch
        {
            GateNode.AllOf all => new GateNode.AllOf(Nodes(all.Nodes)),
            GateNode.AnyOf any => new GateNode.AnyOf(Nodes(any.Nodes)),
            GateNode.AtLeast some => some with { Nodes = Nodes(some.Nodes) },
            GateNode.Not not => new GateNode.Not(Of(not.Node)),
            GateNode.Done done => done with { Item = Of(done.Item) },
            GateNode.Scored scored => scored with { Item = Of(scored.Item) },
            GateNode.Picked picked => picked with { Choice = Of(picked.Choice) },
            GateNode.HasTaught taught => taught with { Lesson = Of(taught.Lesson) },
            GateNode.From since => since with { Anchor = Of(since.Anchor)! },
            _ => node,
        };

    private ImmutableArray<GateNode> Nodes(ImmutableArray<GateNode> nodes) => [.. nodes.Select(Of)];

    private Ref<T> Of<T>(Ref<T> reference) => new(name(reference.Name));
}
