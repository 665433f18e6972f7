using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Polycline.Core.Sections;

namespace Polycline.Core.Changes;

/// <summary>What a change does for one student with one item at a moment.</summary>
public sealed record SightChange
{
    public required Ref<Student> Student { get; init; }

    /// <summary>The student's section then.</summary>
    public required Ref<Section> Section { get; init; }

    public required Ref<Item> Item { get; init; }

    /// <summary>What they see of it now.</summary>
    public required Sees Before { get; init; }

    /// <summary>What they would see.</summary>
    public required Sees After { get; init; }

    /// <summary>It is not overdue for them now, and would become so.</summary>
    public bool BecomesOverdue { get; init; }

    /// <summary>Whether its opening, due or closing moves for them.</summary>
    public bool DateMoves { get; init; }

    /// <summary>Whether something they see of it reads differently: its title, code, text, or where it stands.</summary>
    public bool Alters { get; init; }

    /// <summary>Whether they have begun it.</summary>
    public bool HasBegun { get; init; }

    /// <summary>Whether they have handed something in for it.</summary>
    public bool HasHandedIn { get; init; }

    /// <summary>It is for them now and would no longer be, because fewer students get it.</summary>
    public bool WasTheirs { get; init; }

    public bool Gains => After > Before;

    public bool Loses => After < Before;

    /// <summary>It takes something from the student: sight of it, the right to work on it, or the time to.</summary>
    public bool Takes => Loses || BecomesOverdue || WasTheirs;
}

/// <summary>
/// The reach of a change on students, computed from the course before it and after it: who gains and loses sight of what,
/// who becomes overdue, whose dates move, who has begun. Source: the computation, chapters 4 and 5.
/// </summary>
/// <param name="Changes">Student by student in the order given, items in reading order; what stays as it is is left out.</param>
public sealed record SightReach(ImmutableArray<SightChange> Changes)
{
    /// <summary>Of items that are no longer for some: for whom they stay.</summary>
    public ImmutableArray<(Ref<Student> Student, Ref<Section> Section, Ref<Item> Item)> Keep { get; private init; } = [];

    /// <param name="students">Each as they are before the change and after it: exceptions, groups and enrolment may be what
    /// changes.</param>
    public static SightReach Between(
        PlanSchedule before,
        PlanSchedule after,
        IEnumerable<(StudentRecord Before, StudentRecord After)> students,
        Instant at
    )
    {
        var altered = new Dictionary<Ref<Section>, IReadOnlyDictionary<Ref<Item>, Sees>>();
        var pairs = students.ToList();
        ImmutableArray<SightChange> changes = [.. pairs.SelectMany(pair => Of(before, after, pair.Before, pair.After, at, altered))];
        var narrower = changes.Where(change => change.WasTheirs).Select(change => change.Item).Distinct().ToList();
        return new(changes)
        {
            Keep = narrower.Count == 0 ? [] : [.. pairs.SelectMany(pair => KeptBy(before, after, pair.Before, pair.After, at, narrower))],
        };
    }

    /// <inheritdoc cref="Between(PlanSchedule, PlanSchedule, IEnumerable{ValueTuple{StudentRecord, StudentRecord}}, Instant)"/>
    public static SightReach Between(PlanSchedule before, PlanSchedule after, IEnumerable<StudentRecord> students, Instant at) =>
        Between(before, after, students.Select(student => (student, student)), at);

    private static IEnumerable<SightChange> Of(
        PlanSchedule before,
        PlanSchedule after,
        StudentRecord was,
        StudentRecord will,
        Instant at,
        Dictionary<Ref<Section>, IReadOnlyDictionary<Ref<Item>, Sees>> altered
    )
    {
        var (old, now) = (new StudentRelease(before, was), new StudentRelease(after, will));
        if ((SectionOf(now.At(at)) ?? SectionOf(old.At(at))) is not { } section)
            yield break;
        if (!altered.TryGetValue(section, out var reads))
            altered[section] = reads = Altered(before, after, section);
        foreach (var item in ItemsOf(now.At(at)).Union(ItemsOf(old.At(at))))
        {
            var (first, then) = (old.Decide(item, at), now.Decide(item, at));
            var moves = Moments(old.At(at), item) is { } earlier && Moments(now.At(at), item) is { } later && earlier != later;
            var late = first.State != ReleaseState.Overdue && then.State == ReleaseState.Overdue;
            var alters = reads.TryGetValue(item, out var least) && then.Sees >= least && first.Sees >= least;
            // Whoever is excused has it no less for that.
            var wasTheirs =
                Taught(before, section, item) is { } there
                && was.IsFor(there)
                && Taught(after, section, item) is { } here
                && !will.IsFor(here)
                && will.Exceptions.GetValueOrDefault(item) is not { Excused: true };
            if (first.Sees != then.Sees || moves || late || alters || wasTheirs)
                yield return new()
                {
                    Student = was.Student,
                    Section = section,
                    Item = item,
                    Before = first.Sees,
                    After = then.Sees,
                    BecomesOverdue = late,
                    DateMoves = moves,
                    Alters = alters,
                    HasBegun = was.Facts.HasBegun(item, at),
                    HasHandedIn = was.Facts.Holds(item, Deed.Submitted, at),
                    WasTheirs = wasTheirs,
                };
        }
    }

    private static IEnumerable<(Ref<Student>, Ref<Section>, Ref<Item>)> KeptBy(
        PlanSchedule before,
        PlanSchedule after,
        StudentRecord was,
        StudentRecord will,
        Instant at,
        List<Ref<Item>> narrower
    )
    {
        if (will.SectionAt(after.Term.Term, at) is { } section)
            foreach (
                var item in narrower.Where(item =>
                    Taught(before, section, item) is { } there
                    && was.IsFor(there)
                    && Taught(after, section, item) is { } here
                    && will.IsFor(here)
                )
            )
                yield return (was.Student, section, item);
    }

    private static CourseItem? Taught(PlanSchedule plan, Ref<Section> section, Ref<Item> item) =>
        plan.Follows(section) && plan.Section(section).Item(item) is { Item: { Skipped: false, Published: true } here } ? here : null;

    // What reads differently of a section's items, and for whom: whoever sees their titles sees title, code, purpose and the names of where
    // they stand; whoever reads them sees text, files,
    // address and what is asked for.
    private static Dictionary<Ref<Item>, Sees> Altered(PlanSchedule before, PlanSchedule after, Ref<Section> section)
    {
        var altered = new Dictionary<Ref<Item>, Sees>();
        if (!before.Follows(section) || !after.Follows(section))
            return altered;
        var renamed = before.Edition.Levels != after.Edition.Levels;
        foreach (var item in after.Section(section).Items)
        {
            if (before.Section(section).Item(item.Item.Ref) is not { Item: var old })
                continue;
            if (renamed || Listed(before, old) != Listed(after, item.Item))
                altered[item.Item.Ref] = Sees.Title;
            else if (ReadsDifferently(old.Item, item.Item.Item))
                altered[item.Item.Ref] = Sees.Read;
        }
        return altered;

        static bool ReadsDifferently(Item old, Item now) =>
            old.Body != now.Body
            || old.Address != now.Address
            || old.Asked != now.Asked
            || old.Rubric != now.Rubric
            || old.Offered != now.Offered
            || old.Picks != now.Picks
            || !old.Files.SequenceEqual(now.Files);

        static (string, string, Purpose, string, string?) Listed(PlanSchedule plan, CourseItem item) =>
            (item.Item.Title, plan.CodeOf[item.Ref], item.Item.Purpose, item.Unit.Title, item.Lesson?.Title);
    }

    private static Ref<Section>? SectionOf(Replay? replay) => replay?.Table.Section.Schedule.Section.Ref;

    private static IEnumerable<Ref<Item>> ItemsOf(Replay? replay) =>
        replay is null ? [] : replay.Table.Section.Schedule.Items.Select(item => item.Item.Ref);

    private static (Instant? Opens, Instant? Due, Instant? Closes)? Moments(Replay? replay, Ref<Item> item) =>
        replay?.Table.Section.NumberOf(item) is { } number && replay.Table.Dates[number] is { } dates
            ? (dates.Opens.At, dates.Due.At, dates.Closes.At)
            : null;
}
