using System.Collections.Immutable;
using System.Globalization;

namespace Polycline.Core.Courses;

/// <summary>The codes that everyone in every section shares. Source: the computation, chapter 7.</summary>
public static class Codes
{
    private const string Letters = "abcdefghijklmnopqrstuvwxyz";

    /// <summary>
    /// The code of every item of <paramref name="edition"/>. All items count, unpublished ones too. A code given to an
    /// item is used as it is; the others are numbered on among themselves, leaving out a number whose code is given.
    /// </summary>
    public static ImmutableDictionary<Ref<Item>, string> Of(Edition edition) => Of(edition, []);

    /// <param name="givenElsewhere">Codes given to items of sections, which are left out too.</param>
    public static ImmutableDictionary<Ref<Item>, string> Of(Edition edition, IEnumerable<string> givenElsewhere)
    {
        var given = GivenCodes(edition.InReadingOrder(), givenElsewhere);
        var codes = ImmutableDictionary.CreateBuilder<Ref<Item>, string>();
        if (edition.Codes == CodeStyle.Straight)
            Number([.. edition.InReadingOrder()], "#", 3, given, codes);
        else
            for (var unit = 0; unit < edition.Units.Length; unit++)
                Number([.. edition.Units[unit].InReadingOrder()], $"{unit + 1}.", 2, given, codes);
        return codes.ToImmutable();
    }

    /// <summary>The codes of the items that one section added, in the order added: <c>+1</c>, <c>+2</c> …</summary>
    /// <param name="givenElsewhere">Codes given to any other item.</param>
    public static ImmutableDictionary<Ref<Item>, string> OfAdded(IReadOnlyList<Item> items, IEnumerable<string> givenElsewhere)
    {
        var codes = ImmutableDictionary.CreateBuilder<Ref<Item>, string>();
        Number(items, "+", 1, GivenCodes(items, givenElsewhere), codes, fixedWidth: true);
        return codes.ToImmutable();
    }

    /// <summary>
    /// The code of an item that comes when all others have theirs for good: the next number where nothing comes after it,
    /// else the code before it with a letter.
    /// </summary>
    /// <param name="prefix"><c>3.</c> of a unit, <c>#</c> where numbered straight through, <c>+</c> of one section only.</param>
    /// <param name="before">The code of what stands directly before it, in its unit or in all; null: nothing does.</param>
    /// <param name="isLast">Nothing there comes after it.</param>
    /// <param name="taken">Codes given to anything.</param>
    public static string OfLater(string prefix, string? before, bool isLast, IReadOnlySet<string> taken)
    {
        var digits = prefix switch
        {
            "#" => 3,
            "+" => 1,
            _ => 2,
        };
        if (isLast)
        {
            var highest = taken
                .Where(code => code.StartsWith(prefix, StringComparison.Ordinal))
                .Max(code =>
                    int.TryParse(
                        code.AsSpan(prefix.Length).TrimEnd(Letters),
                        NumberStyles.None,
                        CultureInfo.InvariantCulture,
                        out var number
                    )
                        ? number
                        : (int?)null
                )
                ?? 0;
            return prefix + (highest + 1).ToString(CultureInfo.InvariantCulture).PadLeft(digits, '0');
        }
        var stem = before?.TrimEnd(Letters.ToCharArray()) ?? prefix + new string('0', digits);
        for (var n = 1; ; n++)
            if (stem + Letter(n) is var code && !taken.Contains(code))
                return code;

        // a … z, aa, ab …
        static string Letter(int n) => n <= 0 ? "" : Letter((n - 1) / 26) + Letters[(n - 1) % 26];
    }

    private static HashSet<string> GivenCodes(IEnumerable<Item> items, IEnumerable<string> elsewhere) =>
        items.Select(item => item.Code).OfType<string>().Concat(elsewhere).ToHashSet(StringComparer.Ordinal);

    private static void Number(
        IReadOnlyList<Item> items,
        string before,
        int digits,
        HashSet<string> given,
        ImmutableDictionary<Ref<Item>, string>.Builder codes,
        bool fixedWidth = false
    )
    {
        var width = fixedWidth ? digits : Math.Max(digits, items.Count.ToString(CultureInfo.InvariantCulture).Length);
        var next = 1;
        foreach (var item in items)
        {
            if (item.Code is null)
                while (given.Contains(Written(next)))
                    next++;
            codes.Add(item.Ref, item.Code ?? Written(next++));
        }

        string Written(int number) => before + number.ToString(CultureInfo.InvariantCulture).PadLeft(width, '0');
    }
}
