using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Wording;

namespace Polycline.Core.Release;

/// <summary>
/// What a student may see of one item at one moment. Only <see cref="Sights"/> makes one, and only of what is not hidden:
/// bodies, files and feedback are read only with one in hand.
/// </summary>
public sealed class Sight
{
    internal Sight(Item item, Decision decision, string code, string unit, string? lesson, Progress progress, ImmutableArray<string> missing)
    {
        Item = item.Ref;
        Code = code;
        Title = item.Title;
        Kind = item.Kind;
        Purpose = item.Purpose;
        State = decision.State;
        Because = decision.Because;
        Sees = decision.Sees;
        Opens = decision.Dates?.Opens.At;
        Due = decision.Dates?.Due.At;
        Closes = decision.Dates?.Closes.At;
        Unit = unit;
        Lesson = lesson;
        Progress = progress;
        Missing = missing;
        Body = MayRead ? item.Body : null;
    }

    public Ref<Item> Item { get; }

    public string Code { get; }

    public string Title { get; }

    public ItemKind Kind { get; }

    public Purpose Purpose { get; }

    public ReleaseState State { get; }

    public ReleaseState? Because { get; }

    public Sees Sees { get; }

    public Instant? Opens { get; }

    public Instant? Due { get; }

    public Instant? Closes { get; }

    /// <summary>The title of its unit.</summary>
    public string Unit { get; }

    /// <summary>The title of its lesson.</summary>
    public string? Lesson { get; }

    public Progress Progress { get; }

    /// <summary>What would open it, in words a student may read; of a locked one.</summary>
    public ImmutableArray<string> Missing { get; }

    /// <summary>What its text is kept under; null: there is none, or it is not to be read.</summary>
    public string? Body { get; }

    public bool MayRead => Sees is Sees.Read or Sees.Work;

    /// <summary>Whether work can be written and handed in.</summary>
    public bool MayWork => Sees == Sees.Work;
}

/// <summary>What one student sees of a course. Source: the computation, chapter 5, <i>What they see</i> and <i>Explanation</i>.</summary>
public sealed class Sights(PlanSchedule plan, StudentRecord student)
{
    /// <summary>How a student is told of something they may not see.</summary>
    public const string NotShown = "something not shown yet";

    private readonly Explain explain = new(plan, student);

    /// <summary>Everything of their section that is not hidden from them, in reading order.</summary>
    public IReadOnlyList<Sight> At(Instant at) => student.SectionAt(plan.Term.Term, at) is { } section
        ? [.. plan.Section(section).Items.Select(item => Of(item.Item.Ref, at)).OfType<Sight>()]
        : [];

    /// <summary>Null: nothing of it is to be seen.</summary>
    public Sight? Of(Ref<Item> item, Instant at)
    {
        var decision = explain.Decide(item, at);
        if (decision is { Sees: Sees.Nothing } or { Section: null })
            return null;
        // What was begun elsewhere stays readable: it has no place in this section.
        var here = plan.Section(decision.Section.Value).Item(item)?.Item;
        var known = here?.Item ?? plan.Item(item);
        return new(known, decision, plan.CodeOf[item], here?.Unit.Title ?? "", here?.Lesson?.Title, ProgressOf.Of(known, student.Facts, at), MissingOf(decision, at));
    }

    private ImmutableArray<string> MissingOf(Decision decision, Instant at)
    {
        if (decision.State != ReleaseState.Locked)
            return [];
        var words = new GateWords(
            item => explain.Decide(item, at).Sees == Sees.Nothing ? NotShown : $"{plan.CodeOf[item]} {plan.Item(item).Title}",
            lesson => plan.Section(decision.Section!.Value).Lesson(new(lesson))?.Title ?? NotShown);
        var underNot = decision.Gates.SelectMany(gate => gate.Gate.Root.WithAllBelow()).OfType<GateNode.Not>().SelectMany(not => not.Leaves()).ToHashSet();
        return words.Missing(decision.Missing, underNot);
    }
}
