using System.Collections.Immutable;
using NodaTime;

namespace Polycline.Core.Calendars;

/// <summary>Slots and changes → meetings. Source: the computation, chapter 2.</summary>
public static class SectionMeetings
{
    private static readonly string[] Weekdays = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"];

    private sealed record MeetingDraft
    {
        public required LocalDate Date { get; init; }

        public required LocalTime Start { get; init; }

        public required LocalTime End { get; init; }

        public required string? Label { get; init; }

        public required int Counts { get; init; }

        public required Stretch Whole { get; init; }

        public required ImmutableArray<Stretch> Stretches { get; init; }

        public required MeetingOrigin Origin { get; init; }

        public required int Made { get; init; }
    }

    /// <summary>The meetings as they stand between one change and the next, found by date and by date and start.</summary>
    private sealed class Drafts
    {
        private readonly Dictionary<LocalDate, HashSet<MeetingDraft>> byDate = [];
        private readonly Dictionary<LocalDateTime, HashSet<MeetingDraft>> byStart = [];

        public Drafts(List<MeetingDraft> drafts)
        {
            foreach (var draft in drafts)
                Add(draft);
        }

        /// <summary>How many were ever made: the number of the next.</summary>
        public int Made { get; private set; }

        public void Add(MeetingDraft draft)
        {
            Of(byDate, draft.Date).Add(draft);
            Of(byStart, draft.Date + draft.Start).Add(draft);
            Made++;
        }

        public void Remove(MeetingDraft draft)
        {
            byDate[draft.Date].Remove(draft);
            byStart[draft.Date + draft.Start].Remove(draft);
        }

        public IReadOnlyCollection<MeetingDraft> On(LocalDate date, LocalTime? start) =>
            (start is { } time ? byStart.GetValueOrDefault(date + time) : byDate.GetValueOrDefault(date)) ?? [];

        public List<MeetingDraft> Left() => [.. byDate.Values.SelectMany(drafts => drafts)];

        private static HashSet<MeetingDraft> Of<T>(Dictionary<T, HashSet<MeetingDraft>> found, T key)
            where T : notnull
        {
            if (!found.TryGetValue(key, out var own))
                found[key] = own = new(ReferenceEqualityComparer.Instance);
            return own;
        }
    }

    /// <param name="section">What the section is called in the finding <c>no-meetings</c>.</param>
    /// <exception cref="MeetingChangeException">A change names several meetings, or puts one outside the term.</exception>
    public static MeetingList Of(TermDays term, string section, ImmutableArray<Slot> slots, ImmutableArray<MeetingChange> changes)
    {
        var findings = ImmutableArray.CreateBuilder<Finding>();
        var cancelled = ImmutableArray.CreateBuilder<CancelledMeeting>();
        var drafts = FromSlots(term, slots);
        if (!changes.IsEmpty)
        {
            var changed = new Drafts(drafts);
            for (var n = 0; n < changes.Length; n++)
                Apply(term, changed, changes[n], n, findings, cancelled);
            drafts = changed.Left();
        }
        var meetings = Number(drafts);
        foreach (var meeting in Overlapping(meetings))
            findings.Add(new(FindingCode.MeetingOverlap, $"{meeting.Date:uuuu-MM-dd}T{meeting.Start:HH:mm}"));
        if (meetings.IsEmpty)
            findings.Add(new(FindingCode.NoMeetings, section));
        return new(meetings, findings.ToImmutable(), cancelled.ToImmutable());
    }

    /// <summary>Every label that days of the term can be given, and that a slot may name.</summary>
    public static IEnumerable<string> LabelsOf(Rotation rotation) =>
        rotation switch
        {
            Rotation.ByDays days => days.Labels,
            Rotation.ByWeeks weeks => weeks.Labels.SelectMany(letter => Weekdays.Select(day => $"{letter}-{day}")).Concat(Weekdays),
            _ => Weekdays,
        };

    private static List<MeetingDraft> FromSlots(TermDays term, ImmutableArray<Slot> slots)
    {
        var drafts = new List<MeetingDraft>();
        foreach (var slot in slots)
        {
            var anyWeek = term.Term.Calendar.Rotation is Rotation.ByWeeks && Weekdays.Contains(slot.Day) ? "-" + slot.Day : null;
            var name = NameOf(slot);
            string[] periods = slot is Slot.InPeriods named ? [.. named.Periods.Distinct()] : [];
            foreach (var day in term.Days)
                if (
                    (slot.Day == day.Label || (anyWeek is not null && day.Label.EndsWith(anyWeek, StringComparison.Ordinal)))
                    && slot.HoldsOn(day.Date)
                    && Times(term, slot, periods, day) is var (start, end, whole, stretches)
                )
                    drafts.Add(
                        new()
                        {
                            Date = day.Date,
                            Start = start,
                            End = end,
                            Label = day.Label,
                            Counts = slot.Counts,
                            Whole = whole,
                            Stretches = stretches,
                            Origin = new(day.Date, name),
                            Made = drafts.Count,
                        }
                    );
        }
        return drafts;
    }

    private static string NameOf(Slot slot) =>
        slot switch
        {
            Slot.InPeriods of => $"{of.Day}-{string.Join('+', of.Periods)}",
            Slot.AtTimes of => $"{of.Day}-{of.Start:HHmm}",
            _ => slot.Day,
        };

    // Null where not all its periods exist that day.
    private static (LocalTime Start, LocalTime End, Stretch Whole, ImmutableArray<Stretch> Stretches)? Times(
        TermDays term,
        Slot slot,
        string[] names,
        ClassDay day
    )
    {
        if (slot is Slot.AtTimes times)
            return Unbroken(term, day.Date, times.Start, times.End);
        var periods = new Period[names.Length];
        for (var n = 0; n < names.Length; n++)
        {
            if (Named(day, names[n]) is not { } period)
                return null;
            periods[n] = period;
        }
        if (periods is [var only])
            return Unbroken(term, day.Date, only.Start, only.End);
        var (start, end) = (periods.Min(period => period.Start), periods.Max(period => period.End));
        return (
            start,
            end,
            Whole(term, day.Date, start, end),
            Merged(periods.Select(period => Whole(term, day.Date, period.Start, period.End)))
        );
    }

    private static MeetingDraft Unbroken(
        TermDays term,
        LocalDate date,
        LocalTime start,
        LocalTime end,
        int counts,
        MeetingOrigin origin,
        int made
    )
    {
        var (from, to, whole, stretches) = Unbroken(term, date, start, end);
        return new()
        {
            Date = date,
            Start = from,
            End = to,
            Label = null,
            Counts = counts,
            Whole = whole,
            Stretches = stretches,
            Origin = origin,
            Made = made,
        };
    }

    private static (LocalTime Start, LocalTime End, Stretch Whole, ImmutableArray<Stretch> Stretches) Unbroken(
        TermDays term,
        LocalDate date,
        LocalTime start,
        LocalTime end
    )
    {
        var whole = Whole(term, date, start, end);
        return (start, end, whole, [whole]);
    }

    private static Period? Named(ClassDay day, string name)
    {
        foreach (var period in day.Periods)
            if (period.Name == name)
                return period;
        return null;
    }

    // In order of start; time that two of them share counts once.
    private static ImmutableArray<Stretch> Merged(IEnumerable<Stretch> stretches)
    {
        var merged = new List<Stretch>();
        foreach (var stretch in stretches.OrderBy(stretch => stretch.From).ThenBy(stretch => stretch.To))
        {
            if (merged.Count > 0 && stretch.From < merged[^1].To)
                merged[^1] = merged[^1] with { To = Instant.Max(merged[^1].To, stretch.To) };
            else
                merged.Add(stretch);
        }
        return [.. merged];
    }

    // An end that the clocks bring before its start becomes the start.
    private static Stretch Whole(TermDays term, LocalDate date, LocalTime start, LocalTime end)
    {
        var from = term.ToInstant(date + start);
        return new(from, Instant.Max(from, term.ToInstant(date + end)));
    }

    private static void Apply(
        TermDays term,
        Drafts drafts,
        MeetingChange change,
        int n,
        ImmutableArray<Finding>.Builder findings,
        ImmutableArray<CancelledMeeting>.Builder cancelled
    )
    {
        switch (change)
        {
            case MeetingChange.Extra add:
                Within(term, add.Date, n, "add.date");
                drafts.Add(Unbroken(term, add.Date, add.Start, add.End, add.Counts, new(add.Date, $"added-{add.Start:HHmm}"), drafts.Made));
                break;
            case MeetingChange.Cancel cancel when Named(drafts, cancel.Date, cancel.Start, n, findings) is { } gone:
                drafts.Remove(gone);
                cancelled.Add(new(gone.Origin, gone.Whole.From, gone.Whole.To));
                break;
            case MeetingChange.Move move:
                Within(term, move.ToDate, n, "move.to.date");
                if (Named(drafts, move.Date, move.Start, n, findings) is { } moved)
                {
                    drafts.Remove(moved);
                    drafts.Add(Unbroken(term, move.ToDate, move.ToStart, move.ToEnd, moved.Counts, moved.Origin, drafts.Made));
                }
                break;
        }
    }

    private static void Within(TermDays term, LocalDate date, int change, string member)
    {
        if (!term.Holds(date))
            throw new MeetingChangeException(
                change,
                member,
                $"{date:uuuu-MM-dd} is outside the term: choose a date from {term.Term.First:uuuu-MM-dd} to {term.Term.Last:uuuu-MM-dd}."
            );
    }

    // The one meeting that is meant; none: the change sleeps.
    private static MeetingDraft? Named(
        Drafts drafts,
        LocalDate date,
        LocalTime? start,
        int change,
        ImmutableArray<Finding>.Builder findings
    )
    {
        var named = drafts.On(date, start);
        if (named.Count > 1)
            throw new MeetingChangeException(
                change,
                null,
                $"There are {named.Count} meetings on {date:uuuu-MM-dd} that this may mean: name the start of one of them."
            );
        if (named.Count == 0)
            findings.Add(new(FindingCode.ChangeIdle, $"{date:uuuu-MM-dd}"));
        return named.FirstOrDefault();
    }

    private static ImmutableArray<Meeting> Number(List<MeetingDraft> drafts)
    {
        drafts.Sort(
            static (one, other) =>
                one.Whole.From != other.Whole.From ? one.Whole.From.CompareTo(other.Whole.From)
                : one.Whole.To != other.Whole.To ? one.Whole.To.CompareTo(other.Whole.To)
                : one.Made.CompareTo(other.Made)
        );
        var meetings = ImmutableArray.CreateBuilder<Meeting>(drafts.Count);
        foreach (var draft in drafts)
            meetings.Add(
                new()
                {
                    Ordinal = meetings.Count + 1,
                    Date = draft.Date,
                    Start = draft.Start,
                    End = draft.End,
                    Label = draft.Label,
                    Counts = draft.Counts,
                    StartsAt = draft.Whole.From,
                    EndsAt = draft.Whole.To,
                    Stretches = draft.Stretches,
                    Origin = draft.Origin,
                }
            );
        return meetings.MoveToImmutable();
    }

    // Each that starts before the end of an earlier one.
    private static IEnumerable<Meeting> Overlapping(ImmutableArray<Meeting> meetings)
    {
        var latest = Instant.MinValue;
        foreach (var meeting in meetings)
        {
            if (meeting.StartsAt < latest)
                yield return meeting;
            latest = Instant.Max(latest, meeting.EndsAt);
        }
    }
}
