using System.Globalization;

namespace Bocca.Core.Score;

/// <summary>A metre, such as 4/4 or 6/8.</summary>
/// <param name="Above">How many of its note values a bar has.</param>
/// <param name="Below">Which note value: 1, 2, 4, 8, 16 or 32; cards are written in 2 to 16.</param>
public readonly record struct Metre(int Above, int Below)
{
    /// <summary>Four quarters.</summary>
    public static Metre Common { get; } = new(4, 4);

    /// <summary>The metres that cards are written in, in the order in which they are taught (common practice).</summary>
    public static IReadOnlyList<Metre> Taught { get; } = [new(4, 4), new(2, 4), new(3, 4), new(6, 8), new(2, 2)];

    /// <summary>The length of a bar, in quarters.</summary>
    public Rational Bar => new(4 * Above, Below);

    /// <summary>Whether its beats are three of its note values: 6/8, 9/8, 12/8.</summary>
    public bool IsCompound => Below >= 8 && Above % 3 == 0 && Above > 3;

    /// <summary>The length of a beat, in quarters: in 6/8 a dotted quarter.</summary>
    public Rational Beat => IsCompound ? new Rational(12, Below) : new Rational(4, Below);

    /// <summary>What a beat is called, as a fraction's name with its dot: <c>quarter</c>, <c>dotted quarter</c>, <c>half</c>.</summary>
    public string BeatUnit =>
        (IsCompound ? "dotted " : "")
        + (
            (IsCompound ? Below / 2 : Below) switch
            {
                2 => "half",
                4 => "quarter",
                8 => "eighth",
                _ => "sixteenth",
            }
        );

    /// <summary>How many beats a bar has.</summary>
    public int Beats => IsCompound ? Above / 3 : Above;

    /// <summary>What half of a beat, or a third of a compound one, is: the finest line of the grid that is counted aloud.</summary>
    public Rational Part => Beat / (IsCompound ? 3 : 2);

    /// <summary>Reads a metre.</summary>
    /// <exception cref="ArgumentException">It is none; the message says so.</exception>
    public static Metre Parse(string text) =>
        text.Split('/') is [var above, var below]
        && int.TryParse(above, NumberStyles.None, CultureInfo.InvariantCulture, out var count)
        && int.TryParse(below, NumberStyles.None, CultureInfo.InvariantCulture, out var value)
        && count is >= 1 and <= 16
        && value is 2 or 4 or 8 or 16
            ? new Metre(count, value)
            : throw new ArgumentException($"'{text}' is no metre such as 4/4 or 6/8.");

    /// <summary>As it is written.</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Above}/{Below}");
}
