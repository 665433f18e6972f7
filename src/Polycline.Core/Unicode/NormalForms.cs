using System.Globalization;
using System.Text;

namespace Polycline.Core.Unicode;

/// <summary>
/// The normal forms of Unicode (UAX 15) and full case folding, on code points. The runtime has no such tables in invariant mode, so
/// they are read from <c>unicode.txt</c>.
/// </summary>
public static class NormalForms
{
    private const int HangulBase = 0xAC00;
    private const int LeadBase = 0x1100;
    private const int VowelBase = 0x1161;
    private const int TrailBase = 0x11A7;
    private const int Vowels = 21;
    private const int Trails = 28;
    private const int Syllables = 19 * Vowels * Trails;

    private static readonly Lazy<Tables> Known = new(Tables.Read);

    private sealed record Tables(
        Dictionary<int, int[]> Canonical,
        Dictionary<int, int[]> Compatible,
        Dictionary<(int, int), int> Composed,
        Dictionary<int, int> Classes,
        Dictionary<int, int[]> Folded
    )
    {
        public static Tables Read()
        {
            var tables = new Tables([], [], [], [], []);
            using var stream = typeof(NormalForms).Assembly.GetManifestResourceStream("unicode.txt")!;
            using var reader = new StreamReader(stream, Encoding.ASCII);
            while (reader.ReadLine() is { } line)
                tables.Take(line.Split(' '));
            return tables;
        }

        private void Take(string[] parts)
        {
            switch (parts[0])
            {
                case "n":
                    Canonical.Add(Hex(parts[1]), [.. parts[2..].Select(Hex)]);
                    break;
                case "d":
                    Compatible.Add(Hex(parts[1]), [.. parts[2..].Select(Hex)]);
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

    /// <summary>Canonically decomposed.</summary>
    public static List<int> Nfd(IEnumerable<int> points) => InOrder([.. points.SelectMany(point => Decomposed(point, false))]);

    /// <summary>Canonically decomposed, then composed.</summary>
    public static List<int> Nfc(IEnumerable<int> points) => Composed(Nfd(points));

    /// <summary>Decomposed with what looks like it in mind (<c>ﬁ</c> becomes <c>fi</c>), then composed.</summary>
    public static List<int> Nfkc(IEnumerable<int> points) => Composed(InOrder([.. points.SelectMany(point => Decomposed(point, true))]));

    /// <summary>A code point without regard to case: full case folding.</summary>
    public static IEnumerable<int> CaseFolded(int point) => Known.Value.Folded.TryGetValue(point, out var folded) ? folded : [point];

    public static IEnumerable<int> PointsOf(string text) => text.EnumerateRunes().Select(rune => rune.Value);

    public static string TextOf(IEnumerable<int> points)
    {
        var text = new StringBuilder();
        foreach (var point in points)
            text.Append(new Rune(point).ToString());
        return text.ToString();
    }

    // Marks that follow one another are put in the order of their classes; those of one class keep theirs.
    private static List<int> InOrder(List<int> text)
    {
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
        return text;
    }

    private static IEnumerable<int> Decomposed(int point, bool isCompatible)
    {
        if (point is >= HangulBase and < HangulBase + Syllables)
        {
            var place = point - HangulBase;
            int[] parts = [LeadBase + (place / (Vowels * Trails)), VowelBase + (place % (Vowels * Trails) / Trails)];
            return place % Trails == 0 ? parts : [.. parts, TrailBase + (place % Trails)];
        }
        return
            Known.Value.Canonical.TryGetValue(point, out var step) || (isCompatible && Known.Value.Compatible.TryGetValue(point, out step))
            ? step.SelectMany(part => Decomposed(part, isCompatible))
            : [point];
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
        return Known.Value.Composed.TryGetValue((first, second), out var composed) ? composed : null;
    }

    private static int ClassOf(int point) => Known.Value.Classes.GetValueOrDefault(point);
}
