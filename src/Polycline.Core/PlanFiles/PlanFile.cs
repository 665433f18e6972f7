using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles.Checking;
using Polycline.Core.PlanFiles.Reading;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.PlanFiles;

/// <summary>A plan with what is asked of it. Source: the plan file.</summary>
/// <param name="Ask">How items stand.</param>
/// <param name="Further">What else is asked, in order.</param>
public sealed record PlanFile(Plan Plan, ImmutableArray<Question> Ask, ImmutableArray<FurtherQuestion> Further)
{
    /// <summary>Reads a plan file: four passes, each over the whole file and only when the one before found nothing.</summary>
    /// <param name="text">JSON in UTF-8.</param>
    /// <exception cref="FileRefusedException">Something in it is not as it should be; nothing was read.</exception>
    public static PlanFile Read(ReadOnlySpan<byte> text)
    {
        var root = JsonPiece.Parse(text) ?? throw new FileRefusedException("$", "this is not JSON in UTF-8");
        FaultList.Pass(faults => PlanShapes.Plan(root, faults));
        FaultList.Pass(faults => DeclaredNames.Check(root, faults));
        FaultList.Pass(faults => OneSpecialDayADate(root["term"]!, faults));
        var plan = PlanBuilder.Of(root);
        FaultList.Pass(faults => SectionChecks.Check(plan, root, faults));
        return new(plan, PlanBuilder.QuestionsOf(root), PlanBuilder.FurtherOf(root));
    }

    private static void OneSpecialDayADate(JsonPiece term, FaultList faults)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var day in term.Each("specialDays"))
            if (!seen.Add(day["date"]!.Value!))
                faults.Add(day["date"]!, "there is a special day of this date already");
    }
}

/// <summary>The fourth pass: what sections ask for that cannot be done.</summary>
internal static class SectionChecks
{
    public static void Check(Plan plan, JsonPiece root, FaultList faults)
    {
        var term = TermDays.Of(plan.Term);
        foreach (var (section, piece) in plan.Sections.Zip(root.Each("sections")))
        {
            Changes(term, section, piece, faults);
            Adjustments(plan.Edition, section, piece, faults);
            Students(section, piece, faults);
        }
        foreach (var asked in root.Each("ask"))
            QuestionNames.CheckMove(plan, asked, faults);
    }

    private static void Changes(TermDays term, Section section, JsonPiece piece, FaultList faults)
    {
        try
        {
            SectionMeetings.Of(term, section.Ref.Name, section.Slots, section.Changes);
        }
        catch (MeetingChangeException fault)
        {
            var at = piece["changes"]!.Items[fault.Change];
            foreach (var step in fault.Member?.Split('.') ?? [])
                at = at[step]!;
            faults.Add(at, fault.Message);
        }
    }

    private static void Adjustments(Courses.Edition edition, Section section, JsonPiece piece, FaultList faults)
    {
        try
        {
            RunningOrder.Of(edition, section.Adjustments);
        }
        catch (AdjustmentException fault)
        {
            faults.Add(piece["adjustments"]!.Items[fault.Adjustment][fault.Member]!, fault.Message);
        }
        // Order is carried out before any lesson is moved; which of the two faults stands first is a matter of the file.
        for (var n = 0; n < section.Adjustments.Length; n++)
            if (section.Adjustments[n] is Adjustment.OfLesson { After: { } after } of && after == of.Lesson)
                faults.Add(piece["adjustments"]!.Items[n]["after"]!, "a lesson cannot stand after itself");
    }

    // Listed twice on one date: the later entry, itself.
    private static void Students(Section section, JsonPiece piece, FaultList faults)
    {
        foreach (var own in section.Students.Select((entry, place) => (entry, place)).GroupBy(pair => pair.entry.Student))
        {
            var entries = own.ToArray();
            if (AreApart(entries.AsSpan()))
                continue;
            // The shortest beginning of the list with two that meet ends with the one at fault.
            var (apart, meeting) = (1, entries.Length);
            while (meeting - apart > 1)
            {
                var middle = (apart + meeting) / 2;
                (apart, meeting) = AreApart(entries.AsSpan(0, middle)) ? (middle, meeting) : (apart, middle);
            }
            faults.Add(
                piece["students"]!.Items[entries[meeting - 1].place],
                "this section lists the student already on some of these dates"
            );
        }
    }

    private static bool AreApart(ReadOnlySpan<(Enrolment Entry, int Place)> entries)
    {
        var inOrder = entries.ToArray();
        Array.Sort(inOrder, static (one, other) =>
            (one.Entry.From ?? LocalDate.MinIsoValue).CompareTo(other.Entry.From ?? LocalDate.MinIsoValue)
        );
        for (var n = 1; n < inOrder.Length; n++)
            if (inOrder[n].Entry.Meets(inOrder[n - 1].Entry))
                return false;
        return true;
    }
}
