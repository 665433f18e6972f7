using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.Enrolling;

/// <summary>What becomes of an item when a student moves to another section; the first that applies.</summary>
public enum MovedState
{
    /// <summary>The old section added it. What they wrote stays readable.</summary>
    LeftBehind,

    /// <summary>The new section does not have it, or not for them.</summary>
    Dropped,

    /// <summary>The new section keeps it back or has not published it.</summary>
    Held,
    Done,

    /// <summary>It was due, or closed, in the new section only: a person has to say what comes of it.</summary>
    AlreadyDue,

    /// <summary>The old section did not have it.</summary>
    Extra,

    /// <summary>It was due in both: a move excuses nobody.</summary>
    DueInBoth,
    Same,
    Earlier,
    Later,
}

/// <summary>What is chosen for an item that was already due in the new section.</summary>
public enum MoveChoice
{
    /// <summary>A new due.</summary>
    New,
    Excuse,

    /// <summary>It stays as it stands, and is overdue.</summary>
    Keep,
}

/// <summary>One row of a move: what becomes of an item.</summary>
public sealed record MovedItem
{
    public required Ref<Item> Item { get; init; }

    public required MovedState State { get; init; }

    /// <summary>Done in the old section.</summary>
    public required bool Done { get; init; }

    /// <summary>The student has begun it: it stays readable whatever comes of it.</summary>
    public required bool Readable { get; init; }

    /// <summary>Its due in the old section; null: none, or that section does not have it.</summary>
    public required Instant? DueThere { get; init; }

    /// <summary>Its due in the new one, as the student gets it.</summary>
    public Instant? DueHere { get; init; }

    /// <summary>It was open to them, and an exception keeps it so.</summary>
    public bool KeptOpen { get; init; }

    /// <summary>Of <see cref="MovedState.AlreadyDue"/> only.</summary>
    public MoveChoice? Choice { get; init; }

    /// <summary>The new due proposed for an item that was already due; null if no class is left for it.</summary>
    public Instant? Proposed { get; init; }
}

/// <summary>
/// What happens when a student moves from one section to another: a proposal. Work does not move, because it is the student's.
/// Source: the computation, chapter 11.
/// </summary>
/// <param name="IsBack">It undoes the move of the same day: nothing is to be settled.</param>
/// <param name="Rows">In reading order.</param>
/// <param name="Exceptions">What it gives the student, in the same order.</param>
/// <param name="TakesBack">How many exceptions of the move it undoes go.</param>
public sealed record SectionMove(bool IsBack, ImmutableArray<MovedItem> Rows, ImmutableArray<ForOneStudent> Exceptions, int TakesBack)
{
    /// <param name="at">When it is judged; null: the last second before the move.</param>
    /// <param name="choices">For items that were already due; those left out get a new due.</param>
    public static SectionMove Of(
        PlanSchedule plan,
        Plan people,
        Ref<Student> student,
        MoveMark move,
        Instant? at,
        IReadOnlyDictionary<Ref<Item>, MoveChoice> choices
    )
    {
        if (IsGoingBack(people, student, move))
            return new(true, [], [], people.Exceptions.Count(exception => exception.Student == student && exception.Move == Undone(move)));
        return new Proposal(plan, StudentRecord.Of(people, student), move, at, choices).Made();
    }

    /// <summary>Whether a move undoes that of the same day: back from the section that took the student in.</summary>
    public static bool IsGoingBack(Plan people, Ref<Student> student, MoveMark move) =>
        Lists(people, move.To, student, entry => entry.To == move.On.PlusDays(-1))
        && Lists(people, move.From, student, entry => entry.From == move.On);

    private static MoveMark Undone(MoveMark move) => new(move.To, move.From, move.On);

    internal static bool Lists(Plan people, Ref<Section> section, Ref<Student> student, Func<Enrolment, bool> which) =>
        people.Sections.Single(one => one.Ref == section).Students.Any(entry => entry.Student == student && which(entry));

    private sealed class Proposal
    {
        private readonly PlanSchedule plan;
        private readonly MoveMark move;
        private readonly IReadOnlyDictionary<Ref<Item>, MoveChoice> choices;
        private readonly SectionSchedule there;
        private readonly SectionSchedule here;
        private readonly StudentRecord student;
        private readonly Explain explained;
        private readonly Instant then;
        private readonly Instant now;

        public Proposal(
            PlanSchedule plan,
            StudentRecord student,
            MoveMark move,
            Instant? at,
            IReadOnlyDictionary<Ref<Item>, MoveChoice> choices
        )
        {
            (this.plan, this.move, this.choices) = (plan, move, choices);
            var midnight = plan.Term.ToInstant(move.On.AtMidnight());
            then = at ?? midnight - Duration.FromSeconds(1);
            now = Instant.Max(then, midnight);
            this.student = student.Until(then);
            (there, here) = (plan.Section(move.From), plan.Section(move.To));
            explained = new(plan, this.student);
        }

        public SectionMove Made()
        {
            var (rows, exceptions) = (ImmutableArray.CreateBuilder<MovedItem>(), ImmutableArray.CreateBuilder<ForOneStudent>());
            foreach (var item in InReadingOrder())
            {
                var begun = student.Facts.HasBegun(item, then);
                if (!begun && !Has(there, item) && !Has(here, item))
                    continue;
                var (row, exception) = Moved(item, begun);
                rows.Add(row);
                if (exception is not null)
                    exceptions.Add(exception);
            }
            return new(false, rows.ToImmutable(), exceptions.ToImmutable(), 0);
        }

        private IEnumerable<Ref<Item>> InReadingOrder() =>
            plan
                .Edition.InReadingOrder()
                .Select(item => item.Ref)
                .Concat(
                    plan.Sections.SelectMany(section => section.Section.Adjustments.OfType<Adjustment.AddItem>())
                        .Select(add => add.Item.Ref)
                );

        private bool Has(SectionSchedule section, Ref<Item> item) =>
            section.Item(item) is { Item: { Published: true, Held: false } known } && student.IsFor(known);

        private (MovedItem Row, ForOneStudent? Exception) Moved(Ref<Item> item, bool begun)
        {
            var done = student.Facts.IsDone(plan.Item(item), then);
            var datesThere = Has(there, item) ? student.DatesOf(there, there.Item(item)!) : null;
            var row = new MovedItem
            {
                Item = item,
                State = MovedState.Same,
                Done = done,
                Readable = begun,
                DueThere = datesThere?.Due.At,
            };
            if (there.Item(item) is { Item.IsOwn: true })
                return (row with { State = MovedState.LeftBehind }, null);
            if (here.Item(item) is not { } scheduled || !student.IsFor(scheduled.Item))
                return (row with { State = MovedState.Dropped }, null);
            if (!Has(here, item))
                return (row with { State = MovedState.Held }, null);

            var kept = KeptOpen(item, datesThere);
            var dates = (kept is null ? student : With(kept)).DatesOf(here, scheduled)!;
            row = row with { DueHere = dates.Due.At, KeptOpen = kept is not null };
            if (done)
                return (row with { State = MovedState.Done }, kept);
            if ((IsPast(dates.Due) || IsPast(dates.Closes)) && !(datesThere is { } old && (IsPast(old.Due) || IsPast(old.Closes))))
                return Settled(
                    row with
                    {
                        State = MovedState.AlreadyDue,
                        Choice = choices.GetValueOrDefault(item),
                    },
                    kept,
                    dates,
                    datesThere
                );
            return (row with { State = Compared(datesThere, dates) }, kept);
        }

        private MovedState Compared(ItemDates? old, ItemDates dates)
        {
            if (old is null)
                return MovedState.Extra;
            if (IsPast(old.Due) && IsPast(dates.Due))
                return MovedState.DueInBoth;
            // Never due is the latest.
            return (dates.Due.At ?? Instant.MaxValue).CompareTo(old.Due.At ?? Instant.MaxValue) switch
            {
                0 => MovedState.Same,
                < 0 => MovedState.Earlier,
                _ => MovedState.Later,
            };
        }

        private bool IsOpenThere(Ref<Item> item) =>
            explained.DecideIn(move.From, item, then).State is ReleaseState.Open or ReleaseState.Overdue;

        private bool IsPast(ItemDate date) => date.At < now;

        // What is open there stays open here.
        private ForOneStudent? KeptOpen(Ref<Item> item, ItemDates? datesThere)
        {
            if (!IsOpenThere(item))
                return null;
            var kept = Opened(Blank(item), datesThere?.Opens.At);
            return kept == Blank(item) ? null : kept;
        }

        /// <summary>The same exception, with what else it takes for the item to be open in the new section.</summary>
        /// <param name="given">Who it is for, the item, and what it gives already.</param>
        /// <param name="opened">Since when it was open in the old section; null: for ever.</param>
        private ForOneStudent Opened(ForOneStudent given, Instant? opened)
        {
            var state = Deciding(given);
            if (state is ReleaseState.Upcoming or ReleaseState.Unscheduled)
            {
                given = given with { Opens = new(true, opened is { } at ? Fixed(at) : null) };
                state = Deciding(given);
            }
            return state == ReleaseState.Locked ? given with { Unlocked = true } : given;
        }

        private ReleaseState Deciding(ForOneStudent given) => new Explain(plan, With(given)).DecideIn(move.To, given.Item, now).Deciding;

        private (MovedItem Row, ForOneStudent? Exception) Settled(
            MovedItem row,
            ForOneStudent? kept,
            ItemDates dates,
            ItemDates? datesThere
        )
        {
            var proposed = here
                .Meetings.Meetings.ForHandingIn(plan.Term.Term)
                .FirstOrDefault(meeting =>
                    meeting.StartsAt > now
                    && meeting.Date > plan.Term.Local(now).Date
                    && !(dates.Opens.At is { } opens && meeting.Date <= plan.Term.Local(opens).Date)
                )
                ?.StartsAt;
            row = row with { Proposed = proposed };
            var given = kept ?? Blank(row.Item);
            switch (row.Choice)
            {
                case MoveChoice.Keep:
                    return (row, kept);
                case MoveChoice.Excuse:
                    return (row, given with { Excused = true });
                default:
                    var shutsBefore = proposed is { } due ? dates.Closes.At < due : dates.Closes.At <= now;
                    given = given with
                    {
                        Due = new(true, proposed is { } at ? Fixed(at) : null),
                        Closes = shutsBefore ? new(true, null) : given.Closes,
                    };
                    if (!IsOpenThere(row.Item))
                        return (row, given);
                    // An opening that hangs on the due would move with it, and what was shut may be locked too.
                    var open = Opened(given, datesThere?.Opens.At);
                    return (row with { KeptOpen = row.KeptOpen || open != given }, open);
            }
        }

        private ForOneStudent Blank(Ref<Item> item) =>
            new()
            {
                Student = student.Student,
                Item = item,
                Move = move,
            };

        private StudentRecord With(ForOneStudent exception) =>
            student with
            {
                Exceptions = new Dictionary<Ref<Item>, ForOneStudent>(student.Exceptions)
                {
                    [exception.Item] = exception.Over(student.Exceptions.GetValueOrDefault(exception.Item)),
                },
            };

        private Anchor Fixed(Instant moment)
        {
            var local = plan.Term.Local(moment);
            return new()
            {
                At = AnchorBase.Fixed,
                Date = local.Date,
                Time = new(local.Hour, local.Minute),
            };
        }
    }
}
