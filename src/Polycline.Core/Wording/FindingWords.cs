using System.Globalization;
using NodaTime.Text;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Wording;

/// <summary>What was noticed, as a sentence for the team. Source: the computation, chapters 1 to 6.</summary>
/// <param name="nameOf">How what a finding is about is called: a unit, lesson, item, section or student.</param>
/// <param name="basis">What lessons are measured in.</param>
public sealed class FindingWords(Func<string, string> nameOf, Basis basis, LevelNames levels)
{
    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("ddd d MMM uuuu");

    /// <summary>Of one section.</summary>
    public string Of(Finding finding)
    {
        var name = nameOf(finding.Target);
        return finding.Code switch
        {
            FindingCode.Overflow => $"“{name}” does not fit, by {basis.Counted(finding.By ?? 0)}.",
            FindingCode.PinMissed when finding.By == 0 => $"“{name}” is fixed to a date after which there is no class left.",
            FindingCode.PinMissed => $"“{name}” is fixed to a date that another {levels.Lesson.One} already has, "
                + $"so it starts {Counted(finding.By ?? 0, "class", "classes")} later.",
            FindingCode.AfterPin => $"“{name}” ends only after {levels.Lesson.A} fixed to a date has begun that should follow it.",
            FindingCode.NoMeetings => "There are no classes yet: give this section its timetable.",
            FindingCode.MeetingOverlap => $"Two classes overlap on {Date(finding.Target[..10])}, {finding.Target[11..]}.",
            FindingCode.ChangeIdle => $"The changed class of {Date(finding.Target)} no longer exists.",
            FindingCode.DueBeforeOpens => $"“{name}” is due before it opens.",
            FindingCode.ClosesBeforeDue => $"“{name}” closes before it is due.",
            FindingCode.DueBeforeLesson => $"“{name}” is due before its {levels.Lesson.One} starts.",
            FindingCode.DueOffDay => $"“{name}” is due on a day without classes.",
            FindingCode.DueEarlier => $"“{name}” would now be due earlier than announced, so the announced date stays.",
            FindingCode.BeyondTerm => $"“{name}” has a date outside the term.",
            _ => throw new ArgumentException($"'{finding.Code}' is no finding of a section.", nameof(finding)),
        };
    }

    /// <summary>Of the whole plan; options are named as the finding has them.</summary>
    public string Of(PlanFinding finding)
    {
        var first = nameOf(finding.Targets[0]);
        var others = finding.Targets.Skip(1).Select(nameOf).ToList();
        var here = finding.Section is { } section ? $"In {nameOf(section)} " : "";
        return finding.Code switch
        {
            FindingCode.GateCircle when others.Count == 0 => $"“{first}” waits for itself, so nobody can ever get in.",
            FindingCode.GateCircle => $"{Quoted(finding.Targets.Select(nameOf))} wait for one another, so nobody can ever get in.",
            FindingCode.GateNever => $"{here}{(here.Length == 0 ? "Nobody" : "nobody")} can ever meet the condition of “{first}”.",
            FindingCode.GateBlocked => $"{here}nobody can meet the condition of “{first}”: {Quoted(others)} cannot be worked on there.",
            FindingCode.GateWaived => $"{here}“{first}” no longer waits for {Quoted(others)}, dropped there.",
            FindingCode.GateLate =>
                $"{here}“{first}” is due before {Quoted(others)} {(others.Count == 1 ? "opens" : "open")}, which it waits for.",
            FindingCode.GateNoOutcome =>
                $"“{first}” waits for something that can never happen with {Quoted(others)}, so nobody can ever get in.",
            FindingCode.GateOpensLate => $"{here}“{first}” opens before {Quoted(others)}, which it waits for.",
            FindingCode.BranchGap => $"In “{first}” {Joined([.. finding.Gaps!.Value.Select(Gap)], "and")} "
                + $"{(finding.Gaps.Value.Length == 1 ? "leads" : "lead")} to none of {Quoted(others)}; nor does not taking it at all.",
            FindingCode.BranchOverlap => $"A score in “{first}” can open both {Quoted(others)}.",
            FindingCode.ChoiceGap => $"In “{first}”, nothing depends on {Quoted(finding.Options!.Value)}, nor on not picking at all.",
            FindingCode.ChoiceUntied =>
                $"“{first}” seems to be for {Quoted(finding.Options!.Value)} of “{others[0]}”, but opens whatever is picked there.",
            FindingCode.DoubleEnrolment => $"{first} is in {Joined(others, "and")} at the same time.",
            FindingCode.SpecialDayIdle => $"The special day on {Date(finding.Targets[0])} does nothing: there are no classes that day.",
            _ => throw new ArgumentException($"'{finding.Code}' is no finding of a plan.", nameof(finding)),
        };
    }

    private static string Quoted(IEnumerable<string> names) => Joined([.. names.Select(name => $"“{name}”")], "and");

    private static string Gap((decimal From, decimal To) gap) =>
        gap.From == gap.To
            ? $"a score of {Percent(gap.From)}"
            : $"a score from {Percent(gap.From)} to {(gap.To == 100 ? "" : "below ")}{Percent(gap.To)}";

    private static string Percent(decimal score) => $"{score.ToString("0.##", CultureInfo.InvariantCulture)} %";

    private static string Date(string iso) => Day.Format(LocalDatePattern.Iso.Parse(iso).Value);
}
