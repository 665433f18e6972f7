using NodaTime;

namespace Polycline.Core.Release.Compiled;

/// <summary>
/// One student in one section as facts and time pass: it is moved forward from moment to moment, keeps what was done and
/// which gates are met, and decides without allocating anything. Not for several threads at once. Source: the
/// computation, chapter 5.
/// </summary>
public sealed class Replay
{
    private readonly ReleaseTable table;
    private readonly GateTable.Layout gates;
    private readonly FactTable facts;
    private readonly Deeds[] deeds;
    private readonly int[] best;
    private readonly int[] latest;
    private readonly int[] attempts;
    private readonly int[] picked;
    private readonly bool[] holds;
    private readonly bool[] met;
    private int nextFact;
    private int nextMoment;
    private int order;
    private long now;

    public Replay(ReleaseTable table, FactTable facts)
    {
        this.table = table;
        this.facts = facts;
        gates = table.Gates;
        deeds = new Deeds[table.Rows.Length];
        best = new int[table.Rows.Length];
        latest = new int[table.Rows.Length];
        attempts = new int[facts.AttemptsOn.Sum(item => item.Count)];
        picked = new int[facts.PicksOn.Sum(item => item.Options?.Length ?? 0)];
        holds = new bool[gates.Roots.Length];
        met = new bool[gates.Roots.Length];
        table.Start?.CopyTo(holds, met);
        now = long.MinValue;
    }

    /// <summary>The moment it stands at, in ticks of 100 ns from 1970.</summary>
    public long Now => now;

    public ReleaseTable Table => table;

    /// <summary>How many times gates have been judged so far, not counting how they stood at the start.</summary>
    public long Judgements { get; private set; }

    /// <summary>Back to where nothing had happened yet.</summary>
    public void Restart()
    {
        Array.Clear(deeds);
        Array.Clear(best);
        Array.Clear(latest);
        Array.Clear(attempts);
        Array.Clear(picked);
        table.Start!.CopyTo(holds, met);
        (nextFact, nextMoment, order, now) = (0, 0, 0, long.MinValue);
    }

    /// <summary>On to a moment, through everything that happened by then; to an earlier one by starting anew.</summary>
    public void MoveTo(Instant at) => MoveTo(Ticks.Of(at));

    /// <inheritdoc cref="MoveTo(Instant)"/>
    public void MoveTo(long at)
    {
        if (at < now)
            Restart();
        var entries = facts.Entries;
        var moments = gates.Moments;
        while (true)
        {
            var moment = Math.Min(
                nextFact < entries.Length ? entries[nextFact].At : long.MaxValue,
                nextMoment < moments.Length ? moments[nextMoment] : long.MaxValue
            );
            if (moment > at || moment == long.MaxValue)
                break;
            now = moment;
            // Facts of one moment count together, before any gate is judged.
            var first = nextFact;
            while (nextFact < entries.Length && entries[nextFact].At == moment)
                Apply(in entries[nextFact++]);
            var byTime = nextMoment < moments.Length && moments[nextMoment] == moment ? gates.ByMoment[nextMoment++] : [];
            Judge(byTime);
            for (var n = first; n < nextFact; n++)
                Judge(gates.ByItem[entries[n].Item]);
            Latch(byTime);
            for (var n = first; n < nextFact; n++)
                Latch(gates.ByItem[entries[n].Item]);
        }
        now = at;
    }

    /// <summary>The decision on an item, by its number, at the moment at which this stands.</summary>
    public Verdict Decide(int item)
    {
        ref readonly var row = ref table.Rows[item];
        var verdict = Undone(in row, item);
        return (deeds[item] & Deeds.Begun) == 0 ? verdict : verdict.OnceBegun();
    }

    /// <summary>The decisions on all items.</summary>
    /// <param name="into">By item number: the <see cref="Verdict.Code"/> of each.</param>
    public void DecideAll(Span<byte> into)
    {
        var rows = table.Rows;
        for (var item = 0; item < rows.Length; item++)
        {
            var verdict = Undone(in rows[item], item);
            into[item] = ((deeds[item] & Deeds.Begun) == 0 ? verdict : verdict.OnceBegun()).Code;
        }
    }

    /// <summary>Reads every array once and writes a byte an item, deciding nothing: what its speed is measured against.</summary>
    /// <returns>A sum of all that was read.</returns>
    internal long ReadThrough(Span<byte> into)
    {
        var sum = 0L;
        var rows = table.Rows;
        for (var item = 0; item < rows.Length; item++)
        {
            ref readonly var row = ref rows[item];
            var read =
                row.Opens
                + row.Due
                + row.Closes
                + row.DueDay
                + row.UnitGate
                + row.LessonGate
                + row.ItemGate
                + (int)row.Done
                + (int)row.Open
                + (int)row.Before
                + (int)deeds[item]
                + (met[row.ItemGate] ? 1 : 0);
            into[item] = (byte)read;
            sum += read;
        }
        return sum;
    }

    /// <summary>How gates stand before anything happened.</summary>
    internal static GatesAtStart StartOf(ReleaseTable table)
    {
        var replay = new Replay(table, FactTable.None(table.Section));
        replay.holds[GateTable.Open] = true;
        for (var gate = GateTable.Open + 1; gate < replay.holds.Length; gate++)
            replay.holds[gate] = replay.Holds(table.Gates.Roots[gate]);
        return new(replay.holds, [.. replay.holds.Select((holds, gate) => holds && table.Gates.From[gate] == long.MinValue)]);
    }

    /// <param name="Holds">By gate: whether it holds.</param>
    /// <param name="Met">By gate: whether it counts as met; one whose time to be latched has not come does not.</param>
    internal sealed record GatesAtStart(bool[] Holds, bool[] Met)
    {
        public void CopyTo(bool[] holds, bool[] met)
        {
            Holds.CopyTo(holds, 0);
            Met.CopyTo(met, 0);
        }
    }

    // The decision whatever the student has begun.
    private Verdict Undone(in ReleaseTable.Row row, int item)
    {
        if (row.Standing is { } standing)
            return standing;
        if (now < row.Opens)
            return Verdict.Of(
                ReleaseState.Upcoming,
                IsHidden(row.UnitGate) || IsHidden(row.LessonGate) || (!holds[row.ItemGate] && gates.Hidden[row.ItemGate])
                    ? Sees.Nothing
                    : row.Before
            );
        if (!(met[row.UnitGate] & met[row.LessonGate] & met[row.ItemGate]))
            return Verdict.Of(
                ReleaseState.Locked,
                IsHidden(row.UnitGate) || IsHidden(row.LessonGate) || IsHidden(row.ItemGate) ? Sees.Nothing : Sees.Title
            );
        if (now >= row.Closes)
            return Verdict.Of(ReleaseState.Closed, Sees.Read);
        return Verdict.Of(
            now > row.Due && (deeds[item] & row.Done) == 0 && row.DueDay > facts.JoinedDay ? ReleaseState.Overdue : ReleaseState.Open,
            row.Open
        );
    }

    private bool IsHidden(int gate) => !met[gate] && gates.Hidden[gate];

    private void Apply(ref readonly FactTable.Entry fact)
    {
        ref var done = ref deeds[fact.Item];
        switch (fact.Event)
        {
            case FactEvent.Opened:
                done |= Deeds.Opened;
                break;
            case FactEvent.Begun:
                done |= Deeds.Begun;
                break;
            case FactEvent.Ticked:
                done |= Deeds.Ticked | Deeds.Begun;
                break;
            case FactEvent.Unticked:
                done &= ~Deeds.Ticked;
                break;
            case FactEvent.Submitted:
                done |= Deeds.Submitted | Deeds.Begun;
                break;
            case FactEvent.TakenBack:
                done &= ~Deeds.Submitted;
                break;
            case FactEvent.Returned:
                done = (fact.Slot == 0 ? done | Deeds.Returned : done & ~Deeds.Returned) | Deeds.Begun;
                break;
            case FactEvent.Scored:
                done |= Deeds.Scored | Deeds.Begun;
                Score(in fact);
                break;
            default:
                done |= Deeds.Begun;
                Pick(in fact, ref done);
                break;
        }
    }

    // Of several scores of one attempt only the latest counts.
    private void Score(ref readonly FactTable.Entry fact)
    {
        attempts[fact.Slot] = fact.Part;
        var (first, count) = facts.AttemptsOn[fact.Item];
        var (highest, last) = (0, 0);
        for (var slot = first; slot < first + count; slot++)
        {
            highest = Math.Max(highest, attempts[slot]);
            last = attempts[slot] > 0 ? attempts[slot] : last;
        }
        (best[fact.Item], latest[fact.Item]) = (highest, last);
    }

    // An empty pick withdraws all earlier ones; else an option remembers when it was picked last.
    private void Pick(ref readonly FactTable.Entry fact, ref Deeds done)
    {
        if (fact.Slot >= 0)
        {
            picked[fact.Slot] = ++order;
            done |= Deeds.Picked;
            return;
        }
        var (first, options, _) = facts.PicksOn[fact.Item];
        if (options is not null)
            Array.Clear(picked, first, options.Length);
        done &= ~Deeds.Picked;
    }

    private bool IsPicked(int item, int option)
    {
        var (first, options, most) = facts.PicksOn[item];
        if (
            options is null
            || Array.IndexOf(options, option) is not (>= 0 and var place)
            || picked[first + place] is not (> 0 and var since)
        )
            return false;
        var later = 0;
        for (var slot = first; slot < first + options.Length; slot++)
            if (picked[slot] > since)
                later++;
        return later < most;
    }

    private void Judge(int[] numbers)
    {
        Judgements += numbers.Length;
        foreach (var gate in numbers)
            holds[gate] = Holds(gates.Roots[gate]);
    }

    private void Latch(int[] numbers)
    {
        foreach (var gate in numbers)
            if (now >= gates.From[gate])
                met[gate] = holds[gate] | (gates.Latched[gate] & met[gate]);
    }

    private bool Holds(int at)
    {
        ref readonly var step = ref gates.Steps[at];
        switch (step.Kind)
        {
            case GateStepKind.Done:
                return ((int)deeds[step.Item] & step.Least) != 0;
            case GateStepKind.All:
                for (var child = at + 1; child < at + step.Length; child += gates.Steps[child].Length)
                    if (!Holds(child))
                        return false;
                return true;
            case GateStepKind.Any:
                for (var child = at + 1; child < at + step.Length; child += gates.Steps[child].Length)
                    if (Holds(child))
                        return true;
                return false;
            case GateStepKind.AtLeast:
                var enough = step.Least;
                for (var child = at + 1; enough > 0 && child < at + step.Length; child += gates.Steps[child].Length)
                    if (Holds(child))
                        enough--;
                return enough <= 0;
            case GateStepKind.Not:
                return !Holds(at + 1);
            case GateStepKind.Best:
                return best[step.Item] >= step.Least && best[step.Item] < step.Below;
            case GateStepKind.Latest:
                return latest[step.Item] >= step.Least && latest[step.Item] < step.Below;
            case GateStepKind.Picked:
                return IsPicked(step.Item, step.Least);
            case GateStepKind.Since:
                return now >= step.Since;
            case GateStepKind.Gate:
                return holds[step.Item];
            default:
                throw new InvalidOperationException($"A gate asks for {step.Kind}.");
        }
    }
}
