using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;
using NodaTime;

namespace Polycline.Formats;

/// <summary>Whole days in a calendar file.</summary>
/// <param name="Last">Inclusive.</param>
public sealed record WholeDays(LocalDate First, LocalDate Last, string Name);

/// <summary>What a calendar file has of a term's dates.</summary>
/// <param name="Days">In order of date; days of one name that follow on each other are one.</param>
/// <param name="LeftOut">What was not taken, with the reason.</param>
public sealed record ClosuresOfFile(IReadOnlyList<WholeDays> Days, IReadOnlyList<string> LeftOut);

/// <summary>A file that is no calendar, or too much of one.</summary>
public sealed class CalendarFileException(string message) : Exception(message);

/// <summary>Reads closures from a calendar file (RFC 5545): its events of whole days, recurring ones day by day.</summary>
public static class ClosuresFile
{
    private const int MostEvents = 2_000;
    private const int MostTimes = 1_000;

    // How many occurrences of all events together are followed, including those before the term.
    private const int MostSteps = 200_000;

    // A rule that never matches, such as every 30 February, is given up rather than followed for ever.
    private static readonly EvaluationOptions Bounded = new() { MaxUnmatchedIncrementsLimit = 1_000 };

    /// <param name="stop">Whoever asked has gone: what is under way is given up.</param>
    /// <exception cref="CalendarFileException">It is no calendar file, has more than 2,000 events, repeats too often, or has a line that
    /// cannot be read.</exception>
    public static ClosuresOfFile Read(string text, LocalDate first, LocalDate last, CancellationToken stop)
    {
        CalendarLines.Check(text);
        var events = Load(text);
        var steps = 0;
        var days = new List<WholeDays>();
        var leftOut = new List<string>();
        foreach (var one in events.Where(one => one.Status != EventStatus.Cancelled))
        {
            var name =
                string.IsNullOrWhiteSpace(one.Summary) ? "Closed"
                : one.Summary.Trim() is { Length: > 120 } longer ? longer[..120]
                : one.Summary.Trim();
            if (one.Start is null || one.Start.HasTime)
                leftOut.Add($"{name}: it has times, but a closure is whole days.");
            else if (one.RecurrenceRule?.Frequency is FrequencyType.Secondly or FrequencyType.Minutely or FrequencyType.Hourly)
                leftOut.Add($"{name}: it repeats more often than daily.");
            else
                try
                {
                    days.AddRange(
                        Times(one, first, last, Step)
                            .Select(time => new WholeDays(LocalDate.Max(time.First, first), LocalDate.Min(time.Last, last), name))
                    );
                }
                catch (EvaluationException)
                {
                    leftOut.Add($"{name}: its repeat rule cannot be read.");
                }
        }
        return new(Joined(days), leftOut);

        void Step()
        {
            stop.ThrowIfCancellationRequested();
            if (++steps > MostSteps)
                throw new CalendarFileException("The events in this calendar repeat too often. Use a file with this year’s closures only.");
        }
    }

    private static List<CalendarEvent> Load(string text)
    {
        List<CalendarEvent> events;
        try
        {
            events = [.. CalendarCollection.Load(text).SelectMany(calendar => calendar.Events)];
        }
        catch (Exception fault) when (fault is not OutOfMemoryException)
        {
            // The reader has no exception type of its own for what it cannot read.
            throw new CalendarFileException("This calendar file cannot be read.");
        }
        if (events.Count == 0 && !text.Contains("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase))
            throw new CalendarFileException("This is not a calendar file: it does not begin with BEGIN:VCALENDAR.");
        return events.Count <= MostEvents
            ? events
            : throw new CalendarFileException("This calendar has more than 2,000 events. Use a file with closures only.");
    }

    private static IEnumerable<(LocalDate First, LocalDate Last)> Times(CalendarEvent one, LocalDate first, LocalDate last, Action step) =>
        one.GetOccurrences(one.Start!, Bounded)
            .TakeWhile(occurrence =>
            {
                step();
                return Date(occurrence.Period.StartTime) <= last;
            })
            .Select(occurrence => (Date(occurrence.Period.StartTime), End(occurrence.Period)))
            .Where(time => time.Item2 >= first)
            .Take(MostTimes);

    // The end of whole days is the day after the last; without one it is one day.
    private static LocalDate End(Ical.Net.DataTypes.Period period) =>
        period.EffectiveEndTime is { } end && Date(end) > Date(period.StartTime) ? Date(end).PlusDays(-1) : Date(period.StartTime);

    private static LocalDate Date(CalDateTime date) => new(date.Year, date.Month, date.Day);

    private static List<WholeDays> Joined(List<WholeDays> days)
    {
        var joined = new List<WholeDays>();
        foreach (var day in days.Distinct().OrderBy(day => day.Name, StringComparer.Ordinal).ThenBy(day => day.First))
            if (joined is [.., var before] && before.Name == day.Name && day.First <= before.Last.PlusDays(1))
                joined[^1] = before with { Last = LocalDate.Max(before.Last, day.Last) };
            else
                joined.Add(day);
        return [.. joined.OrderBy(day => day.First).ThenBy(day => day.Name, StringComparer.Ordinal)];
    }
}
