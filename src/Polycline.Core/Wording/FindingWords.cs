using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Wording;

/// <summary>What was noticed in a section, as a sentence for the team. Source: the computation, chapters 2 to 4.</summary>
/// <param name="nameOf">How what a finding is about is called.</param>
public sealed class FindingWords(Func<string, string> nameOf)
{
    public string Of(Finding finding)
    {
        var name = nameOf(finding.Target);
        return finding.Code switch
        {
            "overflow" => $"“{name}” does not fit, by {Counted(finding.By ?? 0, "class", "classes")}.",
            "pin-missed" when finding.By == 0 => $"“{name}” is fixed to a date after which there is no class left.",
            "pin-missed" => $"“{name}” is fixed to a date that another lesson has, and starts {Counted(finding.By ?? 0, "class", "classes")} later.",
            "after-pin" => $"“{name}” ends only after a lesson fixed to a date has begun that should follow it.",
            "no-meetings" => "There are no classes yet: give this section its timetable.",
            "meeting-overlap" => $"Two classes overlap on {name.Replace("T", ", ", StringComparison.Ordinal)}.",
            "change-idle" => $"A changed class on {name} is not there any more.",
            "due-before-opens" => $"“{name}” is due before it opens.",
            "closes-before-due" => $"“{name}” closes before it is due.",
            "due-before-lesson" => $"“{name}” is due before its lesson starts.",
            "due-off-day" => $"“{name}” is due on a day without classes.",
            "due-earlier" => $"“{name}” would now be due earlier than announced, and stays as announced.",
            "beyond-term" => $"“{name}” has a date outside the term.",
            _ => $"“{name}”: {finding.Code}.",
        };
    }
}
