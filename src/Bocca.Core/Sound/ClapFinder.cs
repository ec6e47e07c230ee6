using System.Numerics.Tensors;

namespace Bocca.Core.Sound;

/// <summary>A clap.</summary>
/// <param name="Seconds">When it begins.</param>
/// <param name="LevelDb">Its level against the loudest of the take, decibels.</param>
public readonly record struct Clap(double Seconds, double LevelDb);

/// <summary>
/// Finds claps, also where somebody speaks over them: noise over a wide band that is there at once and falls again at once. The burst of a
/// <c>t</c> is as sudden and does not fall so soon; a vowel's pulses do not rise above the pulse before them; a consonant's noise swells.
/// Weights fitted by logistic regression on claps shaped by sox among words of espeak-ng, at half of the voices and rooms, tried on the
/// other half (ours; METHODS has the tables).
/// </summary>
public static class ClapFinder
{
    /// <summary>The bands in which a clap is looked for, hertz; the lowest is where vowels are loudest.</summary>
    public static IReadOnlyList<(double From, double To)> Bands { get; } = BandLevels.Between(300, 1000, 2500, 5000, 9000, 15_000);

    /// <summary>Nothing further below the loudest is looked at, decibels; the loudest is what this share of windows exceeds.</summary>
    private const double Depth = 42,
        LoudestShare = 0.002;

    /// <summary>The two bands that rise most rise at least so far, decibels.</summary>
    private const double LeastRise = 3.8,
        MostRise = 30;

    /// <summary>What came before is looked at from 16 to 4 ms before, the loudest after it from 12 to 26 ms after,
    /// seconds: a low voice has a pulse in it.</summary>
    private const double BeforeFrom = 0.0174,
        BeforeTo = 0.0044,
        AfterFrom = 0.0116,
        AfterTo = 0.0261;

    /// <summary>Of two so near each other one is the clap, seconds.</summary>
    private const double Apart = 0.02;

    /// <summary>It falls again by so much, and is no fainter than this, decibels.</summary>
    private const double LeastFall = 4,
        Faintest = -24;

    /// <summary>What a decibel of each is worth, and what it takes.</summary>
    private const double RiseWorth = 0.088,
        FallWorth = 0.5,
        LevelWorth = 0.33,
        Given = 3;

    /// <summary>Finds the claps of a sound, in order.</summary>
    public static IReadOnlyList<Clap> Find(MonoSound sound) => Find(new BandLevels(sound, Bands));

    /// <summary>The same where the levels in <see cref="Bands"/> are known.</summary>
    public static IReadOnlyList<Clap> Find(BandLevels levels)
    {
        if (levels.Count == 0)
            return [];
        var floored = Floored(levels);
        var frame = new Frames(levels.HopSeconds);
        var rises = new double[levels.Count];
        for (var at = frame.BeforeFrom; at < rises.Length; at++)
            rises[at] = Rise(floored, at, frame);
        var claps = new List<Clap>();
        for (var at = frame.BeforeFrom; at < rises.Length; at++)
            if (rises[at] >= LeastRise && IsPeak(rises, at, frame.Apart) && Weighed(floored, at, frame) is { Points: > 0 } weighed)
                claps.Add(new Clap(Begin(floored, at, frame, levels), weighed.LevelDb));
        return claps;
    }

    private readonly record struct Frames(double Hop)
    {
        public int BeforeFrom => Of(ClapFinder.BeforeFrom);

        public int BeforeTo => Of(ClapFinder.BeforeTo);

        public int AfterFrom => Of(ClapFinder.AfterFrom);

        public int AfterTo => Of(ClapFinder.AfterTo);

        public int Apart => Of(ClapFinder.Apart);

        private int Of(double seconds) => Math.Max(1, (int)Math.Round(seconds / Hop));
    }

    /// <summary>The levels against the loudest, none below the depth.</summary>
    private static double[][] Floored(BandLevels levels)
    {
        var most = (double[])levels.Db[0].Clone();
        foreach (var band in levels.Db.Skip(1))
            TensorPrimitives.Max(most, band, most);
        Array.Sort(most);
        var loudest = most[(int)((1 - LoudestShare) * (most.Length - 1))];
        return [.. levels.Db.Select(band => band.Select(db => Math.Max(db - loudest, -Depth)).ToArray())];
    }

    private static double Before(double[] band, int at, Frames frame)
    {
        var most = -Depth;
        for (var before = at - frame.BeforeFrom; before <= at - frame.BeforeTo; before++)
            most = Math.Max(most, band[before]);
        return most;
    }

    /// <summary>How far the two bands rise that rise most, the lowest left out.</summary>
    private static double Rise(double[][] bands, int at, Frames frame)
    {
        double most = -Depth,
            second = -Depth;
        for (var band = 1; band < bands.Length; band++)
        {
            var rise = Math.Min(bands[band][at] - Before(bands[band], at, frame), MostRise);
            if (rise > most)
                (most, second) = (rise, most);
            else
                second = Math.Max(second, rise);
        }

        return (most + second) / 2;
    }

    private static double TwoMost(double[] of)
    {
        Array.Sort(of);
        return (of[^1] + of[^2]) / 2;
    }

    private static bool IsPeak(double[] rises, int at, int apart)
    {
        for (var near = Math.Max(0, at - apart); near <= Math.Min(rises.Length - 1, at + apart); near++)
            if (rises[near] > rises[at] || (rises[near] == rises[at] && near < at))
                return false;
        return true;
    }

    private static (double Points, double LevelDb) Weighed(double[][] bands, int at, Frames frame)
    {
        const double Most = 25;
        const int Peak = 4;
        var (rises, falls, levels) = (new double[bands.Length - 1], new double[bands.Length - 1], new double[bands.Length - 1]);
        for (var band = 1; band < bands.Length; band++)
        {
            var db = bands[band];
            var peak = -Depth;
            for (var near = at; near <= Math.Min(at + Peak, db.Length - 1); near++)
                peak = Math.Max(peak, db[near]);
            var after = -Depth;
            for (var later = at + frame.AfterFrom; later < at + frame.AfterTo; later++)
                after = Math.Max(after, db[Math.Min(later, db.Length - 1)]);
            rises[band - 1] = Math.Clamp(peak - Before(db, at, frame), 0, Most);
            falls[band - 1] = Math.Clamp(peak - after, 0, Most);
            levels[band - 1] = peak;
        }

        var high = levels.Length > 2 ? TwoMost(levels[1..]) : levels[^1];
        var fall = TwoMost(falls);
        return fall < LeastFall || high < Faintest
            ? (0, high)
            : ((RiseWorth * TwoMost(rises)) + (FallWorth * fall) + (LevelWorth * high) + Given, levels.Max());
    }

    /// <summary>When it begins: where the band that rises most is half of the way up.</summary>
    private static double Begin(double[][] bands, int at, Frames frame, BandLevels levels)
    {
        const int Peak = 4;
        var band = bands.Skip(1).MaxBy(each => each[at] - Before(each, at, frame))!;
        var before = Before(band, at, frame);
        var peak = before;
        for (var near = at; near <= Math.Min(at + Peak, band.Length - 1); near++)
            peak = Math.Max(peak, band[near]);
        var half = (before + peak) / 2;
        var first = at;
        while (first > at - frame.BeforeTo && band[first] > half)
            first--;
        return levels.TimeOf(first + 1);
    }
}
