using System.Globalization;
using System.Text;

namespace Polycline.Core.Enrolling;

/// <summary>
/// Titles as they are compared: NFKC (UAX 15), full case folding, NFKC again, and then without punctuation, separators and control
/// characters. The runtime has no such tables in invariant mode, so they are read from <c>unicode.txt</c>.
/// Source: the computation, chapter 11.
/// </summary>
public static class TitleFolding
{
    private const int HangulBase = 0xAC00;
    private const int LeadBase = 0x1100;
    private const int VowelBase = 0x1161;
    private const int TrailBase = 0x11A7;
    private const int Vowels = 21;
    private const int Trails = 28;
    private const int Syllables = 19 * Vowels * Trails;

    private static readonly Lazy<Tables> Unicode = new(Tables.Read);

    private sealed record Tables(
        Dictionary<int, int[]> Decomposed,
        Dictionary<(int, int), int> Composed,
        Dictionary<int, int> Classes,
        Dictionary<int, int[]> Folded
    )
    {
        public static Tables Read()
        {
            var tables = new Tables([], [], [], []);
            using var stream = typeof(TitleFolding).Assembly.GetManifestResourceStream("unicode.txt")!;
            using var reader = new StreamReader(stream, Encoding.ASCII);
            while (reader.ReadLine() is { } line)
                tables.Take(line.Split(' '));
            return tables;
        }

        private void Take(string[] parts)
        {
            switch (parts[0])
            {
                case "d":
                    Decomposed.Add(Hex(parts[1]), [.. parts[2..].Select(Hex)]);
                    break;
                case "c":
                    Composed.Add((Hex(parts[1]), Hex(parts[2])), Hex(parts[3]));
                    break;
                case "f":
                    Folded.Add(Hex(parts[1]), [.. parts[2..].Select(Hex)]);
                    break;
                case "o":
                    foreach (var range in parts[2..].Select(part => part.Split('-')))
                        for (var point = Hex(range[0]); point <= Hex(range[^1]); point++)
                            Classes.Add(point, int.Parse(parts[1], CultureInfo.InvariantCulture));
                    break;
            }
        }

        private static int Hex(string digits) => int.Parse(digits, NumberStyles.HexNumber, CultureInfo.InvariantCulture);
    }

    /// <summary>The key that a title is compared by; empty if nothing is left of it.</summary>
    public static string Key(string title)
    {
        var folded = Normalised(Normalised(title.EnumerateRunes().Select(rune => rune.Value)).SelectMany(Folded));
        return string.Concat(folded.Where(IsKept).Select(char.ConvertFromUtf32));
    }

    private static IEnumerable<int> Folded(int point) => Unicode.Value.Folded.TryGetValue(point, out var folded) ? folded : [point];

    // The general categories P, Z and C go; letters, marks, numbers and symbols stay.
    private static bool IsKept(int point) =>
        CharUnicodeInfo.GetUnicodeCategory(point)
            is not (
                UnicodeCategory.ConnectorPunctuation
                or UnicodeCategory.DashPunctuation
                or UnicodeCategory.OpenPunctuation
                or UnicodeCategory.ClosePunctuation
                or UnicodeCategory.InitialQuotePunctuation
                or UnicodeCategory.FinalQuotePunctuation
                or UnicodeCategory.OtherPunctuation
                or UnicodeCategory.SpaceSeparator
                or UnicodeCategory.LineSeparator
                or UnicodeCategory.ParagraphSeparator
                or UnicodeCategory.Control
                or UnicodeCategory.Format
                or UnicodeCategory.Surrogate
                or UnicodeCategory.PrivateUse
                or UnicodeCategory.OtherNotAssigned
            );

    private static List<int> Normalised(IEnumerable<int> points)
    {
        var text = points.SelectMany(Decomposed).ToList();
        // Marks that follow one another are put in the order of their classes; those of one class keep theirs.
        for (var start = 0; start < text.Count; )
        {
            var end = start;
            while (end < text.Count && ClassOf(text[end]) != 0)
                end++;
            if (end - start > 1)
            {
                var marks = text[start..end].OrderBy(ClassOf).ToList();
                for (var n = 0; n < marks.Count; n++)
                    text[start + n] = marks[n];
            }
            start = end + 1;
        }
        return Composed(text);
    }

    private static IEnumerable<int> Decomposed(int point)
    {
        if (point is >= HangulBase and < HangulBase + Syllables)
        {
            var place = point - HangulBase;
            int[] parts = [LeadBase + (place / (Vowels * Trails)), VowelBase + (place % (Vowels * Trails) / Trails)];
            return place % Trails == 0 ? parts : [.. parts, TrailBase + (place % Trails)];
        }
        return Unicode.Value.Decomposed.TryGetValue(point, out var step) ? step.SelectMany(Decomposed) : [point];
    }

    private static List<int> Composed(List<int> text)
    {
        var composed = new List<int>(text.Count);
        var (starter, last) = (-1, 0);
        foreach (var point in text)
        {
            var order = ClassOf(point);
            // Nothing of its class or a higher one may stand between it and its starter.
            var isBlocked = starter < composed.Count - 1 && (last == 0 || last >= order);
            if (starter >= 0 && !isBlocked && Together(composed[starter], point) is { } one)
            {
                composed[starter] = one;
                continue;
            }
            if (order == 0)
                starter = composed.Count;
            last = order;
            composed.Add(point);
        }
        return composed;
    }

    private static int? Together(int first, int second)
    {
        if (first is >= LeadBase and < LeadBase + 19 && second is >= VowelBase and < VowelBase + Vowels)
            return HangulBase + ((((first - LeadBase) * Vowels) + (second - VowelBase)) * Trails);
        if (
            first is >= HangulBase and < HangulBase + Syllables
            && (first - HangulBase) % Trails == 0
            && second is > TrailBase and < TrailBase + Trails
        )
            return first + (second - TrailBase);
        return Unicode.Value.Composed.TryGetValue((first, second), out var composed) ? composed : null;
    }

    private static int ClassOf(int point) => Unicode.Value.Classes.GetValueOrDefault(point);
}
