using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release.Compiled;

namespace Polycline.Core.Release;

/// <summary>
/// What a student may see of one item at one moment. Only <see cref="Sights"/> makes one, and only of what is not hidden:
/// bodies, files and feedback are read only with one in hand.
/// </summary>
public sealed class Sight
{
    internal Sight(
        Item item,
        Verdict verdict,
        ItemDates? dates,
        string code,
        string unit,
        string? lesson,
        Progress progress,
        Decision? why,
        bool beforeJoining = false
    )
    {
        Item = item.Ref;
        Code = code;
        Title = item.Title;
        Kind = item.Kind;
        Purpose = item.Purpose;
        State = verdict.State;
        Because = verdict.Because;
        Sees = verdict.Sees;
        Opens = dates?.Opens.At;
        Due = dates?.Due.At;
        Closes = dates?.Closes.At;
        Unit = unit;
        Lesson = lesson;
        Progress = progress;
        Why = why;
        BeforeJoining = beforeJoining;
        Body = MayRead ? item.Body : null;
        Quiz = MayRead ? item.Quiz : null;
        Rubric = MayRead ? item.Rubric : null;
        Address = MayRead ? item.Address : null;
        Asks = item.Asked;
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

    /// <summary>
    /// Of a locked one, and of one to come that has a condition beside its moment: why, to be put into words. Null: nothing is missing.
    /// </summary>
    internal Decision? Why { get; }

    /// <summary>It was due on the day on which the student joined, or before.</summary>
    public bool BeforeJoining { get; }

    /// <summary>What its text is kept under; null: there is none, or it is not to be read.</summary>
    public string? Body { get; }

    /// <summary>What the questions of a quiz are kept under; null: there are none, or they are not to be read.</summary>
    public string? Quiz { get; }

    /// <summary>What its rubric is kept under; null: there is none, or it is not to be read now.</summary>
    public string? Rubric { get; }

    /// <summary>Where it leads; of a link that may be read only.</summary>
    public string? Address { get; }

    /// <summary>Whether the student has ticked it off.</summary>
    public bool IsTicked { get; internal init; }

    /// <summary>What it asks of the student; null: nothing that could be handed in or ticked off.</summary>
    public Asks? Asks { get; }

    public bool MayRead => Sees is Sees.Read or Sees.Work;

    /// <summary>Whether work can be written and handed in.</summary>
    public bool MayWork => Sees == Sees.Work;
}

/// <summary>What one student sees of a course. Source: the computation, chapter 5, <i>What they see</i> and <i>Explanation</i>.</summary>
public sealed class Sights(PlanSchedule plan, StudentRecord student)
{
    internal PlanSchedule Plan => plan;

    private readonly StudentRelease release = new(plan, student);

    // Asked only for what has to be put into words.
    private readonly Explain explain = new(plan, student);

    /// <summary>
    /// Everything of their section that is not hidden from them, in reading order; then what they began that their section has no longer.
    /// </summary>
    public IReadOnlyList<Sight> At(Instant at)
    {
        var sights = new List<Sight>();
        if (release.At(at) is { } replay)
            for (var number = 0; number < replay.Table.Section.Count; number++)
                if (replay.Decide(number) is { Sees: not Sees.Nothing } verdict)
                    sights.Add(Here(replay.Table, number, verdict, at));
        foreach (var item in student.Facts.All.Where(fact => fact.At <= at).Select(fact => fact.Item).Distinct())
            if (
                release.At(at)?.Table.Section.NumberOf(item) is null
                && plan.Knows(item)
                && release.Decide(item, at) is { Sees: Sees.Read } verdict
            )
                sights.Add(Elsewhere(item, verdict, at));
        return sights;
    }

    /// <summary>Null if nothing of it is to be seen.</summary>
    public Sight? Of(Ref<Item> item, Instant at)
    {
        var verdict = release.Decide(item, at);
        if (verdict.Sees == Sees.Nothing || release.At(at) is not { } replay)
            return null;
        return replay.Table.Section.NumberOf(item) is { } number ? Here(replay.Table, number, verdict, at)
            : plan.Knows(item) ? Elsewhere(item, verdict, at)
            : null;
    }

    // What was begun and has no place in this section, or in the course any more, stays readable.
    private Sight Elsewhere(Ref<Item> item, Verdict verdict, Instant at)
    {
        var known = plan.Item(item);
        return new(known, verdict, null, plan.CodeOf[item], "", null, ProgressOf.Of(known, student.Facts, at), null)
        {
            IsTicked = student.Facts.Holds(item, Deed.Ticked, at),
        };
    }

    private Sight Here(ReleaseTable table, int number, Verdict verdict, Instant at)
    {
        var here = table.Section.Schedule.Items[number].Item;
        return new(
            here.Item,
            verdict,
            table.Dates[number],
            plan.CodeOf[here.Ref],
            here.Unit.Title,
            here.Lesson?.Title,
            ProgressOf.Of(here.Item, student.Facts, at),
            here.Item.Gate is not null || here.Unit.Gate is not null || here.Lesson?.Gate is not null
                ? verdict.State is ReleaseState.Locked or ReleaseState.Upcoming
                    ? explain.Decide(here.Ref, at)
                    : null
                : null,
            IsBeforeJoining(table.Dates[number], at)
        )
        {
            IsTicked = student.Facts.Holds(here.Ref, Deed.Ticked, at),
        };
    }

    // Nobody can be ready on the day they join: what was due by then is no more than there to be done.
    private bool IsBeforeJoining(ItemDates? dates, Instant at) =>
        dates?.Due.At is { } due && due < at && plan.Term.Local(due).Date <= student.JoinedOn;

    /// <summary>When the student last handed an item in; null: they have not.</summary>
    internal Instant? HandedInAt(Ref<Item> item, Instant at) =>
        student.Facts.On(item, at).LastOrDefault(fact => fact.Event == FactEvent.Submitted)?.At;

    /// <summary>Whether anything of an item is to be seen.</summary>
    internal bool Shows(Ref<Item> item, Instant at) => release.Decide(item, at).Sees != Sees.Nothing;
}
