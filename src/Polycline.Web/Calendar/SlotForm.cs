using System.Text.Json;
using Polycline.Core.Calendars;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Calendar;

/// <summary>Reads when a section meets, in the plan file's form.</summary>
public static class SlotForm
{
    public const int Most = 60;

    /// <param name="field">What the request calls it: problems name what is under it.</param>
    /// <exception cref="ProblemException">A slot is not as it should be, or names a day or period that the term does not have.</exception>
    public static IReadOnlyList<Slot> Read(JsonElement json, Term term, string field)
    {
        var slots = Read(json, field);
        var labels = SectionMeetings.LabelsOf(term.Calendar.Rotation).ToList();
        var periods = term.Calendar.Periods.Select(period => period.Name).ToList();
        for (var n = 0; n < slots.Count; n++)
        {
            if (!labels.Contains(slots[n].Day))
                throw Problem.Field(
                    $"{field}[{n}].day",
                    $"This term has no day “{slots[n].Day}”: choose one of {Counting.Joined(labels, "and")}."
                );
            if (slots[n] is Slot.InPeriods of && of.Periods.FirstOrDefault(name => !periods.Contains(name)) is { } unknown)
                throw Problem.Field(
                    $"{field}[{n}].periods",
                    periods.Count == 0
                        ? "This term has no periods. Give the times instead, or add periods to the term."
                        : $"This term has no period “{unknown}”: choose one of {Counting.Joined(periods, "and")}."
                );
        }
        return slots;
    }

    private static IReadOnlyList<Slot> Read(JsonElement json, string field)
    {
        try
        {
            return PlanParts.Slots(json.GetRawText());
        }
        catch (FileRefusedException refusal)
        {
            throw Problem.Field(field, $"{refusal.Path.Replace("$", field, StringComparison.Ordinal)}: {refusal.Message}.");
        }
    }
}
