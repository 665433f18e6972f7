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
            "overflow" => $"“{name}” does not fit, by " + $"{basis.Counted(finding.By ?? 0)}.",
            "pin-missed" when finding.By == 0 => $"“{name}” is fixed to a date after which there is no class left.",
            "pin-missed" => $"“{name}” is fixed to a date that another {levels.Lesson.One} has, "
                + $"and starts {Counted(finding.By ?? 0, "class", "classes")} later.",
            "after-pin" => $"“{name}” ends only after {levels.Lesson.A} fixed to a date has begun that should follow it.",
            "no-meetings" => "There are no classes yet: give this section its timetable.",
            "meeting-overlap" => $"Two classes overlap on {Date(finding.Target[..10])}, {finding.Target[11..]}.",
            "change-idle" => $"A changed class on {Date(finding.Target)} is not there any more.",
            "due-before-opens" => $"“{name}” is due before it opens.",
            "closes-before-due" => $"“{name}” closes before it is due.",
            "due-before-lesson" => $"“{name}” is due before its {levels.Lesson.One} starts.",
            "due-off-day" => $"“{name}” is due on a day without classes.",
            "due-earlier" => $"“{name}” would now be due earlier than announced, and stays as announced.",
            "beyond-term" => $"“{name}” has a date outside the term.",
            _ => throw new ArgumentException($"'{finding.Code}' is no finding of a section.", nameof(finding)),
        };
    }

    /// <summary>Of the whole plan.</summary>
    public string Of(PlanFinding finding)
    {
        var first = nameOf(finding.Targets[0]);
        var others = finding.Targets.Skip(1).Select(nameOf).ToList();
        var here = finding.Section is { } section ? $"In {nameOf(section)} " : "";
        return finding.Code switch
        {
            "gate-circle" when others.Count == 0 => $"“{first}” waits for itself: nobody may ever get in.",
            "gate-circle" => $"{Quoted(finding.Targets.Select(nameOf))} wait for one another: nobody may ever get in.",
            "gate-never" => $"{here}{(here.Length == 0 ? "Nobody" : "nobody")} can ever meet the condition of “{first}”.",
            "gate-blocked" => $"{here}nobody can meet the condition of “{first}”: {Quoted(others)} cannot be worked on there.",
            "gate-waived" => $"{here}“{first}” no longer waits for {Quoted(others)}, dropped there.",
            "gate-late" => $"{here}“{first}” is due before {Quoted(others)} {(others.Count == 1 ? "opens" : "open")}, for which it waits.",
            "gate-no-outcome" => $"“{first}” waits for something that never comes of {Quoted(others)}: nobody may ever get in.",
            "gate-opens-late" => $"{here}“{first}” opens before {Quoted(others)}, for which it waits.",
            "branch-gap" => $"In “{first}” {Joined([.. finding.Gaps!.Value.Select(Gap)], "and")} "
                + $"{(finding.Gaps.Value.Length == 1 ? "leads" : "lead")} to none of {Quoted(others)}; nor does never taking it.",
            "branch-overlap" => $"A score in “{first}” can open both {Quoted(others)}.",
            "choice-gap" => $"In “{first}” nothing hangs on {Quoted(finding.Options!.Value)}; nor on never picking.",
            "double-enrolment" => $"{first} is in {Joined(others, "and")} at the same time.",
            "special-day-idle" => $"The special day on {Date(finding.Targets[0])} does nothing: there are no classes that day.",
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
