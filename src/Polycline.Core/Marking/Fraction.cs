using System.Globalization;
using System.Numerics;

namespace Polycline.Core.Marking;

/// <summary>An exact number, in lowest terms. Source: the computation, chapter 13, <i>Numbers</i>.</summary>
public readonly struct Fraction : IEquatable<Fraction>, IComparable<Fraction>
{
    public static readonly Fraction Zero = new(0, 1);
    public static readonly Fraction One = new(1, 1);

    private readonly BigInteger below;

    /// <param name="below">Not 0.</param>
    public Fraction(BigInteger above, BigInteger below)
    {
        var common = BigInteger.GreatestCommonDivisor(above, below) * below.Sign;
        Above = above / common;
        this.below = below / common;
    }

    public BigInteger Above { get; }

    /// <summary>From 1.</summary>
    public BigInteger Below => below.IsZero ? BigInteger.One : below;

    public int Sign => Above.Sign;

    public static implicit operator Fraction(int whole) => new(whole, 1);

    public static implicit operator Fraction(decimal number) => Of(number);

    /// <summary>The number that a decimal stands for, exactly.</summary>
    public static Fraction Of(decimal number)
    {
        Span<int> bits = stackalloc int[4];
        decimal.GetBits(number, bits);
        var digits = ((BigInteger)(uint)bits[2] << 64) | ((BigInteger)(uint)bits[1] << 32) | (uint)bits[0];
        var decimals = (bits[3] >> 16) & 0xFF;
        return new(bits[3] < 0 ? -digits : digits, BigInteger.Pow(10, decimals));
    }

    public static Fraction operator +(Fraction one, Fraction other) =>
        new((one.Above * other.Below) + (other.Above * one.Below), one.Below * other.Below);

    public static Fraction operator -(Fraction one, Fraction other) => one + -other;

    public static Fraction operator -(Fraction one) => new(-one.Above, one.Below);

    public static Fraction operator *(Fraction one, Fraction other) => new(one.Above * other.Above, one.Below * other.Below);

    /// <exception cref="DivideByZeroException"><paramref name="other"/> is 0.</exception>
    public static Fraction operator /(Fraction one, Fraction other) =>
        other.Above.IsZero ? throw new DivideByZeroException() : new(one.Above * other.Below, one.Below * other.Above);

    public static bool operator ==(Fraction one, Fraction other) => one.Equals(other);

    public static bool operator !=(Fraction one, Fraction other) => !one.Equals(other);

    public static bool operator <(Fraction one, Fraction other) => one.CompareTo(other) < 0;

    public static bool operator >(Fraction one, Fraction other) => one.CompareTo(other) > 0;

    public static bool operator <=(Fraction one, Fraction other) => one.CompareTo(other) <= 0;

    public static bool operator >=(Fraction one, Fraction other) => one.CompareTo(other) >= 0;

    public static Fraction Max(Fraction one, Fraction other) => one < other ? other : one;

    public static Fraction Sum(IEnumerable<Fraction> numbers) => numbers.Aggregate(Zero, (sum, number) => sum + number);

    public Fraction Abs() => new(BigInteger.Abs(Above), Below);

    public bool Equals(Fraction other) => Above == other.Above && Below == other.Below;

    public override bool Equals(object? obj) => obj is Fraction other && Equals(other);

    public override int GetHashCode() => HashCode.Combine(Above, Below);

    public int CompareTo(Fraction other) => (Above * other.Below).CompareTo(other.Above * Below);

    /// <summary>The number cut down, not rounded, to so many decimals.</summary>
    public decimal Cut(int decimals) => (decimal)Floor(this * Power(decimals)) / (decimal)Power(decimals).Above;

    /// <summary>The least whole number that is not below it.</summary>
    public BigInteger Ceiling() => -Floor(-this);

    /// <summary>For reading only, rounded half up.</summary>
    public decimal Rounded(int decimals) => (decimal)Floor((this * Power(decimals)) + new Fraction(1, 2)) / (decimal)Power(decimals).Above;

    /// <summary>A share as it is shown: percent with one decimal, such as <c>66.7</c>.</summary>
    public string PercentShown() => (this * 100).Rounded(1).ToString("0.0", CultureInfo.InvariantCulture);

    /// <summary>Points as they are shown: with at most two decimals, such as <c>16.15</c>.</summary>
    public string PointsShown() => Rounded(2).ToString("0.##", CultureInfo.InvariantCulture);

    /// <summary>In lowest terms: <c>5</c>, <c>7/3</c>, <c>-1/2</c>.</summary>
    public override string ToString() =>
        Below.IsOne
            ? Above.ToString(CultureInfo.InvariantCulture)
            : $"{Above.ToString(CultureInfo.InvariantCulture)}/{Below.ToString(CultureInfo.InvariantCulture)}";

    private static Fraction Power(int decimals) => new(BigInteger.Pow(10, decimals), 1);

    private static BigInteger Floor(Fraction number)
    {
        var whole = BigInteger.DivRem(number.Above, number.Below, out var rest);
        return rest.Sign < 0 ? whole - 1 : whole;
    }
}
