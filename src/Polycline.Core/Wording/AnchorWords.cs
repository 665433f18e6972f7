using NodaTime.Text;
using Polycline.Core.Courses;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Wording;

/// <summary>Timing in words, as a team reads it. Source: the computation, chapter 4.</summary>
/// <param name="titleOf">The title of the lesson or unit of that id.</param>
public sealed class AnchorWords(Func<string, string> titleOf, LevelNames levels)
{
    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("ddd d MMM uuuu");
    private static readonly LocalTimePattern Time = LocalTimePattern.CreateWithInvariantCulture("HH:mm");

    /// <summary>Such as <c>at the start of the 1st class after the lesson</c>.</summary>
    /// <param name="onUnit">Whether the item is directly on a unit.</param>
    public string Of(Anchor anchor, bool onUnit = false)
    {
        var clock = ClockWords(anchor);
        if (anchor.At == AnchorBase.Fixed && NoSteps(anchor))
            return $"on {Day.Format(anchor.Date!.Value)}, {(clock.Length == 0 ? Time.Format(anchor.Time!.Value) : clock)}";
        if (anchor.Meetings is { } n && n != 0)
            return Later(
                $"{Part(anchor)} the {Nth(Math.Abs(n))} class {(n > 0 ? "after" : "before")} {Base(anchor, onUnit)}",
                anchor,
                clock
            );
        if (NoSteps(anchor))
            return anchor.Clock is null or { Kind: ClockKind.Keep }
                ? $"{When(anchor)} {Base(anchor, onUnit)}"
                : $"on the day of {Base(anchor, onUnit)}, {clock}";
        return Steps(anchor) is var steps && Forward(anchor) is { } forward
            ? $"{steps} {(forward ? "after" : "before")} {Base(anchor, onUnit)}{(clock.Length == 0 ? "" : $", {clock}")}"
            : Later($"{When(anchor)} {Base(anchor, onUnit)}", anchor, clock);
    }

    private static bool NoSteps(Anchor anchor) =>
        anchor is { Meetings: null or 0, Weeks: null or 0, Days: null or 0, ClassDays: null or 0 };

    private static string Part(Anchor anchor) =>
        anchor is { Clock.Kind: ClockKind.MeetingEnd, Weeks: null or 0, Days: null or 0, ClassDays: null or 0 }
            ? "at the end of"
            : "at the start of";

    private static string When(Anchor anchor) =>
        anchor.At is AnchorBase.OwnOpens or AnchorBase.OwnDue ? "when"
        : anchor.At == AnchorBase.Fixed ? "on"
        : "at";

    private string Base(Anchor anchor, bool onUnit)
    {
        var what = anchor.Of is { } of ? $"“{titleOf(of)}”" : $"the {(anchor.IsOfLesson && !onUnit ? levels.Lesson : levels.Unit).One}";
        return anchor.At switch
        {
            AnchorBase.LessonStart or AnchorBase.UnitStart => anchor.Meetings is null or 0 ? $"the start of {what}" : $"{what} starts",
            AnchorBase.LessonEnd or AnchorBase.UnitEnd => anchor.Meetings is null or 0 ? $"the end of {what}" : what,
            AnchorBase.TermStart => "the start of the term",
            AnchorBase.TermEnd => "the end of the term",
            AnchorBase.OwnOpens => "it opens",
            AnchorBase.OwnDue => "it is due",
            _ => $"{Day.Format(anchor.Date!.Value)}, {Time.Format(anchor.Time!.Value)}",
        };
    }

    private static string ClockWords(Anchor anchor) =>
        anchor.Clock switch
        {
            { Kind: ClockKind.Time, Time: { } time } => Time.Format(time),
            { Kind: ClockKind.MeetingStart } => "at the start of class",
            { Kind: ClockKind.MeetingEnd } => "at the end of class",
            _ => "",
        };

    // Further steps after the first: "…, 3 days later, 18:00".
    private static string Later(string words, Anchor anchor, string clock)
    {
        foreach (var (n, one, many) in StepsOf(anchor))
            words += $", {Counted(Math.Abs(n), one, many)} {(n > 0 ? "later" : "earlier")}";
        return anchor.Clock is { Kind: ClockKind.Time } || (clock.Length > 0 && StepsOf(anchor).Any()) ? $"{words}, {clock}" : words;
    }

    private static string Steps(Anchor anchor) =>
        Joined([.. StepsOf(anchor).Select(step => Counted(Math.Abs(step.N), step.One, step.Many))], "and");

    // Whether all steps go the same way, and which; null: they do not.
    private static bool? Forward(Anchor anchor) =>
        StepsOf(anchor).All(step => step.N > 0) ? true
        : StepsOf(anchor).All(step => step.N < 0) ? false
        : null;

    private static IEnumerable<(int N, string One, string Many)> StepsOf(Anchor anchor)
    {
        foreach (
            var (n, one, many) in new[]
            {
                (anchor.Weeks, "week", "weeks"),
                (anchor.Days, "day", "days"),
                (anchor.ClassDays, "class day", "class days"),
            }
        )
            if (n is { } steps && steps != 0)
                yield return (steps, one, many);
    }
}
