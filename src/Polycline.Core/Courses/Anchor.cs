using NodaTime;

namespace Polycline.Core.Courses;

/// <summary>
/// A moment given relative to the plan. Its steps are taken in the order of the members; one left out (null) is not the
/// same writing as one given as 0, though it comes to the same moment. Source: the computation, chapter 4.
/// </summary>
/// <param name="At">Where it begins.</param>
/// <param name="Of">The lesson or unit whose start or end is meant; null: the item's own.</param>
/// <param name="Meetings">So many meetings on.</param>
/// <param name="Weeks">So many weeks on.</param>
/// <param name="Days">So many days on.</param>
/// <param name="ClassDays">So many class days on.</param>
/// <param name="Clock">At what time of the day; null: as it stands.</param>
/// <param name="Date">With <paramref name="Time"/>, local: of <see cref="AnchorBase.Fixed"/> only.</param>
public sealed record Anchor(
    AnchorBase At,
    string? Of = null,
    int? Meetings = null,
    int? Weeks = null,
    int? Days = null,
    int? ClassDays = null,
    AnchorClock? Clock = null,
    LocalDate? Date = null,
    LocalTime? Time = null
)
{
    public static Anchor OnDate(LocalDate date, LocalTime time) => new(AnchorBase.Fixed, Date: date, Time: time);

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
