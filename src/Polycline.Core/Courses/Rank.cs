namespace Polycline.Core.Courses;

/// <summary>The order of siblings: a fractional rank, compared by character code, so that moving one writes one row.</summary>
public static class Rank
{
    private const string Digits = "0123456789abcdefghijklmnopqrstuvwxyz";

    /// <summary>The rank of the <paramref name="n"/>-th of many that are made at once, from 0: room is left between neighbours.</summary>
    public static string Nth(int n) => ((n + 1) * 16).ToString("x4", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>A rank after <paramref name="low"/> and before <paramref name="high"/>; null: no bound.</summary>
    /// <exception cref="ArgumentException">There is nothing between them.</exception>
    public static string Between(string? low, string? high)
    {
        var rank = "";
        for (var bounded = high is not null; ; )
        {
            var place = rank.Length;
            var from = low is not null && place < low.Length ? Digits.IndexOf(low[place]) : 0;
            if (bounded && place >= high!.Length)
                throw new ArgumentException($"There is no rank between '{low}' and '{high}'.", nameof(high));
            var to = bounded ? Digits.IndexOf(high![place]) : Digits.Length;
            var middle = (from + to) / 2;
            if (middle > from)
                return rank + Digits[middle];
            rank += Digits[from];
            bounded &= from == to;
        }
    }
}
