namespace Polycline.Core.Calendars;

/// <summary>
/// What can be noticed; written as in the plan file: <c>after-pin</c>. In the order of those names, by which findings are
/// sorted. Source: the computation, chapters 1 to 6.
/// </summary>
public enum FindingCode
{
    AfterPin,
    BeyondTerm,
    BranchGap,
    BranchOverlap,
    ChangeIdle,
    ChoiceGap,
    ChoiceUntied,
    ClosesBeforeDue,
    DoubleEnrolment,
    DueBeforeLesson,
    DueBeforeOpens,
    DueEarlier,
    DueOffDay,
    GateBlocked,
    GateCircle,
    GateLate,
    GateNever,
    GateNoOutcome,
    GateOpensLate,
    GateWaived,
    MeetingOverlap,
    NoMeetings,
    Overflow,
    PinMissed,
    SpecialDayIdle,
}

/// <summary>Something noticed in one section. Source: the computation, chapters 2 to 4.</summary>
/// <param name="Target">What it is about: an id, or a local date or moment.</param>
/// <param name="By">How much, where the code has an amount.</param>
public sealed record Finding(FindingCode Code, string Target, int? By = null);
