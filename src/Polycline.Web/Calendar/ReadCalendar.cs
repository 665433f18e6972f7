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

public sealed record CalendarAnswer
{
    public required Id<Term> Term { get; init; }

    public required string Name { get; init; }

    public required string Zone { get; init; }

    public required long Version { get; init; }

    /// <summary>To be named when the term's dates or settings are changed.</summary>
    public required long OwnVersion { get; init; }

    public required bool CanChange { get; init; }

    /// <summary>Its first date.</summary>
    public required string First { get; init; }

    /// <summary>Its last date, inclusive.</summary>
    public required string Last { get; init; }

    public required string Dates { get; init; }

    public required int ClassDays { get; init; }

    /// <summary>On which classes are held.</summary>
    public required IReadOnlyList<string> Weekdays { get; init; }

    /// <summary>In the plan file's form.</summary>
    public required JsonNode Rotation { get; init; }

    /// <summary>What the days are called, in words.</summary>
    public required string RotationWords { get; init; }

    /// <summary>In the plan file's form.</summary>
    public required JsonNode Periods { get; init; }

    public required string OffDays { get; init; }

    /// <summary>The days a special day can run as.</summary>
    public required IReadOnlyList<LabelChoice> Labels { get; init; }

    /// <summary>The date now.</summary>
    public required string Today { get; init; }

    public required IReadOnlyList<CalendarMonth> Months { get; init; }

    public required IReadOnlyList<CalendarMark> Marks { get; init; }

    public required IReadOnlyList<TermSectionCard> Sections { get; init; }
}

public sealed record LabelChoice(string Label, string Words);

/// <param name="Days">The days of the month that are in the term's months, in order.</param>
public sealed record CalendarMonth(string Name, IReadOnlyList<CalendarDay> Days);

/// <param name="Date">A date.</param>
/// <param name="Words">The day in words.</param>
/// <param name="State"><c>class</c>, <c>closed</c>, <c>free</c> (a weekday without classes) or <c>outside</c> the term.</param>
/// <param name="Label">What a class day is called in the rotation.</param>
/// <param name="Marks">The ids of what is marked on it.</param>
public sealed record CalendarDay(string Date, string Words, string State, string? Label, IReadOnlyList<Id<CalendarDayRow>> Marks);

public sealed record CalendarMark
{
    public required Id<CalendarDayRow> Id { get; init; }

    public required long Version { get; init; }

    /// <summary><c>closure</c>, <c>extra</c> or <c>special</c>.</summary>
    public required string Kind { get; init; }

    public required string First { get; init; }

    public required string Last { get; init; }

    public required string Name { get; init; }

    public required string? Runs { get; init; }

    public required JsonNode? Periods { get; init; }

    /// <summary>The days in words.</summary>
    public required string Words { get; init; }

    /// <summary>What else is to be said of it.</summary>
    public required string Facts { get; init; }

    /// <summary>It has no effect as things are.</summary>
    public required bool Sleeps { get; init; }
}

public sealed record TermSectionCard
{
    public required Id<Section> Id { get; init; }

    public required string Name { get; init; }

    public required string Letter { get; init; }

    /// <summary>Empty: not said.</summary>
    public required string Subject { get; init; }

    /// <summary>Empty: not said.</summary>
    public required string Year { get; init; }

    /// <summary>Null: it follows none.</summary>
    public required string? Course { get; init; }

    /// <summary>To be named when it is changed.</summary>
    public required long Version { get; init; }

    /// <summary>When it meets, in the plan file's form.</summary>
    public required JsonNode Slots { get; init; }

    public required IReadOnlyList<string> Teachers { get; init; }

    public required int Students { get; init; }

    public required int Classes { get; init; }

    /// <summary>Its last day, where it ends before the term.</summary>
    public required string? Last { get; init; }

    /// <summary>Whether its course fits, in words: <c>fits, 3 classes free</c>.</summary>
    public required string Standing { get; init; }

    /// <summary>The course does not fit it.</summary>
    public required bool Lacks { get; init; }
}

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
        return new()
        {
            Term = plan.Id,
            Name = term.Name,
            Zone = term.Zone.Id,
            Version = plan.Version,
            OwnVersion = plan.OwnVersion,
            CanChange = viewpoint.TakesCommands && today <= term.Last,
            First = Iso(term.First),
            Last = Iso(term.Last),
            Dates = Moment.InWords(term.First, term.Last),
            ClassDays = days.Days.Length,
            Weekdays = [.. term.Calendar.Weekdays.Select(day => day.ToString()[..3].ToLowerInvariant())],
            Rotation = settings["rotation"]?.DeepClone() ?? new JsonObject { ["kind"] = "weekly" },
            RotationWords = InWords(term.Calendar.Rotation),
            Periods = settings["periods"]?.DeepClone() ?? new JsonArray(),
            OffDays = term.Calendar.OffDays.ToString().ToLowerInvariant(),
            Labels =
            [
                .. SectionMeetings
                    .LabelsOf(term.Calendar.Rotation)
                    .Select(label => new LabelChoice(label, DifferenceWords.DayInWords(label).Capital())),
            ],
            Today = Iso(today),
            Months = [.. MonthsOf(plan, labels)],
            Marks = [.. plan.Days.Select(day => MarkOf(days, day))],
            Sections =
            [
                .. plan
                    .Sections.Where(section => !section.Pretend)
                    .Select(section => CardOf(days, section, courses.FirstOrDefault(course => course.Id == section.Edition))),
            ],
        };
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
        return new()
        {
            Id = day.Id,
            Version = day.Version,
            Kind = day.Kind,
            First = Iso(day.First),
            Last = Iso(day.Last),
            Name = day.Name,
            Runs = day.Runs,
            Periods = periods,
            Words = Moment.InWords(day.First, day.Last),
            Facts = facts,
            Sleeps = sleeps,
        };
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
        var schedule = course?.Schedule.Section(new($"{section.Id}"));
        var forecast = schedule?.Forecast;
        var meetings = schedule?.Meetings ?? SectionMeetings.Of(days, section.Name, section.Slots, section.Changes);
        return new()
        {
            Id = section.Id,
            Name = section.Name,
            Letter = section.Letter,
            Subject = section.Subject,
            Year = section.Year,
            Course = course?.CourseTitle,
            Version = section.Version,
            Slots = JsonNode.Parse(section.SlotsJson)!,
            Teachers = section.Teachers,
            Students = section.Students,
            Classes = meetings.Meetings.Count(meeting => section.EndedOn is not { } last || meeting.Date <= last),
            Last = section.EndedOn is { } end ? Iso(end) : null,
            Standing = forecast switch
            {
                _ when section.EndedOn is { } last => $"last day {Moment.InWords(last, last)}",
                null => "follows no course",
                { Lacking: > 0 and var lacking } => $"does not fit, by {course!.Edition.Basis.Counted(lacking)}",
                { Free.Length: 0 } => "fits, with no class to spare",
                { Free.Length: var free } => $"fits, {Counting.Counted(free, "class", "classes")} free",
            },
            Lacks = section.EndedOn is null && forecast?.Lacking > 0,
        };
    }

    /// <summary>What the days are called: "weeks A and B in turn".</summary>
    public static string InWords(Rotation rotation) =>
        rotation switch
        {
            Rotation.ByWeeks weeks =>
                $"weeks {Counting.Joined(weeks.Labels, "and")} in turn{(weeks.TeachingOnly ? ", closed weeks left out" : "")}",
            Rotation.ByDays days =>
                $"days {days.Labels[0]} to {days.Labels[^1]} in turn{(days.ClosuresCount ? ", closed days counted" : "")}",
            _ => "the same every week",
        };

    private static string Iso(LocalDate date) => LocalDatePattern.Iso.Format(date);
}
