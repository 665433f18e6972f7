using NodaTime;

namespace Polycline.Core.Courses;

/// <summary>
/// A moment given relative to the plan. Its steps are taken in the order of the members; one left out (null) is not the
/// same writing as one given as 0, though it comes to the same moment. Source: the computation, chapter 4.
/// </summary>
public sealed record Anchor
{
    /// <summary>Where it begins.</summary>
    public required AnchorBase At { get; init; }

    /// <summary>The lesson or unit whose start or end is meant; null: the item's own.</summary>
    public string? Of { get; init; }

    /// <summary>So many meetings on.</summary>
    public int? Meetings { get; init; }

    /// <summary>So many weeks on.</summary>
    public int? Weeks { get; init; }

    /// <summary>So many days on.</summary>
    public int? Days { get; init; }

    /// <summary>So many class days on.</summary>
    public int? ClassDays { get; init; }

    /// <summary>The time of day; null: the time it comes to by itself.</summary>
    public AnchorClock? Clock { get; init; }

    /// <summary>With <see cref="Time"/>, local: of <see cref="AnchorBase.Fixed"/> only.</summary>
    public LocalDate? Date { get; init; }

    public LocalTime? Time { get; init; }

    public static Anchor OnDate(LocalDate date, LocalTime time) =>
        new()
        {
            At = AnchorBase.Fixed,
            Date = date,
            Time = time,
        };

    public bool IsOfLesson => At is AnchorBase.LessonStart or AnchorBase.LessonEnd;

    public bool IsOfUnit => At is AnchorBase.UnitStart or AnchorBase.UnitEnd;
}

/// <summary>Where an anchor begins.</summary>
public enum AnchorBase
{
    LessonStart,
    LessonEnd,
    UnitStart,
    UnitEnd,
    TermStart,
    TermEnd,
    OwnOpens,
    OwnDue,
    Fixed,
}

/// <summary>The time of the day that an anchor takes last.</summary>
/// <param name="Kind">What it is taken from.</param>
/// <param name="Time">Of <see cref="ClockKind.Time"/> only, local.</param>
public sealed record AnchorClock(ClockKind Kind, LocalTime? Time = null);

/// <summary>What an anchor's time of day is taken from.</summary>
public enum ClockKind
{
    Keep,
    MeetingStart,
    MeetingEnd,
    Time,
}
