using System.Diagnostics.CodeAnalysis;
using System.Globalization;

namespace Polycline.Core;

/// <summary>
/// The id of one <typeparamref name="T"/>. Ids of different things do not mix: an <c>Id&lt;Item&gt;</c> is no
/// <c>Id&lt;Lesson&gt;</c>, whatever their numbers.
/// </summary>
/// <param name="Value">The number in the database, from 1.</param>
public readonly record struct Id<T>(long Value) : IComparable<Id<T>>, IParsable<Id<T>>
{
    public int CompareTo(Id<T> other) => Value.CompareTo(other.Value);

    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);

    /// <summary>Reads an id as it stands in an address.</summary>
    /// <exception cref="FormatException">The text is no whole number from 1.</exception>
    public static Id<T> Parse(string s, IFormatProvider? provider) =>
        TryParse(s, provider, out var id) ? id : throw new FormatException($"'{s}' is not an id: use a whole number from 1.");

    public static bool TryParse([NotNullWhen(true)] string? s, IFormatProvider? provider, out Id<T> result)
    {
        var good = long.TryParse(s, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number > 0;
        result = good ? new(number) : default;
        return good;
    }

    public static bool operator <(Id<T> left, Id<T> right) => left.CompareTo(right) < 0;

    public static bool operator >(Id<T> left, Id<T> right) => left.CompareTo(right) > 0;

    public static bool operator <=(Id<T> left, Id<T> right) => left.CompareTo(right) <= 0;

    public static bool operator >=(Id<T> left, Id<T> right) => left.CompareTo(right) >= 0;
}
