using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Release;

/// <summary>The facts of one student, by item, as they counted at any moment. Source: the computation, chapter 5, <i>Facts</i>.</summary>
public sealed class FactBook
{
    private readonly Dictionary<Ref<Item>, List<Fact>> byItem = [];

    /// <param name="facts">In the order recorded.</param>
    public FactBook(IEnumerable<Fact> facts)
    {
        All = [.. facts];
        foreach (var fact in All)
        {
            if (!byItem.TryGetValue(fact.Item, out var own))
                byItem[fact.Item] = own = [];
            own.Add(fact);
        }
        // A stable sort: facts at the same moment keep their order.
        foreach (var (item, own) in byItem)
            byItem[item] = [.. own.OrderBy(fact => fact.At)];
    }

    /// <summary>In the order recorded.</summary>
    public ImmutableArray<Fact> All { get; }

    public static FactBook Empty { get; } = new([]);

    /// <summary>The facts on an item up to <paramref name="at"/>, the latest last.</summary>
    public IEnumerable<Fact> On(Ref<Item> item, Instant at) =>
        byItem.TryGetValue(item, out var own) ? own.TakeWhile(fact => fact.At <= at) : [];

    /// <summary>Whether anything ever happened on an item.</summary>
    public bool KnowsOf(Ref<Item> item) => byItem.ContainsKey(item);

    /// <summary>When something happened on an item.</summary>
    public IEnumerable<Instant> MomentsOf(Ref<Item> item) => byItem.TryGetValue(item, out var own) ? own.Select(fact => fact.At) : [];

    public bool Holds(Ref<Item> item, Deed deed, Instant at) =>
        deed switch
        {
            Deed.Opened => On(item, at).Any(fact => fact.Event == FactEvent.Opened),
            Deed.Ticked => Latest(item, at, FactEvent.Ticked, FactEvent.Unticked)?.Event == FactEvent.Ticked,
            Deed.Submitted => Latest(item, at, FactEvent.Submitted, FactEvent.TakenBack)?.Event == FactEvent.Submitted,
            _ => Latest(item, at, FactEvent.Returned, FactEvent.Returned) is { Again: false },
        };

    /// <summary>Whether a piece waits to be given back: of handed in, taken back and given back the latest is handed in.</summary>
    public bool IsWithTeacher(Ref<Item> item, Instant at) =>
        On(item, at).LastOrDefault(fact => fact.Event is FactEvent.Submitted or FactEvent.TakenBack or FactEvent.Returned)
            is { Event: FactEvent.Submitted };

    /// <summary>
    /// The score that counts; null: none. Of several of one attempt only the latest counts; then the highest of the
    /// attempts', or that of the attempt with the highest number.
    /// </summary>
    public decimal? Score(Ref<Item> item, bool latest, Instant at)
    {
        var attempts = On(item, at)
            .Where(fact => fact.Event == FactEvent.Scored)
            .GroupBy(fact => fact.Attempt)
            .Select(attempt => attempt.Last())
            .ToList();
        return attempts.Count == 0 ? null
            : latest ? attempts.MaxBy(fact => fact.Attempt)!.Score
            : attempts.Max(fact => fact.Score);
    }

    /// <summary>The options picked: the latest <paramref name="picks"/> different ones since picks were last withdrawn.</summary>
    public IReadOnlyList<string> Picked(Ref<Item> choice, int picks, Instant at) =>
        [
            .. On(choice, at)
                .Where(fact => fact.Event == FactEvent.Picked)
                .Reverse()
                .TakeWhile(fact => fact.Option is not null)
                .Select(fact => fact.Option!)
                .Distinct()
                .Take(picks),
        ];

    /// <summary>Whether the student has begun it: what someone has begun stays readable to them.</summary>
    public bool HasBegun(Ref<Item> item, Instant at) =>
        On(item, at)
            .Any(fact =>
                fact.Event
                    is FactEvent.Begun
                        or FactEvent.Ticked
                        or FactEvent.Submitted
                        or FactEvent.Scored
                        or FactEvent.Returned
                        or FactEvent.Picked
            );

    /// <summary>Whether nothing is left to be done by the due. Source: chapter 5, decision 9.</summary>
    public bool IsDone(Item item, Instant at) =>
        item.Kind switch
        {
            ItemKind.Page or ItemKind.Link => Holds(item.Ref, Deed.Opened, at) || Holds(item.Ref, Deed.Ticked, at),
            ItemKind.Quiz => Holds(item.Ref, Deed.Submitted, at) || Score(item.Ref, false, at) is not null,
            ItemKind.Choice => Picked(item.Ref, item.Picks, at).Count > 0,
            _ => Holds(item.Ref, Deed.Submitted, at),
        };

    private Fact? Latest(Ref<Item> item, Instant at, FactEvent one, FactEvent other) =>
        On(item, at).LastOrDefault(fact => fact.Event == one || fact.Event == other);
}
