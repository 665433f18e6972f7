namespace Polycline.Core.Merging;

/// <summary>Two people change the same text at once: what both did is put together word by word.</summary>
public static class WordMerge
{
    /// <summary>A stretch of the base that one side replaced by words of its own.</summary>
    private readonly record struct Replaced(int From, int To, int OwnFrom, int OwnTo);

    /// <summary>
    /// Both texts in one: every change that either made to the base stands in it. Null: they changed the same words differently, or added
    /// different words at the same place.
    /// </summary>
    /// <param name="before">
    /// Each text has up to 60,000 words and signs; the time it takes grows with the square of what was changed.
    /// </param>
    public static string? Of(string before, string mine, string theirs)
    {
        if (mine == theirs || theirs == before)
            return mine;
        if (mine == before)
            return theirs;
        var (words, own, others) = (WordsOf(before), WordsOf(mine), WordsOf(theirs));
        var (myChanges, theirChanges) = (Changes(words, own), Changes(words, others));
        var (merged, at, i, j) = (new List<string>(), 0, 0, 0);
        while (i < myChanges.Count || j < theirChanges.Count)
        {
            var isMine = j == theirChanges.Count || (i < myChanges.Count && Precedes(myChanges[i], theirChanges[j]));
            var (change, side) = isMine ? (myChanges[i], own) : (theirChanges[j], others);
            if (i < myChanges.Count && j < theirChanges.Count && Meet(myChanges[i], theirChanges[j]))
            {
                // The same change on both sides is one change.
                if (!Same(myChanges[i], own, theirChanges[j], others))
                    return null;
                j++;
                (isMine, change, side) = (true, myChanges[i], own);
            }
            merged.AddRange(words[at..change.From]);
            merged.AddRange(side[change.OwnFrom..change.OwnTo]);
            at = change.To;
            if (isMine)
                i++;
            else
                j++;
        }
        merged.AddRange(words[at..]);
        return string.Concat(merged);
    }

    private static bool Precedes(Replaced one, Replaced other) => (one.From, one.To).CompareTo((other.From, other.To)) <= 0;

    // Stretches that touch meet too: which of two neighbouring words comes first, nobody can tell.
    private static bool Meet(Replaced one, Replaced other) => one.From <= other.To && other.From <= one.To;

    private static bool Same(Replaced one, string[] own, Replaced other, string[] others) =>
        (one.From, one.To) == (other.From, other.To)
        && own.AsSpan(one.OwnFrom, one.OwnTo - one.OwnFrom).SequenceEqual(others.AsSpan(other.OwnFrom, other.OwnTo - other.OwnFrom));

    /// <summary>Words, and what stands between them.</summary>
    private static string[] WordsOf(string text)
    {
        var words = new List<string>();
        for (var start = 0; start < text.Length; )
        {
            var end = start + 1;
            if (char.IsLetterOrDigit(text[start]))
                while (end < text.Length && char.IsLetterOrDigit(text[end]))
                    end++;
            words.Add(text[start..end]);
            start = end;
        }
        return [.. words];
    }

    // What a longest common subsequence leaves, as stretches.
    private static List<Replaced> Changes(string[] before, string[] after)
    {
        var (first, last) = (0, 0);
        while (first < before.Length && first < after.Length && before[first] == after[first])
            first++;
        while (last < before.Length - first && last < after.Length - first && before[^(last + 1)] == after[^(last + 1)])
            last++;
        var (height, width) = (before.Length - first - last, after.Length - first - last);
        var longest = new ushort[height + 1, width + 1];
        for (var i = height - 1; i >= 0; i--)
        for (var j = width - 1; j >= 0; j--)
            longest[i, j] =
                before[first + i] == after[first + j]
                    ? (ushort)(longest[i + 1, j + 1] + 1)
                    : Math.Max(longest[i + 1, j], longest[i, j + 1]);
        var changes = new List<Replaced>();
        for (var (i, j) = (0, 0); i < height || j < width; )
        {
            var (from, ownFrom) = (i, j);
            while ((i < height || j < width) && !(i < height && j < width && before[first + i] == after[first + j]))
                if (j == width || (i < height && longest[i + 1, j] >= longest[i, j + 1]))
                    i++;
                else
                    j++;
            if (i > from || j > ownFrom)
                changes.Add(new(first + from, first + i, first + ownFrom, first + j));
            while (i < height && j < width && before[first + i] == after[first + j])
                (i, j) = (i + 1, j + 1);
        }
        return changes;
    }
}
