using System.Globalization;
using System.Text;
using Polycline.Core.Unicode;

namespace Polycline.Core.Marking;

/// <summary>A short text as it is compared. Source: the computation, chapter 13.1, <i>Text</i>.</summary>
internal static class WrittenForm
{
    private const int FinalSigma = 0x3C2;
    private const int Sigma = 0x3C3;

    /// <summary>The code points of a text, folded as the key says.</summary>
    public static List<int> Folded(string text, QuestionKey.TextKey key)
    {
        var spaced = NormalForms.TextOf(NormalForms.Nfc(NormalForms.PointsOf(text)));
        spaced = key.DropsSpace ? string.Concat(spaced.Where(letter => !char.IsWhiteSpace(letter))) : Spaces.Tidy(spaced);
        var points = NormalForms.PointsOf(spaced);
        if (!key.KeepsCase)
            points = points.Select(Lower);
        return key.FoldsAccents ? NormalForms.Nfc(NormalForms.Nfd(points).Where(point => !IsMark(point))) : [.. points];
    }

    /// <summary>
    /// Whether one comes of the other by at most so many code points put in, left out, replaced, or neighbours swapped, none touched
    /// twice after a swap.
    /// </summary>
    public static bool IsWithin(List<int> one, List<int> other, int most)
    {
        if (Math.Abs(one.Count - other.Count) > most)
            return false;
        if (most == 0)
            return one.SequenceEqual(other);
        // Rows of the table of distances, of which only the band that can still be within is worked out.
        var far = most + 1;
        int[] before = new int[other.Count + 1],
            last = new int[other.Count + 1],
            row = new int[other.Count + 1];
        Array.Fill(before, far);
        for (var n = 0; n <= other.Count; n++)
            last[n] = Math.Min(n, far);
        for (var m = 1; m <= one.Count; m++)
        {
            Array.Fill(row, far);
            if (m <= most)
                row[0] = m;
            for (var n = Math.Max(1, m - most); n <= Math.Min(other.Count, m + most); n++)
            {
                var least = Math.Min(Math.Min(last[n], row[n - 1]) + 1, last[n - 1] + (one[m - 1] == other[n - 1] ? 0 : 1));
                if (m > 1 && n > 1 && one[m - 1] == other[n - 2] && one[m - 2] == other[n - 1])
                    least = Math.Min(least, before[n - 2] + 1);
                row[n] = Math.Min(least, far);
            }
            (before, last, row) = (last, row, before);
        }
        return last[other.Count] <= most;
    }

    // By itself, whatever stands beside it.
    private static int Lower(int point)
    {
        var lower = Rune.ToLowerInvariant(new Rune(point)).Value;
        return lower == FinalSigma ? Sigma : lower;
    }

    private static bool IsMark(int point) => CharUnicodeInfo.GetUnicodeCategory(point) == UnicodeCategory.NonSpacingMark;
}
