using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Wording;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Explaining;

/// <summary>A line of a condition: what it asks, how it came out, and since when.</summary>
/// <param name="Depth">How deep it stands, from 0.</param>
/// <param name="Since">Null: from the beginning.</param>
/// <param name="Note">Why it does not count as written; null: it does.</param>
public sealed record ConditionLine(int Depth, string Words, Outcome Outcome, Instant? Since, string? Note);

/// <summary>A step on the way to a date, in words, and the moment after it.</summary>
public sealed record StepLine(string Words, Instant? Moment);

/// <summary>Why a student can or cannot see an item, as the team reads it. Source: the computation, chapter 11, <i>why</i>.</summary>
/// <param name="plan">Where titles, codes and the zone come from.</param>
/// <param name="names">How units, lessons, items and sections are called.</param>
/// <param name="student">How the student is called.</param>
/// <param name="optionOf">What an option of a choice says.</param>
public sealed class ExplanationWords(PlanSchedule plan, PlanNames names, string student, Func<Ref<Item>, string, string>? optionOf = null)
{
    private readonly GateWords gates = new(item => names.Of(item.Name), names.Of, plan.Edition.Levels, optionOf);

    /// <summary>In a sentence, since when it is open, or when it opens by itself; null: neither can be said.</summary>
    public string? Since(Explanation why) =>
        why switch
        {
            { IsOpen: true, Since: { } since } => $"It has been open to {student} since {When(since)}.",
            { IsOpen: true } => $"It has been open to {student} from the beginning.",
            { Until: { } until } => $"If nothing else changes, it opens on {When(until)}.",
            _ => null,
        };

    /// <summary>One thing in the way, as a sentence.</summary>
    public string Of(InTheWay one, Explanation why) =>
        one.What switch
        {
            Obstacle.NotEnrolled => $"No section lists {student} at that moment.",
            Obstacle.OtherSection => "Another section added it for itself.",
            Obstacle.Unpublished => $"{Owner(one).Capital()} is not published{(one.Layer == Layer.Section ? " in this section" : "")}.",
            Obstacle.Excused => $"{student} is excused from it.",
            Obstacle.Skipped => $"{Owner(one).Capital()} is dropped in this section.",
            Obstacle.LeftOut => $"{student} is left out.",
            Obstacle.NotAmong => $"It is for some students only, {Given(one.Layer)}, and {student} is not one of them.",
            Obstacle.Held => $"{Owner(one).Capital()} is kept back in this section.",
            Obstacle.Unscheduled => $"It would open at a moment that never comes, {Given(one.Layer)}.",
            Obstacle.Upcoming => $"It opens only on {When(one.Until!.Value)}, {Given(one.Layer)}.",
            Obstacle.Locked =>
                $"{Owner(one).Capital()} opens only when {gates.Of(why.Gates.First(gate => gate.Level == one.Level).Tree.Node)}"
                    + (one.Since is { } since ? $"; that has not been so since {When(since)}" : "")
                    + (one.Until is { } until ? $"; at the latest it is so on {When(until)}" : "")
                    + ".",
            _ => $"It closed on {When(one.Since!.Value)}, {Given(one.Layer)}.",
        };

    /// <summary>What a condition is on: <c>the unit “Fronts”</c>.</summary>
    public string Owner(ExplainedCondition condition) => Owner(condition.Level, condition.Id);

    /// <summary>A condition, line by line.</summary>
    public ImmutableArray<ConditionLine> Of(ExplainedCondition condition)
    {
        var lines = ImmutableArray.CreateBuilder<ConditionLine>();
        Add(condition.Tree, 0);
        return lines.ToImmutable();

        void Add(ConditionPart part, int depth)
        {
            lines.Add(
                new(
                    depth,
                    part.Node switch
                    {
                        GateNode.AllOf { Nodes.Length: > 0 } => "all of these",
                        GateNode.AnyOf { Nodes.Length: > 0 } => "one of these",
                        GateNode.AtLeast { Nodes.Length: > 0 } some => $"at least {some.Least} of these",
                        GateNode.Not => "not this",
                        var other => gates.Of(other),
                    },
                    part.Outcome,
                    part.Since,
                    part switch
                    {
                        { Replaced: not null } => "not for this student: what it waits for itself stands here instead",
                        { Outcome: Outcome.Waived } => "not needed here",
                        _ => null,
                    }
                )
            );
            foreach (var below in part.Replaced is { } replaced ? [replaced] : part.Below)
                Add(below, depth + 1);
        }
    }

    /// <summary>The steps of a date, each with the days without a class that it went past.</summary>
    /// <param name="schedule">The section whose date it is; null: none.</param>
    public IEnumerable<StepLine> Path(ImmutableArray<DateStep> steps, SectionSchedule? schedule)
    {
        Instant? before = null;
        foreach (var step in steps)
        {
            var line = Of(step);
            var from = step.Kind switch
            {
                DateStepKind.Base => schedule is null ? null : StartOf(step, schedule),
                DateStepKind.Meetings or DateStepKind.ClassDays => before,
                _ => null,
            };
            var past = schedule is not null && from is { } start && step.Moment is { } end ? NoClass(schedule, start, end) : [];
            yield return past.IsEmpty ? line : line with { Words = $"{line.Words}; {Joined(past, "and")}" };
            before = step.Moment;
        }
    }

    // Of what ends: when it began, in this section.
    private static Instant? StartOf(DateStep step, SectionSchedule schedule) =>
        (step.At, step.Of) switch
        {
            (AnchorBase.LessonEnd, { } lesson) => schedule.MomentOf(new() { At = AnchorBase.LessonStart, Of = lesson }),
            (AnchorBase.UnitEnd, { } unit) => schedule.MomentOf(new() { At = AnchorBase.UnitStart, Of = unit }),
            _ => null,
        };

    private ImmutableArray<string> NoClass(SectionSchedule schedule, Instant one, Instant other)
    {
        var (from, to) = one <= other ? (one, other) : (other, one);
        var term = plan.Term.Term;
        var (first, last) = (term.Local(from).Date, term.Local(to).Date);
        return
        [
            .. term
                .Calendar.Closures.Where(closure => closure.From <= last && closure.To >= first)
                .OrderBy(closure => closure.From)
                .Select(closure =>
                    closure.From == closure.To
                        ? $"no class on {Day(closure.From)} ({closure.Name})"
                        : $"no class from {Day(closure.From)} to {Day(closure.To)} ({closure.Name})"
                ),
            .. schedule
                .Meetings.Cancelled.Where(meeting => from < meeting.StartsAt && meeting.StartsAt < to)
                .OrderBy(meeting => meeting.StartsAt)
                .Select(meeting => $"the class on {Day(term.Local(meeting.StartsAt).Date)} is cancelled"),
        ];
    }

    private static string Day(LocalDate date) => date.ToString("ddd d MMM", CultureInfo.InvariantCulture);

    /// <summary>A step on the way to a date.</summary>
    public StepLine Of(DateStep step) =>
        new(
            step.Kind switch
            {
                DateStepKind.Opened => "it did open then",
                DateStepKind.Base => Base(step),
                DateStepKind.Meetings =>
                    $"{Counted(Math.Abs(step.By), "class", "classes")} {(step.By > 0 ? "later" : "earlier")}{OfClass(step.Meeting)}",
                DateStepKind.Days => $"{Joined([.. Days(step)], "and")}",
                DateStepKind.ClassDays => Signed(step.By, "class day", "class days"),
                DateStepKind.Clock => step.Clock switch
                {
                    { Kind: ClockKind.Time, Time: { } time } => $"at {time.ToString("HH:mm", CultureInfo.InvariantCulture)}",
                    { Kind: ClockKind.MeetingStart } => $"at the start of class{Which(step.Meeting)}",
                    _ => $"at the end of class{Which(step.Meeting)}",
                },
                DateStepKind.SkippedHour => "the clocks skip that hour",
                DateStepKind.TermEnd => "that is beyond the term, so its last day stands",
                DateStepKind.OffDay => "that is no class day, so it moves "
                    + (step.Rule == Calendars.OffDays.Back ? "back to the last one" : "on to the next one"),
                DateStepKind.Announced => "it was announced later, and stays so",
                DateStepKind.Always => $"{Counted(step.Days, "day", "days")} more, as agreed for {student}",
                _ => "that moment does not come",
            },
            step.Moment
        );

    /// <summary>Who gave a date: <c>as in the course</c>.</summary>
    public static string Given(Layer? layer) =>
        layer switch
        {
            Layer.Section => "as changed in this section",
            Layer.Opened => "as it opened and was announced",
            Layer.Always => "with the extra time agreed for this student",
            Layer.Student => "for this student only",
            _ => "as in the course",
        };

    /// <summary>What would open it, as it goes on after “To open it,”.</summary>
    public string Of(Remedy remedy) =>
        remedy switch
        {
            Remedy.Wait wait => $"wait until {When(wait.Until)}",
            Remedy.GiveBack given => $"give back {Joined([.. given.Items.Select(item => names.Of(item.Name))], "and")} to go on",
            Remedy.OpenForStudent => $"open it for {student} alone",
            Remedy.MoveOpening => "let it open at once in this section",
            Remedy.PutBackHold put => $"no longer keep back {Places(put.Places)} in this section",
            Remedy.Publish published => $"publish {Places(published.Places)} in this section",
            Remedy.DropCondition dropped => $"drop the condition on {Places(dropped.Places)}",
            _ => throw new ArgumentException($"'{remedy}' is no remedy.", nameof(remedy)),
        };

    private string Places(ImmutableArray<string> places) => Joined([.. places.Select(place => $"“{names.Of(place)}”")], "and");

    private string Base(DateStep step)
    {
        var what = step.Of is { } of ? $"“{names.Of(of)}”" : "";
        return step.At switch
        {
            AnchorBase.LessonStart or AnchorBase.UnitStart when step.Moment is null => $"{what} has no class to start in",
            AnchorBase.LessonEnd or AnchorBase.UnitEnd when step.Moment is null => $"{what} has no class to end in",
            AnchorBase.LessonStart or AnchorBase.UnitStart => $"{what} starts{InClass(step.Meeting)}",
            AnchorBase.LessonEnd or AnchorBase.UnitEnd => $"{what} ends{InClass(step.Meeting)}",
            AnchorBase.TermStart => "the term starts",
            AnchorBase.TermEnd => "the term ends",
            AnchorBase.OwnOpens => step.Moment is null ? "it has no opening" : "it opens",
            AnchorBase.OwnDue => step.Moment is null ? "it has no due date" : "it is due",
            _ => "the date that was set",
        };
    }

    private static string Which(int? meeting) => meeting is { } n ? $" {n}" : "";

    private static string InClass(int? meeting) => meeting is { } n ? $" in class {n}" : "";

    private static string OfClass(int? meeting) => meeting is { } n ? $", class {n}" : "";

    private static IEnumerable<string> Days(DateStep step)
    {
        if (step.Weeks != 0)
            yield return Signed(step.Weeks, "week", "weeks");
        if (step.Days != 0)
            yield return Signed(step.Days, "day", "days");
    }

    private static string Signed(int n, string one, string many) => $"{Counted(Math.Abs(n), one, many)} {(n > 0 ? "later" : "earlier")}";

    private string Owner(InTheWay one) => Owner(one.Level!.Value, one.Id!);

    private string Owner(Level level, string id) =>
        level switch
        {
            Level.Unit => $"the {plan.Edition.Levels.Unit.One} “{names.Of(id)}”",
            Level.Lesson => $"the {plan.Edition.Levels.Lesson.One} “{names.Of(id)}”",
            _ => $"the {plan.Edition.Levels.Item.One}",
        };

    private string When(Instant moment) => MomentWords.InWords(moment, plan.Term.Term.Zone)!;
}
