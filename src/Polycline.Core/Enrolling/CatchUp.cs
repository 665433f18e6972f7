using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.Enrolling;

/// <summary>Why an item is asked for.</summary>
public enum CatchUpReason
{
    /// <summary>It was due by the day of joining.</summary>
    Due,

    /// <summary>Something that was due cannot be reached without it.</summary>
    Needed,
}

/// <summary>One item of a catch-up, at a class.</summary>
/// <param name="Was">Its due as it stood; null: none.</param>
/// <param name="Due">The start of that class.</param>
/// <param name="Needs">The items it waits for, in reading order.</param>
public sealed record CatchUpLine(
    Ref<Item> Item,
    CatchUpReason Asked,
    Instant? Was,
    Meeting Meeting,
    Instant Due,
    ImmutableArray<Ref<Item>> Needs
);

/// <summary>What comes of an item that waits for one that is excused. The first of several gates' stands.</summary>
public enum Hanging
{
    /// <summary>Its condition can then not be met at all: which way is for a person to say.</summary>
    Shut,

    /// <summary>The condition of the one that is excused stands instead.</summary>
    Replaced,

    /// <summary>The one that is excused is not waited for.</summary>
    Waived,
}

/// <summary>An item that waits for one that cannot be done any more, or is left out.</summary>
public sealed record HangingItem(Ref<Item> Item, Hanging Then);

/// <summary>An item, and the items that wait for it, in reading order.</summary>
public sealed record WaitedFor(Ref<Item> Item, ImmutableArray<HangingItem> Hangs);

/// <param name="By">What it is stuck by, in reading order.</param>
public sealed record StuckItem(Ref<Item> Item, ImmutableArray<Ref<Item>> By);

/// <summary>
/// What a student who joined late should catch up on, and by which of their section's classes: a proposal.
/// Source: the computation, chapter 11.
/// </summary>
/// <param name="Section">The student's section; null: none lists them.</param>
/// <param name="Joined">Since when it lists them; null: from the beginning, and there is nothing to catch up.</param>
/// <param name="Lines">In the order in which they are to be done.</param>
/// <param name="Closed">What can no longer be handed in.</param>
/// <param name="Stuck">What nothing they do would open.</param>
/// <param name="Unplaced">What finds no class any more.</param>
/// <param name="Over">Discussions that are over.</param>
/// <param name="Left">What is left out by choice.</param>
public sealed record CatchUp(
    Ref<Section>? Section,
    LocalDate? Joined,
    ImmutableArray<CatchUpLine> Lines,
    ImmutableArray<WaitedFor> Closed,
    ImmutableArray<StuckItem> Stuck,
    ImmutableArray<Ref<Item>> Unplaced,
    ImmutableArray<Ref<Item>> Over,
    ImmutableArray<WaitedFor> Left
)
{
    /// <param name="perClass">How many are due at one class, from 1.</param>
    /// <param name="leave">What is left out, as if it were excused.</param>
    public static CatchUp Of(PlanSchedule plan, StudentRecord student, Instant at, int perClass, IReadOnlyCollection<Ref<Item>> leave)
    {
        var section = student.SectionAt(plan.Term.Term, at);
        var today = plan.Term.Local(at).Date;
        var entry = student.Enrolments.FirstOrDefault(pair => pair.Section == section && pair.Enrolment.Holds(today)).Enrolment;
        return section is { } name && entry?.From is { } joined
            ? new Proposal(plan, student, plan.Section(name), entry, at, perClass, leave).Made(name, joined)
            : new(section, entry?.From, [], [], [], [], [], []);
    }

    private sealed class Proposal
    {
        private readonly PlanSchedule plan;
        private readonly StudentRecord student;
        private readonly SectionSchedule schedule;
        private readonly Enrolment entry;
        private readonly int perClass;
        private readonly IReadOnlyCollection<Ref<Item>> leave;
        private readonly StudentHere here;
        private readonly Dictionary<Ref<Item>, int> order = [];
        private readonly Dictionary<Ref<Item>, CatchUpReason> asked = [];
        private readonly Dictionary<Ref<Item>, CatchUpLine> placed = [];
        private readonly HashSet<Ref<Item>> fallenOut = [];

        public Proposal(
            PlanSchedule plan,
            StudentRecord student,
            SectionSchedule schedule,
            Enrolment entry,
            Instant at,
            int perClass,
            IReadOnlyCollection<Ref<Item>> leave
        )
        {
            (this.plan, this.student, this.schedule, this.entry) = (plan, student, schedule, entry);
            (this.perClass, this.leave) = (perClass, leave);
            here = new(plan, schedule, student, at, leave);
            foreach (var item in schedule.Items)
                order.Add(item.Item.Ref, order.Count);
        }

        public CatchUp Made(Ref<Section> section, LocalDate joined)
        {
            var past = order.Keys.Where(item => IsAskedFor(item, joined)).ToList();
            var over = past.Where(here.IsOver).ToImmutableArray();
            var closed = past.Where(item => !here.IsOver(item) && here.IsClosed(item)).ToList();
            foreach (var item in past.Where(item => !here.IsOver(item) && !here.IsClosed(item)))
                asked.Add(item, CatchUpReason.Due);
            foreach (var item in asked.Keys.ToList())
                AddNeeded(item);

            var (lines, stuck, unplaced) = (new List<CatchUpLine>(), new List<StuckItem>(), new List<Ref<Item>>());
            foreach (var item in InTurn())
            {
                if (StuckBy(item) is { Count: > 0 } by)
                    stuck.Add(new(item, Sorted(by)));
                else if (ClassFor(item, joined) is not { } meeting)
                    unplaced.Add(item);
                else if (meeting.StartsAt > here.DatesOf(item)!.Closes.At)
                    closed.Add(item);
                else
                {
                    var line = new CatchUpLine(
                        item,
                        asked[item],
                        here.DatesOf(item)!.Due.At,
                        meeting,
                        meeting.StartsAt,
                        Sorted(here.WantedBy(item))
                    );
                    placed.Add(item, line);
                    lines.Add(line);
                    continue;
                }
                fallenOut.Add(item);
            }
            return new(
                section,
                joined,
                [.. lines],
                [.. closed.Select(item => new WaitedFor(item, HangingOn(item, leave)))],
                [.. stuck],
                [.. unplaced],
                over,
                [
                    .. Sorted(leave.Where(item => schedule.Item(item) is { Item.Skipped: false }))
                        .Select(item => new WaitedFor(item, HangingOn(item, []))),
                ]
            );
        }

        // The day of joining itself is asked for: nobody can be ready that morning.
        private bool IsAskedFor(Ref<Item> item, LocalDate joined) =>
            here.Can(item)
            && !here.IsDone(item)
            && plan.Item(item).Purpose != Purpose.ToRead
            && here.DatesOf(item) is { } dates
            && (dates.Due.At is { } due && LocalDateOf(due) <= joined || dates.Closes.At is { } closes && LocalDateOf(closes) <= joined);

        // Of two either of which would do neither is needed: that is the student's choice.
        private void AddNeeded(Ref<Item> item)
        {
            foreach (var gate in here.UnmetOf(item))
            foreach (var other in gate.Wanted().Select(leaf => leaf.ItemOf).OfType<Ref<Item>>().Distinct())
            {
                if (asked.ContainsKey(other) || !gate.CannotDoWithout(one => one == other))
                    continue;
                if (!here.Can(other) || here.IsDone(other) || here.IsOver(other) || here.IsClosed(other))
                    continue;
                // What is due later keeps its own due.
                if (plan.Item(other).Purpose == Purpose.ToRead || here.DatesOf(other)!.Due.At > here.At)
                    continue;
                asked.Add(other, CatchUpReason.Needed);
                AddNeeded(other);
            }
        }

        // What others wait for comes first, and nothing before what it waits for itself, except in a circle.
        private IEnumerable<Ref<Item>> InTurn()
        {
            var wants = asked.Keys.ToDictionary(item => item, item => here.WantedBy(item).Where(asked.ContainsKey).ToHashSet());
            var helping = order
                .Keys.Where(item => here.Can(item) && !here.IsDone(item))
                .SelectMany(item => here.WantedBy(item).Where(other => other != item))
                .ToHashSet();
            var left = Sorted(asked.Keys).ToList();
            while (left.Count > 0)
            {
                var free = left.Where(item => !wants[item].Any(other => other != item && left.Contains(other))).ToList();
                var next =
                    free.Count > 0
                        ? free.Where(helping.Contains).Append(free[0]).First()
                        : left.First(item => Reached(item, wants, left).All(other => Reached(other, wants, left).Contains(item)));
                left.Remove(next);
                yield return next;
            }
        }

        private static HashSet<Ref<Item>> Reached(Ref<Item> from, Dictionary<Ref<Item>, HashSet<Ref<Item>>> wants, List<Ref<Item>> within)
        {
            var reached = new HashSet<Ref<Item>>();
            var open = new Stack<Ref<Item>>([from]);
            while (open.TryPop(out var item))
                foreach (var other in wants[item].Where(within.Contains))
                    if (reached.Add(other))
                        open.Push(other);
            return reached;
        }

        private HashSet<Ref<Item>> StuckBy(Ref<Item> item)
        {
            var by = new HashSet<Ref<Item>>();
            foreach (var gate in here.UnmetOf(item))
            {
                if (gate.CannotBeMet)
                    by.UnionWith(gate.Standing.UnmetOn);
                by.UnionWith(
                    gate.Wanted()
                        .Select(leaf => leaf.ItemOf)
                        .OfType<Ref<Item>>()
                        .Where(other => IsOutOfReach(other) && gate.CannotDoWithout(one => one == other))
                );
            }
            return by;
        }

        private bool IsOutOfReach(Ref<Item> item) =>
            fallenOut.Contains(item) || !here.Can(item) || ((here.IsClosed(item) || here.IsOver(item)) && !here.IsDone(item));

        private Meeting? ClassFor(Ref<Item> item, LocalDate joined)
        {
            var today = LocalDateOf(here.At);
            var opens = here.DatesOf(item)!.Opens.At is { } opening ? LocalDateOf(opening) : LocalDate.MinIsoValue;
            var wanted = here.UnmetOf(item)
                .SelectMany(gate => gate.Wanted())
                .Where(leaf => leaf.ItemOf is { } other && other != item)
                .GroupBy(leaf => leaf.ItemOf!.Value)
                .ToDictionary(leaves => leaves.Key, leaves => leaves.Max(ClassesAfter));
            return schedule
                .Meetings.Meetings.ForHandingIn(plan.Term.Term)
                .FirstOrDefault(meeting =>
                    meeting.StartsAt > here.At
                    && entry.Holds(meeting.Date)
                    && meeting.Date > today
                    && meeting.Date > joined
                    && meeting.Date > opens
                    && wanted.All(pair => ComesAfter(meeting, pair.Key, pair.Value))
                    && placed.Values.Count(line => line.Meeting.Ordinal == meeting.Ordinal) < perClass
                );
        }

        private bool ComesAfter(Meeting meeting, Ref<Item> wanted, int classes)
        {
            if (placed.TryGetValue(wanted, out var line))
                return meeting.Ordinal >= line.Meeting.Ordinal + classes && meeting.Date > line.Meeting.Date;
            return !here.Can(wanted)
                || here.IsDone(wanted)
                || fallenOut.Contains(wanted)
                || here.DatesOf(wanted)!.Due.At is not { } due
                || meeting.Date > LocalDateOf(due);
        }

        // Where a teacher has to read it between, a class lies between.
        private int ClassesAfter(GateNode leaf) =>
            leaf is GateNode.Done { Deed: Deed.Returned }
            || (leaf is GateNode.Scored scored && plan.Item(scored.Item).Kind != ItemKind.Quiz)
                ? 2
                : 1;

        // What waits for an item, and what comes of it when that is excused.
        private ImmutableArray<HangingItem> HangingOn(Ref<Item> item, IReadOnlyCollection<Ref<Item>> left)
        {
            var before = new StudentHere(plan, schedule, student, here.At, left);
            var after = new StudentHere(plan, schedule, student, here.At, [.. left, item]);
            var hanging = ImmutableArray.CreateBuilder<HangingItem>();
            foreach (var (other, _) in schedule.Items)
            {
                if (other.Ref == item || !other.Published || !before.Student.IsFor(other) || before.IsDone(other.Ref))
                    continue;
                var naming = before
                    .UnmetOf(other.Ref)
                    .Where(gate => gate.Standing.Node?.Leaves().Any(leaf => leaf.ItemOf == item) == true)
                    .ToList();
                if (naming.Count > 0)
                    hanging.Add(new(other.Ref, naming.Min(gate => Then(gate, item, after))));
            }
            return hanging.ToImmutable();
        }

        private Hanging Then(UnmetGate gate, Ref<Item> item, StudentHere after) =>
            after.Standing(gate.Trace).CannotBeMet ? Hanging.Shut
            : schedule.GateOf(item) is not null ? Hanging.Replaced
            : Hanging.Waived;

        private LocalDate LocalDateOf(Instant moment) => plan.Term.Local(moment).Date;

        private ImmutableArray<Ref<Item>> Sorted(IEnumerable<Ref<Item>> items) =>
            [.. items.OrderBy(item => order.GetValueOrDefault(item, int.MaxValue)).ThenBy(item => item)];
    }
}
