using System.Text.Json.Nodes;
using NodaTime;
using NodaTime.Text;
using Polycline.Core.Calendars;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Calendar;

/// <summary>What a term like another would be: nothing of it is written.</summary>
/// <param name="First">A date.</param>
/// <param name="Last">A date, inclusive.</param>
/// <param name="Alike">What it has in common with the other, in words.</param>
/// <param name="Marks">The other's closures, extra days and special days, so many weeks later.</param>
public sealed record TermAheadAnswer(string Name, string Zone, string First, string Last, string Alike, IReadOnlyList<MarkAhead> Marks);

/// <param name="Kind"><c>closure</c>, <c>extra</c> or <c>special</c>.</param>
/// <param name="Runs">Of a special day: the label it takes; null: its own.</param>
/// <param name="Periods">Of a special day, in the plan file's form; null: the term's.</param>
/// <param name="Words">What it was then: "Mid-term break, Mon 26 – Fri 30 Oct".</param>
public sealed record MarkAhead(string Kind, string First, string Last, string Name, string? Runs, JsonNode? Periods, string Words);

/// <summary>Proposes a term like this one, later: the same weeks and settings, and closures to look at one by one.</summary>
public static class ProposeTerm
{
    private const int FurthestYears = 5;

    /// <param name="years">From 1 to 5 years later.</param>
    /// <param name="first">When it begins; where it is left out, on the same weekday of the same week of the year.</param>
    public static async Task<TermAheadAnswer> Handle(
        long term,
        int? years,
        string? first,
        Access access,
        Database database,
        CancellationToken stop
    )
    {
        var plan = await TermStore.Read(database, access.Term!.Value, stop) ?? throw Problem.Unknown();
        if (years is < 1 or > FurthestYears)
            throw Problem.Field("years", $"Choose a number of years from 1 to {FurthestYears}.");
        return Of(plan, years ?? 1, first is null ? TermAhead.FirstAfter(plan.Term, years ?? 1) : TermForm.DateOf(first, "first"));
    }

    /// <summary>The answer for a term: a pure function.</summary>
    public static TermAheadAnswer Of(TermPlan plan, int years, LocalDate first)
    {
        var weeks = TermAhead.WeeksTo(plan.Term, first);
        return new(
            TermAhead.NameAfter(plan.Term.Name, years),
            plan.Term.Zone.Id,
            Iso(first),
            Iso(plan.Term.Last.PlusWeeks(weeks)),
            $"{Counting.Counted(plan.Term.Calendar.Weekdays.Length, "day", "days")} a week, "
                + $"{ReadCalendar.InWords(plan.Term.Calendar.Rotation)}, "
                + Counting.Counted(plan.Term.Calendar.Periods.Length, "period", "periods"),
            [
                .. plan.Days.Select(day => new MarkAhead(
                    day.Kind,
                    Iso(day.First.PlusWeeks(weeks)),
                    Iso(day.Last.PlusWeeks(weeks)),
                    day.Name,
                    day.Runs,
                    day.Periods is null ? null : JsonNode.Parse(day.Periods),
                    Moment.InWords(day.First, day.Last)
                )),
            ]
        );
    }

    private static string Iso(LocalDate date) => LocalDatePattern.Iso.Format(date);
}
