using NodaTime;
using Polycline.Core.Sections;

namespace Polycline.Core.Planning;

/// <summary>
/// What opens for a section, to be recorded so that it stays open when the plan moves. Source: the computation, chapter 4.
/// </summary>
public static class Openings
{
    /// <summary>
    /// The items that have opened in a section by <paramref name="at"/> and of which no record says so, in the order of
    /// its items. What opens as soon as it is published opens now.
    /// </summary>
    public static IEnumerable<OpeningRecord> Unrecorded(SectionSchedule schedule, Instant at)
    {
        foreach (var (item, dates) in schedule.Items)
        {
            if (dates is null || item.Opened is not null || !item.Published || item.Held)
                continue;
            var opens = dates.Opens.IsGiven ? dates.Opens.At : at;
            if (opens <= at)
                yield return new(item.Ref, opens.Value, dates.Due.At);
        }
    }
}
