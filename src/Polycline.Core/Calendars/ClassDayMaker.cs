using System.Collections.Immutable;
using NodaTime;

namespace Polycline.Core.Calendars;

/// <summary>A date on which classes are held, with its label and periods.</summary>
public sealed record ClassDay(LocalDate Date, string Label, ImmutableArray<Period> Periods);

/// <summary>A week of the term, Monday to Sunday.</summary>
/// <param name="Monday">The Monday of the week, which may lie before the term.</param>
/// <param name="Letter">Its letter in a rotation of weeks; null in another rotation, or where the week takes none.</param>
public sealed record TermWeek(LocalDate Monday, string? Letter);

/// <summary>Term → class days. Source: the computation, chapter 1.</summary>
public static class ClassDayMaker
{
    private static readonly string[] WeekdayNames = ["", "mon", "tue", "wed", "thu", "fri", "sat", "sun"];

    /// <summary>The class days of <paramref name="term"/> in order of date.</summary>
    public static ImmutableArray<ClassDay> Of(Term term)
    {
        var letters = Weeks(term).ToDictionary(week => week.Monday, week => week.Letter);
        var special = term.Calendar.SpecialDays.ToDictionary(day => day.Date);
        var days = ImmutableArray.CreateBuilder<ClassDay>();
        var consumed = 0;
        foreach (var date in Dates(term))
        {
            if (!IsClassDay(term, date))
            {
                if (term.Calendar.Rotation is Rotation.ByDays { ClosuresCount: true } && days.Count > 0 && IsTeachingWeekday(term, date))
                    consumed++;
                continue;
            }
            var own = special.GetValueOrDefault(date);
            var label = term.Calendar.Rotation switch
            {
                Rotation.ByWeeks => InWeek(own?.Runs ?? Weekday(date), letters[MondayOf(date)]!),
                Rotation.ByDays => own?.Runs,
                _ => own?.Runs ?? Weekday(date),
            };
            // A day of a days rotation that runs another label consumes none of its own.
            if (term.Calendar.Rotation is Rotation.ByDays turn && label is null)
                label = turn.Labels[consumed++ % turn.Labels.Length];
            days.Add(new(date, label!, own?.Periods ?? term.Calendar.Periods));
        }
        return days.ToImmutable();
    }

    /// <summary>The weeks that hold a date of the term, in order, each with its letter.</summary>
    public static ImmutableArray<TermWeek> Weeks(Term term)
    {
        var taken = 0;
        var weeks = ImmutableArray.CreateBuilder<TermWeek>();
        for (var monday = MondayOf(term.First); monday <= term.Last; monday = monday.PlusWeeks(1))
        {
            var takes =
                term.Calendar.Rotation is Rotation.ByWeeks { TeachingOnly: false }
                || (term.Calendar.Rotation is Rotation.ByWeeks && HoldsClassDay(term, monday));
            var letter = takes && term.Calendar.Rotation is Rotation.ByWeeks turn ? turn.Labels[taken++ % turn.Labels.Length] : null;
            weeks.Add(new(monday, letter));
        }
        return weeks.ToImmutable();
    }

    /// <summary>Whether classes are held on <paramref name="date"/>.</summary>
    public static bool IsClassDay(Term term, LocalDate date) =>
        term.First <= date
        && date <= term.Last
        && (
            term.Calendar.ExtraDays.Any(extra => extra.Date == date)
            || (IsTeachingWeekday(term, date) && !term.Calendar.Closures.Any(closure => closure.Covers(date)))
        );

    private static bool IsTeachingWeekday(Term term, LocalDate date) => term.Calendar.Weekdays.Contains(date.DayOfWeek);

    private static bool HoldsClassDay(Term term, LocalDate monday) =>
        Enumerable.Range(0, 7).Any(day => IsClassDay(term, monday.PlusDays(day)));

    private static IEnumerable<LocalDate> Dates(Term term)
    {
        for (var date = term.First; date <= term.Last; date = date.PlusDays(1))
            yield return date;
    }

    private static LocalDate MondayOf(LocalDate date) => date.PlusDays(1 - (int)date.DayOfWeek);

    private static string Weekday(LocalDate date) => WeekdayNames[(int)date.DayOfWeek];

    // In a rotation of weeks a bare weekday takes the letter of the day's own week.
    private static string InWeek(string label, string letter) => Array.IndexOf(WeekdayNames, label) > 0 ? $"{letter}-{label}" : label;
}
