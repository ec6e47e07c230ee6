using System.Numerics.Tensors;

namespace Bocca.Core.Sound;

/// <summary>A spoken syllable.</summary>
/// <param name="Seconds">When its vowel begins: there it is heard to lie.</param>
/// <param name="LevelDb">How loud its vowel is against the loudest, decibels.</param>
public readonly record struct Syllable(double Seconds, double LevelDb);

/// <summary>
/// Finds spoken syllables by their vowels. A spoken beat is heard near the beginning of its vowel, not where its consonant begins
/// (published: Morton, Marcus and Frankish 1976, doi:10.1037/0033-295X.83.5.405): so the levels between 700 and 3500 Hz are followed,
/// where vowels are loud and nasals, hissing and voiced glides are not. A running median takes out what is over sooner than a vowel, such
/// as a clap.
/// </summary>
public static class SyllableFinder
{
    /// <summary>A vowel is told within so many milliseconds 19 times in 20 (measured; the table of counts).</summary>
    public const double OffMs = 35;

    /// <summary>The bands in which vowels are told from what they follow, hertz: above what nasals and voiced glides are loud in.</summary>
    private static readonly IReadOnlyList<(double From, double To)> Vowels = BandLevels.Between(700, 1000, 1500, 2000, 2500, 3500);

    /// <summary>Those of vowels, and at last where hissing is loud and a high voice's vowel is not, hertz.</summary>
    public static IReadOnlyList<(double From, double To)> Bands { get; } = [.. Vowels, (6000, 9000)];

    /// <summary>A vowel is louder by so much than hissing, decibels.</summary>
    private const double OverHiss = 3;

    /// <summary>What is shorter than half of this is taken out, seconds.</summary>
    private const double MedianSeconds = 0.05;

    /// <summary>A rise is looked at over so many seconds either way, and is at least so many decibels.</summary>
    private const double RiseSeconds = 0.025,
        LeastRise = 6;

    /// <summary>Nothing further below the loudest vowel is one, decibels; the loudest is what this share of windows exceeds.</summary>
    private const double Depth = 15,
        LoudestShare = 0.03;

    /// <summary>A vowel has reached its own level by so many seconds after the rise; until then its bands are looked at.</summary>
    private const double VowelFrom = 0.03,
        VowelTo = 0.1;

    /// <summary>Bands this far below the loudest of a vowel say nothing of it, decibels.</summary>
    private const double Faint = 15;

    /// <summary>A band has begun this far of its way up, and a vowel when bands of this share of their worth have.</summary>
    private const double Way = 0.27,
        MostShare = 0.75;

    /// <summary>Syllables are no nearer to each other, seconds.</summary>
    private const double Apart = 0.09;

    /// <summary>Finds the syllables of a sound, in order.</summary>
    public static IReadOnlyList<Syllable> Find(MonoSound sound) => Find(new BandLevels(sound, Bands));

    /// <summary>The same where the levels in <see cref="Bands"/> are known.</summary>
    public static IReadOnlyList<Syllable> Find(BandLevels measured)
    {
        if (measured.Count == 0)
            return [];
        var (levels, hiss) = (measured.Only(..^1), measured.Only(^1..));
        var half = Math.Max(1, (int)Math.Round(0.5 * MedianSeconds / levels.HopSeconds));
        double[][] bands = [.. levels.Db.Select(band => Median(band, half))];
        var all = (double[])bands[0].Clone();
        foreach (var band in bands.Skip(1))
            TensorPrimitives.Max(all, band, all);
        var loudest = Loudest(all);
        foreach (var band in bands.Append(all))
            for (var at = 0; at < band.Length; at++)
                band[at] = Math.Max(band[at] - loudest, -Depth - LeastRise);
        var rises = Rises(all, levels);
        var syllables = new List<Syllable>();
        foreach (var (i, rise) in rises.Index())
        {
            var told = Told(bands, rise, i + 1 < rises.Count ? rises[i + 1] : all.Length, levels);
            // An r and its vowel rise one after the other and are one syllable.
            if (IsVowel(levels, hiss, told.Seconds) && !(syllables is [.., var last] && told.Seconds - last.Seconds < Apart))
                syllables.Add(told);
        }

        return syllables;
    }

    private static List<int> Rises(double[] level, BandLevels levels)
    {
        var reach = Math.Max(1, (int)Math.Round(RiseSeconds / levels.HopSeconds));
        var apart = Math.Max(1, (int)Math.Round(Apart / levels.HopSeconds));
        double Rise(int at) => level[Math.Min(at + reach, level.Length - 1)] - level[Math.Max(0, at - reach)];
        var rises = new List<int>();
        for (var at = 0; at < level.Length; at++)
        {
            if (Rise(at) < LeastRise || level[Math.Min(at + reach, level.Length - 1)] < -Depth)
                continue;
            var best = at;
            for (var near = at; near < Math.Min(level.Length, at + apart); near++)
                if (Rise(near) > Rise(best))
                    best = near;
            if (rises is [.., var last] && best - last < apart)
                continue;
            rises.Add(best);
            at = best + reach;
        }

        return rises;
    }

    /// <summary>When the vowel after a rise begins: the mean of when its bands are half of the way up, each by what it weighs.</summary>
    private static Syllable Told(double[][] bands, int rise, int next, BandLevels levels)
    {
        int Frames(double seconds) => Math.Max(1, (int)Math.Round(seconds / levels.HopSeconds));
        var length = bands[0].Length;
        var from = Math.Max(0, rise - Frames(RiseSeconds));
        var (first, last) = (Math.Min(rise + Frames(VowelFrom), length - 1), Math.Min(Math.Min(rise + Frames(VowelTo), next), length - 1));
        double[] own = [.. bands.Select(band => Enumerable.Range(first, Math.Max(1, last - first)).Max(at => band[at]))];
        var loudest = own.Max();
        var begun = new List<(double Seconds, double Worth)>();
        for (var band = 0; band < bands.Length; band++)
        {
            var rises = own[band] - bands[band][from];
            if (own[band] < loudest - Faint || rises < LeastRise)
                continue;
            var there = bands[band][from] + (Way * rises);
            var at = from;
            while (at < last && bands[band][at] < there)
                at++;
            begun.Add((levels.TimeOf(at), own[band] - (loudest - Faint)));
        }

        return new Syllable(Most(begun) ?? levels.TimeOf(rise), loudest);
    }

    /// <summary>When most of them have begun, each by its worth.</summary>
    private static double? Most(List<(double Seconds, double Worth)> begun)
    {
        var enough = MostShare * begun.Sum(band => band.Worth);
        foreach (var (seconds, worth) in begun.OrderBy(band => band.Seconds))
            if ((enough -= worth) <= 0)
                return seconds;
        return null;
    }

    private static double Loudest(double[] level)
    {
        var sorted = level.Order().ToList();
        return sorted[(int)((1 - LoudestShare) * (sorted.Count - 1))];
    }

    private static bool IsVowel(BandLevels levels, BandLevels hiss, double from)
    {
        var (first, last) = (levels.FrameAt(from), levels.FrameAt(from + VowelTo));
        double over = 0;
        for (var at = first; at <= last; at++)
            over += levels.Db.Max(band => band[at]) - hiss.Db[0][at];
        return over / (last - first + 1) >= OverHiss;
    }

    /// <summary>The running median over so many windows either way.</summary>
    private static double[] Median(double[] of, int half)
    {
        var medians = new double[of.Length];
        var sorted = new List<double>((2 * half) + 2);
        for (var at = -half; at < of.Length; at++)
        {
            if (at + half < of.Length)
                Insert(sorted, of[at + half]);
            if (at - half - 1 >= 0)
                sorted.RemoveAt(sorted.BinarySearch(of[at - half - 1]));
            if (at >= 0)
                medians[at] = sorted[sorted.Count / 2];
        }

        return medians;
    }

    private static void Insert(List<double> sorted, double value)
    {
        var at = sorted.BinarySearch(value);
        sorted.Insert(at < 0 ? ~at : at, value);
    }
}
