namespace Polycline.Core;

/// <summary>
/// What a <typeparamref name="T"/> is called where a plan names it: its id in a plan file, its lineage in a course that
/// is kept here. Carrying a course to its next edition keeps every name, so gates and anchors need no rewriting.
/// </summary>
/// <param name="Name">1 to 64 of ASCII letters, digits, <c>-</c>, <c>_</c> and <c>.</c></param>
public readonly record struct Ref<T>(string Name) : IComparable<Ref<T>>
{
    public int CompareTo(Ref<T> other) => string.CompareOrdinal(Name, other.Name);

    public override string ToString() => Name;

    public static bool operator <(Ref<T> left, Ref<T> right) => left.CompareTo(right) < 0;

    public static bool operator >(Ref<T> left, Ref<T> right) => left.CompareTo(right) > 0;

    public static bool operator <=(Ref<T> left, Ref<T> right) => left.CompareTo(right) <= 0;

    public static bool operator >=(Ref<T> left, Ref<T> right) => left.CompareTo(right) >= 0;
}
