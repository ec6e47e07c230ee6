using System.Globalization;
using System.Numerics;

namespace Bocca.Core.Score;

/// <summary>A length or a moment in quarters, exact: triplets and dots come out even.</summary>
public readonly struct Rational : IEquatable<Rational>, IComparable<Rational>
{
    // A default value is 0/1.
    private readonly long _over;

    /// <param name="numerator">Above the line.</param>
    /// <param name="denominator">Below it; not 0.</param>
    /// <exception cref="ArgumentOutOfRangeException">The denominator is 0.</exception>
    public Rational(long numerator, long denominator = 1)
    {
        ArgumentOutOfRangeException.ThrowIfZero(denominator);
        var divisor = (long)BigInteger.GreatestCommonDivisor(numerator, denominator) * Math.Sign(denominator);
        (Numerator, _over) = (numerator / divisor, (denominator / divisor) - 1);
    }

    /// <summary>Nothing.</summary>
    public static Rational Zero => default;

    /// <summary>One quarter.</summary>
    public static Rational One => new(1);

    /// <summary>Above the line, in lowest terms.</summary>
    public long Numerator { get; }

    /// <summary>Below the line, in lowest terms, above 0.</summary>
    public long Denominator => _over + 1;

    /// <summary>The same as a number.</summary>
    public double Value => (double)Numerator / Denominator;

    /// <summary>Whether it is a whole number.</summary>
    public bool IsWhole => Denominator == 1;

    /// <summary>The whole number below or at it.</summary>
    public long Floor => Numerator >= 0 || IsWhole ? Numerator / Denominator : (Numerator / Denominator) - 1;

    /// <inheritdoc />
    public static implicit operator Rational(int whole) => new(whole);

    /// <inheritdoc />
    public static Rational operator +(Rational one, Rational other) =>
        new(
            checked((one.Numerator * other.Denominator) + (other.Numerator * one.Denominator)),
            checked(one.Denominator * other.Denominator)
        );

    /// <inheritdoc />
    public static Rational operator -(Rational one, Rational other) => one + new Rational(-other.Numerator, other.Denominator);

    /// <inheritdoc />
    public static Rational operator *(Rational one, Rational other) =>
        new(checked(one.Numerator * other.Numerator), checked(one.Denominator * other.Denominator));

    /// <inheritdoc />
    public static Rational operator /(Rational one, Rational other) =>
        new(checked(one.Numerator * other.Denominator), checked(one.Denominator * other.Numerator));

    /// <inheritdoc />
    public static bool operator ==(Rational one, Rational other) => one.Equals(other);

    /// <inheritdoc />
    public static bool operator !=(Rational one, Rational other) => !one.Equals(other);

    /// <inheritdoc />
    public static bool operator <(Rational one, Rational other) => one.CompareTo(other) < 0;

    /// <inheritdoc />
    public static bool operator >(Rational one, Rational other) => one.CompareTo(other) > 0;

    /// <inheritdoc />
    public static bool operator <=(Rational one, Rational other) => one.CompareTo(other) <= 0;

    /// <inheritdoc />
    public static bool operator >=(Rational one, Rational other) => one.CompareTo(other) >= 0;

    /// <inheritdoc />
    public bool Equals(Rational other) => Numerator == other.Numerator && _over == other._over;

    /// <inheritdoc />
    public override bool Equals(object? obj) => obj is Rational other && Equals(other);

    /// <inheritdoc />
    public override int GetHashCode() => HashCode.Combine(Numerator, _over);

    /// <inheritdoc />
    public int CompareTo(Rational other) => ((Int128)Numerator * other.Denominator).CompareTo((Int128)other.Numerator * Denominator);

    /// <summary>The same as text, such as <c>3/2</c> or <c>2</c>.</summary>
    public override string ToString() =>
        IsWhole
            ? Numerator.ToString(CultureInfo.InvariantCulture)
            : string.Create(CultureInfo.InvariantCulture, $"{Numerator}/{Denominator}");
}
