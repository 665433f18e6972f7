using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking.Plans;
using Polycline.Core.Release;
using Polycline.Core.Wording;

namespace Polycline.Web.Scores;

/// <summary>One student and one item.</summary>
/// <param name="Tone">
/// How it is to be noticed: <c>score</c>, <c>to-read</c>, <c>overdue</c>, or <c>quiet</c> where nothing is to be done about it.
/// </param>
/// <param name="Words">How it stands, such as <c>overdue</c>, <c>due Tue</c>, <c>given back</c>.</param>
/// <param name="Points">Such as <c>8</c>; of a short scale its level; null: nothing stands.</param>
/// <param name="Percent">Such as <c>81.5 %</c>; null: nothing stands, or it is a level without percent.</param>
/// <param name="Late">Such as <c>late 1 d</c>; null: in time, or nothing was handed in.</param>
public sealed record ScoreCell(string Tone, string Words, string? Points, string? Percent, string? Late);

/// <summary>What stands in the table of scores.</summary>
internal sealed class ScoreCells(CourseMarks marks, Instant at, DateTimeZone zone)
{
    private const int Week = 7;

    public ScoreCell Of(Ref<Core.Courses.Student> student, Item item)
    {
        var standing = marks.Of(student, item.Ref);
        var facts = marks.Record(student).Facts;
        var piece = marks.Course.PieceOf(student, item.Ref);
        var progress = ProgressOf.Of(item, facts, at);
        var late = LateBy(facts, item, standing);
        var waits = piece?.Waiting(at).Any() == true;
        if (piece?.Score(at) is { } score)
            return new(
                waits ? "to-read" : "score",
                waits ? "to read"
                    : item.Kind == ItemKind.Quiz ? "finished"
                    : "given back",
                score.Level ?? score.Points?.PointsShown(),
                score.Share is { } share ? ScoreWords.Percent(share) : null,
                late
            );
        if (waits)
            return new("to-read", "to read", null, null, late);
        var words = WordsOf(student, item, standing, progress);
        return new(words == "overdue" ? "overdue" : "quiet", words, null, null, null);
    }

    private string WordsOf(Ref<Core.Courses.Student> student, Item item, ItemStanding standing, Progress progress) =>
        standing switch
        {
            { IsSkipped: true } => "not here",
            { Verdict.State: ReleaseState.Excused } or { Verdict.Because: ReleaseState.Excused } => "excused",
            { Verdict.State: ReleaseState.NotAssigned } => "not theirs",
            _ => progress switch
            {
                Progress.TryAgain => "to try again",
                Progress.GivenBack => "given back",
                Progress.Done => item.Kind is ItemKind.Page or ItemKind.Link ? "seen" : "done",
                Progress.HandedIn => "done",
                _ => StateOf(student, item, standing),
            },
        };

    private string StateOf(Ref<Core.Courses.Student> student, Item item, ItemStanding standing)
    {
        if (
            standing.Dates?.Due.At is { } was
            && was < at
            && marks.Record(student).JoinedOn is { } joined
            && was.InZone(zone).Date <= joined
        )
            return "before joining";
        return standing.Verdict.State switch
        {
            ReleaseState.Overdue => "overdue",
            ReleaseState.Open => standing.Dates?.Due.At is { } due && due > at ? $"due {Day(due)}" : "open",
            ReleaseState.Closed => "closed",
            ReleaseState.Locked => "locked",
            ReleaseState.Held => "held back",
            ReleaseState.Unpublished => "not published",
            ReleaseState.Withdrawn => "begun",
            _ => "to come",
        };
    }

    // "today", "Tue" within a week, else "3 Nov".
    private string Day(Instant moment)
    {
        var date = moment.InZone(zone).Date;
        var days = Period.DaysBetween(at.InZone(zone).Date, date);
        return days == 0 ? "today"
            : days < Week ? $"{date.DayOfWeek}"[..3]
            : Foundation.Reading.Moment.InWords(date);
    }

    private string? LateBy(FactBook facts, Item item, ItemStanding standing)
    {
        if (standing.Dates?.Due.At is not { } due)
            return null;
        var handedIn = facts.On(item.Ref, at).LastOrDefault(fact => fact.Event == FactEvent.Submitted)?.At;
        return handedIn > due ? Late((handedIn.Value - due).Days) : null;
    }

    private static string Late(int days) => days == 0 ? "late" : $"late {days} d";
}
