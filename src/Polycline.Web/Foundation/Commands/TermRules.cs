using Polycline.Core.Calendars;
using Polycline.Core.Wording;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Foundation.Commands;

/// <summary>What a term must have so that every section in it can still be worked out.</summary>
public static class TermRules
{
    /// <exception cref="ProblemException">A section names a day or a period that is no longer there, or changed a class to outside the
    /// term.</exception>
    public static void Check(TermPlan plan)
    {
        var calendar = plan.Term.Calendar;
        var labels = SectionMeetings.LabelsOf(calendar.Rotation).ToHashSet();
        var periods = calendar
            .Periods.Concat(calendar.SpecialDays.SelectMany(day => day.Periods ?? []))
            .Select(period => period.Name)
            .ToHashSet();
        if (calendar.SpecialDays.FirstOrDefault(day => day.Runs is { } runs && !labels.Contains(runs)) is { } lost)
            throw Problem.Field(
                "rotation",
                $"{lost.Name ?? "A special day"} of {Moment.InWords(lost.Date)} runs as "
                    + $"{DifferenceWords.DayInWords(lost.Runs!)}, which would no longer be a day of the rotation. Change that day first."
            );
        var days = TermDays.Of(plan.Term);
        foreach (var section in plan.Sections)
        {
            if (section.Slots.FirstOrDefault(slot => !labels.Contains(slot.Day)) is { } day)
                throw Problem.Field(
                    "rotation",
                    $"{section.Name} meets on {DifferenceWords.DayInWords(day.Day)}, "
                        + $"which would no longer be a day of the rotation. Change its timetable first."
                );
            if (
                section.Slots.OfType<Slot.InPeriods>().SelectMany(slot => slot.Periods).FirstOrDefault(name => !periods.Contains(name)) is
                { } period
            )
                throw Problem.Field(
                    "periods",
                    $"{section.Name} meets in {period}, which would no longer be a period. Change its timetable first."
                );
            try
            {
                SectionMeetings.Of(days, section.Name, section.Slots, section.Changes);
            }
            catch (MeetingChangeException fault)
            {
                throw Problem.Field(
                    "last",
                    $"{section.Name} has a changed class ({DifferenceWords.Of(section.Changes[fault.Change])}) "
                        + $"that would then be outside the term, or could mean more than one class. Put it back first."
                );
            }
        }
    }
}
