using System.Globalization;
using System.Text.Json.Nodes;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Calendar;

/// <param name="OwnVersion">To be named when the term's dates or settings are changed.</param>
/// <param name="First">A date.</param>
/// <param name="Last">A date, inclusive.</param>
/// <param name="Weekdays">On which classes are held.</param>
/// <param name="Rotation">In the plan file's form.</param>
/// <param name="Periods">In the plan file's form.</param>
/// <param name="RotationWords">What the days are called, in words.</param>
/// <param name="Labels">The days a special day can run as.</param>
/// <param name="Today">The date now.</param>
public sealed record CalendarAnswer(
    Id<Term> Term,
    string Name,
    string Zone,
    long Version,
    long OwnVersion,
    bool CanChange,
    string First,
    string Last,
    string Dates,
    int ClassDays,
    IReadOnlyList<string> Weekdays,
    JsonNode Rotation,
    string RotationWords,
    JsonNode Periods,
    string OffDays,
    IReadOnlyList<LabelChoice> Labels,
    string Today,
    IReadOnlyList<CalendarMonth> Months,
    IReadOnlyList<CalendarMark> Marks,
    IReadOnlyList<TermSectionCard> Sections
);

public sealed record LabelChoice(string Label, string Words);

/// <param name="Days">The days of the month that are in the term's months, in order.</param>
public sealed record CalendarMonth(string Name, IReadOnlyList<CalendarDay> Days);

/// <param name="Date">A date.</param>
/// <param name="Words">The day in words.</param>
/// <param name="State"><c>class</c>, <c>closed</c>, <c>free</c> (a weekday without classes) or <c>outside</c> the term.</param>
/// <param name="Label">What a class day is called in the rotation.</param>
/// <param name="Marks">The ids of what is marked on it.</param>
public sealed record CalendarDay(string Date, string Words, string State, string? Label, IReadOnlyList<Id<CalendarDayRow>> Marks);

/// <param name="Kind"><c>closure</c>, <c>extra</c> or <c>special</c>.</param>
/// <param name="Words">The days in words.</param>
/// <param name="Facts">What else is to be said of it.</param>
/// <param name="Sleeps">It has no effect as things are.</param>
public sealed record CalendarMark(
    Id<CalendarDayRow> Id,
    long Version,
    string Kind,
    string First,
    string Last,
    string Name,
    string? Runs,
    JsonNode? Periods,
    string Words,
    string Facts,
    bool Sleeps
);

/// <param name="Course">Null: it follows none.</param>
/// <param name="Standing">What is to be said of its room: <c>3 classes free</c>.</param>
/// <param name="Lacks">The course does not fit it.</param>
public sealed record TermSectionCard(Id<Section> Id, string Name, string Letter, string? Course, int Classes, string Standing, bool Lacks);

/// <summary>Reads a term as a year sheet, with what it means for every section.</summary>
public static class ReadCalendar
{
    public static async Task<CalendarAnswer> Handle(
        long term,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var plan = await TermStore.Read(database, access.Term!.Value, stop) ?? throw Problem.Unknown();
        return Of(plan, await Task.WhenAll(plan.Editions.Select(compiled.Edition)), viewpoint);
    }

    /// <summary>The answer for a term: a pure function.</summary>
    public static CalendarAnswer Of(TermPlan plan, IReadOnlyList<EditionPlan> courses, Viewpoint viewpoint)
    {
        var (term, days) = (plan.Term, TermDays.Of(plan.Term));
        var labels = days.Days.ToDictionary(day => day.Date, day => day.Label);
        var today = term.Local(viewpoint.At).Date;
        var settings = JsonNode.Parse(plan.Settings)!;
        return new(
            plan.Id,
            term.Name,
            term.Zone.Id,
            plan.Version,
            plan.OwnVersion,
            viewpoint.TakesCommands && today <= term.Last,
            Iso(term.First),
            Iso(term.Last),
            Moment.InWords(term.First, term.Last),
            days.Days.Length,
            [.. term.Calendar.Weekdays.Select(day => day.ToString()[..3].ToLowerInvariant())],
            settings["rotation"]?.DeepClone() ?? new JsonObject { ["kind"] = "weekly" },
            InWords(term.Calendar.Rotation),
            settings["periods"]?.DeepClone() ?? new JsonArray(),
            term.Calendar.OffDays.ToString().ToLowerInvariant(),
            [
                .. SectionMeetings
                    .LabelsOf(term.Calendar.Rotation)
                    .Select(label => new LabelChoice(label, DifferenceWords.DayInWords(label).Capital())),
            ],
            Iso(today),
            [.. MonthsOf(plan, labels)],
            [.. plan.Days.Select(day => MarkOf(days, day))],
            [.. plan.Sections.Select(section => CardOf(days, section, courses.FirstOrDefault(course => course.Id == section.Edition)))]
        );
    }

    private static IEnumerable<CalendarMonth> MonthsOf(TermPlan plan, Dictionary<LocalDate, string> labels)
    {
        var term = plan.Term;
        for (var month = new LocalDate(term.First.Year, term.First.Month, 1); month <= term.Last; month = month.PlusMonths(1))
            yield return new(
                month.ToString("MMMM uuuu", CultureInfo.InvariantCulture),
                [
                    .. Enumerable
                        .Range(0, CalendarSystem.Iso.GetDaysInMonth(month.Year, month.Month))
                        .Select(n => month.PlusDays(n))
                        .Select(date => new CalendarDay(
                            Iso(date),
                            date.ToString("ddd d MMM", CultureInfo.InvariantCulture),
                            StateOf(term, labels, date),
                            labels.GetValueOrDefault(date),
                            [.. plan.Days.Where(day => day.First <= date && date <= day.Last).Select(day => day.Id)]
                        )),
                ]
            );
    }

    private static string StateOf(Term term, Dictionary<LocalDate, string> labels, LocalDate date) =>
        date < term.First || date > term.Last ? "outside"
        : labels.ContainsKey(date) ? "class"
        : term.Calendar.Closures.Any(closure => closure.Covers(date)) ? "closed"
        : "free";

    private static CalendarMark MarkOf(TermDays days, CalendarDayRow day)
    {
        var periods = day.Periods is null ? null : JsonNode.Parse(day.Periods);
        var (sleeps, facts) = day.Kind switch
        {
            "special" => (
                !days.IsClassDay(day.First),
                string.Join(
                    ", ",
                    new[]
                    {
                        day.Runs is null ? null : $"runs as {DifferenceWords.DayInWords(day.Runs)}",
                        PeriodsInWords(periods),
                    }.OfType<string>()
                )
            ),
            "extra" => (!days.Holds(day.First), "classes are held"),
            _ => (
                day.Last < days.Term.First || day.First > days.Term.Last,
                Counting.Counted(NodaTime.Period.DaysBetween(day.First, day.Last) + 1, "day", "days")
            ),
        };
        return new(
            day.Id,
            day.Version,
            day.Kind,
            Iso(day.First),
            Iso(day.Last),
            day.Name,
            day.Runs,
            periods,
            Moment.InWords(day.First, day.Last),
            facts,
            sleeps
        );
    }

    private static string? PeriodsInWords(JsonNode? periods) =>
        periods?.AsArray() switch
        {
            null => null,
            { Count: 0 } => "no periods",
            var list => $"{Counting.Counted(list.Count, "period", "periods")} from {list[0]!["start"]} to {list[^1]!["end"]}",
        };

    private static TermSectionCard CardOf(TermDays days, TermSection section, EditionPlan? course)
    {
        if (course?.Schedule.Section(new($"{section.Id}")) is not { } schedule)
            return new(
                section.Id,
                section.Name,
                section.Letter,
                null,
                SectionMeetings.Of(days, section.Name, section.Slots, section.Changes).Meetings.Length,
                "follows no course",
                false
            );
        var (lacking, free) = (schedule.Forecast.Lacking, schedule.Forecast.Free.Length);
        return new(
            section.Id,
            section.Name,
            section.Letter,
            course.CourseTitle,
            schedule.Meetings.Meetings.Length,
            lacking > 0 ? $"does not fit, by {course.Edition.Basis.Counted(lacking)}"
                : free == 0 ? "fits to the last class"
                : $"fits, {Counting.Counted(free, "class", "classes")} free",
            lacking > 0
        );
    }

    private static string InWords(Rotation rotation) =>
        rotation switch
        {
            Rotation.ByWeeks weeks =>
                $"weeks {Counting.Joined(weeks.Labels, "and")} in turn{(weeks.TeachingOnly ? ", closed weeks left out" : "")}",
            Rotation.ByDays days =>
                $"days {days.Labels[0]} to {days.Labels[^1]} in turn{(days.ClosuresCount ? ", closed days counted" : "")}",
            _ => "each week alike",
        };

    private static string Iso(LocalDate date) => LocalDatePattern.Iso.Format(date);
}
