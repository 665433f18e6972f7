using System.Globalization;
using System.Text.RegularExpressions;

namespace Polycline.Formats;

/// <summary>
/// Looks through the lines of a calendar file before it is read as one: what is broken is told by its line, and what would
/// repeat for ever is not followed at all. RFC 5545, 3.1 (folding), 3.3.4 to 3.3.10 (values).
/// </summary>
internal static partial class CalendarLines
{
    private const int MostRules = 5_000;

    /// <exception cref="CalendarFileException">A line that matters here cannot be read, or an event repeats by several rules.</exception>
    public static void Check(string text)
    {
        var (number, rules, event_, rulesOfEvent) = (0, 0, false, 0);
        foreach (var (line, at) in Unfolded(text))
        {
            number = at;
            if (Line().Match(line) is not { Success: true } match)
                continue;
            var (name, value) = (match.Groups["name"].Value.ToUpperInvariant(), match.Groups["value"].Value.Trim());
            switch (name)
            {
                case "BEGIN" when value.Equals("VEVENT", StringComparison.OrdinalIgnoreCase):
                    (event_, rulesOfEvent) = (true, 0);
                    break;
                case "END" when value.Equals("VEVENT", StringComparison.OrdinalIgnoreCase):
                    event_ = false;
                    break;
                case "DTSTART" or "DTEND" when event_:
                    if (!IsMoment(value))
                        throw Broken(number, name, "a date from 1900 to 2999, such as 20261026, was expected");
                    break;
                case "DURATION" when event_:
                    if (!Duration().IsMatch(value))
                        throw Broken(number, name, "a length such as P5D was expected");
                    break;
                case "RRULE" or "EXRULE" when event_:
                    if (++rules > MostRules || ++rulesOfEvent > 1)
                        throw Broken(number, name, rulesOfEvent > 1 ? "an event has only one repeat rule" : "it has too many repeat rules");
                    break;
            }
        }
    }

    private static CalendarFileException Broken(int line, string name, string wanted) =>
        new(
            $"Line {line.ToString(CultureInfo.InvariantCulture)} of the file ({name}) "
                + $"cannot be used: {wanted}. Correct that line, or take the event out."
        );

    private static bool IsMoment(string value) =>
        Moment().Match(value) is { Success: true } match
        && DateTime.TryParseExact(match.Groups[1].Value, "yyyyMMdd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var date)
        && date.Year is >= 1900 and <= 2999;

    // A line goes on in the next where that begins with a space or a tab.
    private static IEnumerable<(string Line, int Number)> Unfolded(string text)
    {
        var (whole, from, number) = ("", 0, 0);
        foreach (var line in text.Split('\n'))
        {
            number++;
            var bare = line.TrimEnd('\r');
            if (bare is [var begins, ..] && begins is ' ' or '\t')
            {
                // No line that matters here is longer.
                if (whole.Length < 5_000)
                    whole += bare[1..];
                continue;
            }
            if (from > 0)
                yield return (whole, from);
            (whole, from) = (bare, number);
        }
        if (from > 0)
            yield return (whole, from);
    }

    [GeneratedRegex(@"^(?<name>[A-Za-z-]{1,40})(;[^:\r\n]{0,400})?:(?<value>.*)$", RegexOptions.None, 1000)]
    private static partial Regex Line();

    [GeneratedRegex(@"^(\d{8})(T\d{6}Z?)?$", RegexOptions.None, 1000)]
    private static partial Regex Moment();

    [GeneratedRegex(@"^[+-]?P(\d{1,4}W|(\d{1,5}D)?(T(\d{1,5}H)?(\d{1,5}M)?(\d{1,6}S)?)?)$", RegexOptions.None, 1000)]
    private static partial Regex Duration();
}
