using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace Polycline.Core.Calendars;

/// <summary>A term like an earlier one: the same weeks and weekdays, a whole number of weeks later.</summary>
public static partial class TermAhead
{
    private const int WeeksInAYear = 52;

    /// <summary>
    /// How many weeks lie between a term and one like it that begins on <paramref name="first"/>: from the week that holds its first date
    /// to the week that holds the other. A negative number: it begins earlier.
    /// </summary>
    public static int WeeksTo(Term term, LocalDate first) => NodaTime.Period.DaysBetween(Monday(term.First), Monday(first)) / 7;

    /// <summary>
    /// The first date of the term like it so many years later: the same weekday of the same week of the year, so that most years are 52
    /// weeks long and some 53.
    /// </summary>
    public static LocalDate FirstAfter(Term term, int years)
    {
        var sameDate = term.First.PlusYears(years);
        var weeks = (int)Math.Round(NodaTime.Period.DaysBetween(term.First, sameDate) / 7.0, MidpointRounding.AwayFromZero);
        return term.First.PlusWeeks(Math.Max(weeks, years * WeeksInAYear));
    }

    /// <summary>Its name, with every year in it so many years later: "Autumn term 2026", "2026/27" and "2026-2027" alike.</summary>
    public static string NameAfter(string name, int years) =>
        Year()
            .Replace(name, found =>
                string.Concat(found.Groups["year"].Captures.Select(one => Later(one.Value, years)))
                + found.Groups["dash"].Value
                + Later(found.Groups["short"].Value, years)
            );

    // Written with as many digits as before; nothing stays nothing.
    private static string Later(string year, int years) =>
        year.Length == 0 ? "" : $"{int.Parse(year, CultureInfo.InvariantCulture) + years}".PadLeft(year.Length, '0')[^year.Length..];

    private static LocalDate Monday(LocalDate date) => date.PlusDays(-((int)date.DayOfWeek - 1));

    [GeneratedRegex(@"\b(?<year>(?:19|20|21)\d\d)(?:(?<dash>[/–-])(?<short>\d\d)(?!\d))?\b", RegexOptions.CultureInvariant)]
    private static partial Regex Year();
}
