namespace Bocca.Core.Instruments;

/// <summary>
/// The harmonic series: partial n sounds at n times the frequency of partial 1 (computed). Real tubes add offsets
/// of their own, and partial 1 of a brass instrument is no plain resonance (published: Benade 1976;
/// Campbell, Gilbert and Myers 2021).
/// </summary>
public static class HarmonicSeries
{
    /// <summary>The highest partial that Bocca reckons with.</summary>
    public const int Highest = 16;

    /// <summary>A partial further than this from a note does not give it (cents; ours: lips bend a note so far and no further).</summary>
    public const double WithinCents = 80;

    private static readonly HashSet<int> Avoided = [7, 11, 13, 14];

    /// <summary>Whether charts avoid a partial: far from any note, or flat by nature (common practice).</summary>
    public static bool IsAvoided(int partial) => Avoided.Contains(partial);

    private static readonly double[] Exact = [.. Enumerable.Range(1, Highest + 1).Select(partial => 12 * Math.Log2(partial))];
    private static readonly int[] Rounded = [.. Exact.Select(semitones => (int)Math.Round(semitones))];

    /// <summary>Semitones of a partial above partial 1, rounded to the nearest note of equal temperament.</summary>
    public static int Semitones(int partial) =>
        partial >= 1 && partial <= Rounded.Length ? Rounded[partial - 1] : (int)Math.Round(ExactSemitones(partial));

    /// <summary>Cents by which a partial lies above the nearest note of equal temperament: -13.7 for the fifth.</summary>
    public static double CentsFromEqualTemperament(int partial) => 100 * (ExactSemitones(partial) - Semitones(partial));

    /// <summary>Semitones of a partial above partial 1, with their fraction: 12 log2 n.</summary>
    public static double ExactSemitones(int partial)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(partial, 1);
        return partial <= Exact.Length ? Exact[partial - 1] : 12 * Math.Log2(partial);
    }
}
