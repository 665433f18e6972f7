using System.Collections.Immutable;
using System.Globalization;

namespace Polycline.Core.Courses;

/// <summary>The codes that everyone in every section shares. Source: the computation, chapter 7.</summary>
public static class Codes
{
    /// <summary>
    /// The code of every item of <paramref name="edition"/>. All items count, unpublished ones too. A code given to an
    /// item is used as it is; the others are numbered on among themselves, leaving out a number whose code is given.
    /// </summary>
    public static ImmutableDictionary<Id<Item>, string> Of(Edition edition)
    {
        var given = edition.InReadingOrder().Select(item => item.Code).OfType<string>().ToHashSet(StringComparer.Ordinal);
        var codes = ImmutableDictionary.CreateBuilder<Id<Item>, string>();
        if (edition.Codes == CodeStyle.Straight)
            Number([.. edition.InReadingOrder()], "#", 3);
        else
            for (var unit = 0; unit < edition.Units.Length; unit++)
                Number([.. edition.Units[unit].InReadingOrder()], $"{unit + 1}.", 2);
        return codes.ToImmutable();

        void Number(IReadOnlyList<Item> items, string before, int digits)
        {
            var width = Math.Max(digits, items.Count.ToString(CultureInfo.InvariantCulture).Length);
            var next = 1;
            foreach (var item in items)
            {
                if (item.Code is null)
                    while (given.Contains(Written(next)))
                        next++;
                codes.Add(item.Id, item.Code ?? Written(next++));
            }

            string Written(int number) => before + number.ToString(CultureInfo.InvariantCulture).PadLeft(width, '0');
        }
    }
}
