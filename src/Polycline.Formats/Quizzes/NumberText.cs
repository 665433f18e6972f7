using System.Globalization;
using System.Text.RegularExpressions;
using Polycline.Core.Marking;

namespace Polycline.Formats.Quizzes;

/// <summary>The key of a number in plain text.</summary>
internal static partial class NumberText
{
    /// <summary>
    /// A number with its tolerance, units and figures: <c>1013.25 ± 0.5 hPa, mbar; 3 figures; 50 % with the wrong unit or figures</c>.
    /// </summary>
    public static QuestionKey.NumberKey? Read(string given)
    {
        var found = NumberKey().Match(given);
        if (!found.Success || Amount(found.Groups["value"].Value) is not { } value || value is < -1_000_000_000 or > 1_000_000_000)
            return null;
        var tolerance = found.Groups["by"].Success ? Amount(found.Groups["by"].Value) : 0;
        if (
            tolerance is not { } by
            || by > 1_000_000_000
            || decimal.Round(value, 5) != value
            || decimal.Round(by, 2) != by && found.Groups["percent"].Success
        )
            return null;
        var slip = 0;
        if (
            found.Groups["slip"].Success
            && (!int.TryParse(found.Groups["slip"].Value, CultureInfo.InvariantCulture, out slip) || slip > 100)
        )
            return null;
        var figures = 0;
        if (
            found.Groups["figures"].Success
            && !int.TryParse(found.Groups["figures"].Value, NumberStyles.None, CultureInfo.InvariantCulture, out figures)
        )
            return null;
        return new(value)
        {
            Tolerance = found.Groups["percent"].Success ? Math.Abs(value) * by / 100 : by,
            Units = [.. found.Groups["units"].Value.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)],
            Figures = figures is > 0 and <= 10_000 ? figures : null,
            NeedsUnit = !found.Groups["optional"].Success,
            Slip = (Fraction)slip / 100,
        };
    }

    public static decimal? Amount(string text) =>
        decimal.TryParse(
            text.Replace('\u2212', '-').Replace(',', '.'),
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var amount
        )
            ? amount
            : null;

    [GeneratedRegex(
        @"^(?<value>[+\-\u2212]?\d{1,10}(?:[.,]\d{1,9})?)"
            + @"(?:\s*(?:±|\+-)\s*(?<by>\d{1,10}(?:[.,]\d{1,9})?)\s*(?<percent>%)?)?"
            + @"(?:\s*(?<units>[^;\d\s][^;]*?))?"
            + @"(?:\s*;\s*(?<figures>\d{1,4})\s+figures?)?(?<optional>\s*;\s*unit may be left out)?"
            + @"(?:\s*;\s*(?<slip>\d{1,3})\s*%\s+with the wrong unit or figures)?$",
        RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture
    )]
    private static partial Regex NumberKey();
}
