using System.Collections.Immutable;
using NodaTime;

namespace Polycline.Core.Calendars;

/// <summary>Class time without a break.</summary>
public readonly record struct Stretch(Instant From, Instant To)
{
    /// <summary>Whole minutes.</summary>
    public int Minutes => (int)(To - From).TotalMinutes;
}

/// <summary>What a meeting was at first: it stays the same when the meeting is moved or cancelled.</summary>
/// <param name="Date">The date that its slot gave it, or on which it was added.</param>
/// <param name="Slot">Its slot, by day and periods or start; of an added one its start.</param>
public readonly record struct MeetingOrigin(LocalDate Date, string Slot);

/// <summary>One time a section meets. Source: the computation, chapter 2.</summary>
public sealed record Meeting
{
    /// <summary>Its place among the section's meetings, from 1.</summary>
    public required int Ordinal { get; init; }

    public required LocalDate Date { get; init; }

    /// <summary>Local, as written.</summary>
    public required LocalTime Start { get; init; }

    /// <summary>Local, as written.</summary>
    public required LocalTime End { get; init; }

    /// <summary>The label of its day; null where it was added or moved.</summary>
    public required string? Label { get; init; }

    /// <summary>How many meetings it counts as where lessons are measured in meetings.</summary>
    public required int Counts { get; init; }

    public required Instant StartsAt { get; init; }

    public required Instant EndsAt { get; init; }

    /// <summary>Its class time, in order; breaks between periods are none.</summary>
    public required ImmutableArray<Stretch> Stretches
    {
        get;
        init
        {
            field = value;
            Minutes = value is [var only] ? only.Minutes : value.Sum(stretch => stretch.Minutes);
        }
    }

    public required MeetingOrigin Origin { get; init; }

    /// <summary>The real minutes of its class time.</summary>
    public int Minutes { get; private init; }

    /// <summary>
    /// The moment after so many minutes of class time. On the border of two stretches a start stands at the beginning
    /// of the later, an end at the end of the earlier.
    /// </summary>
    /// <param name="minutes">0 … <see cref="Minutes"/>.</param>
    public Instant After(int minutes, bool asEnd)
    {
        var left = minutes;
        foreach (var stretch in Stretches)
        {
            if (left < stretch.Minutes || (asEnd && left == stretch.Minutes))
                return stretch.From + Duration.FromMinutes(left);
            left -= stretch.Minutes;
        }
        return EndsAt;
    }
}

/// <summary>The meetings of a section, with what was noticed while making them.</summary>
/// <param name="Meetings">By start, then end, then in the order made.</param>
/// <param name="Cancelled">In the order cancelled.</param>
public sealed record MeetingList(
    ImmutableArray<Meeting> Meetings,
    ImmutableArray<Finding> Findings,
    ImmutableArray<CancelledMeeting> Cancelled
);

/// <summary>A meeting that would have been.</summary>
public sealed record CancelledMeeting(MeetingOrigin Origin, Instant StartsAt, Instant EndsAt);

/// <summary>A change of meetings that cannot be carried out.</summary>
/// <param name="change">Its place among the changes, from 0.</param>
/// <param name="member">The member at fault; null: the change itself.</param>
public sealed class MeetingChangeException(int change, string? member, string message) : Exception(message)
{
    public int Change { get; } = change;

    public string? Member { get; } = member;
}
