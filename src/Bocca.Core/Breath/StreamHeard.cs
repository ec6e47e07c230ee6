using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Breath;

/// <summary>A stretch in which a stream was weaker than the rest of it.</summary>
/// <param name="FromSeconds">Where it starts, from the stream's start.</param>
/// <param name="ToSeconds">Where it ends.</param>
/// <param name="DropDb">How far under the stream's own median, decibels.</param>
public readonly record struct StreamSag(double FromSeconds, double ToSeconds, double DropDb);

/// <summary>
/// What a stream of air says, from the noise it makes. Levels are relative: another microphone or distance moves them
/// all alike. Definitions and bands: METHODS.
/// </summary>
/// <param name="StartSeconds">When the stream starts, seconds into the sound; null if none was heard.</param>
/// <param name="UnbrokenSeconds">How long it lasts without a hole.</param>
/// <param name="VariationPercent">Standard deviation over mean of its amplitude after the onset; null under half a second.</param>
/// <param name="Sags">Where it gave way.</param>
/// <param name="LevelDb">Level every 50 ms from its start, decibels against its own median.</param>
public sealed record StreamHeard(
    double? StartSeconds,
    double UnbrokenSeconds,
    double? VariationPercent,
    IReadOnlyList<StreamSag> Sags,
    IReadOnlyList<double> LevelDb
)
{
    /// <summary>Seconds from one level to the next.</summary>
    public const double StepSeconds = 0.05;

    /// <summary>Its median level, decibels; comparable within one recording alone. Null if none was heard.</summary>
    public double? MedianDb { get; init; }

    private const double OverRoomDb = 6;
    private const double LeastRiseDb = 10;
    private const double OnsetSeconds = 0.3;
    private const double EndSeconds = 0.15;
    private const double HoleSeconds = 0.15;
    private const double SagDb = 4;
    private const double SagSeconds = 0.3;

    /// <summary>The stream of a sound between two moments.</summary>
    /// <param name="sound">The sound; its softest tenth, in the in-breath, is taken for the room.</param>
    /// <param name="fromSeconds">Where to begin looking.</param>
    /// <param name="toSeconds">Where to stop.</param>
    public static StreamHeard Of(MonoSound sound, double fromSeconds = 0, double toSeconds = double.PositiveInfinity)
    {
        var levels = Levels(sound);
        var first = Math.Clamp((int)(fromSeconds / StepSeconds), 0, levels.Length);
        var last = (int)Math.Clamp(toSeconds / StepSeconds, first, levels.Length);
        if (levels.Length == 0 || Statistics.Percentile(levels, 95) < Statistics.Percentile(levels, 10) + LeastRiseDb)
            return Nothing;
        var floor = Statistics.Percentile(levels, 10) + OverRoomDb;
        var start = Start(levels, first, last, floor);
        if (start < 0)
            return Nothing;
        var end = End(levels, start, last, floor);
        var stream = levels[start..end];
        var median = stream.Median();
        var held = stream.Skip((int)(OnsetSeconds / StepSeconds)).SkipLast((int)(EndSeconds / StepSeconds)).ToArray();
        var amplitudes = held.Select(level => Math.Pow(10, level / 20)).ToArray();
        var variation = held.Length * StepSeconds >= 0.5 ? 100 * amplitudes.StandardDeviation() / amplitudes.Mean() : (double?)null;
        return new StreamHeard(
            start * StepSeconds,
            stream.Length * StepSeconds,
            variation,
            Sagging(held, median),
            [.. stream.Select(level => Math.Round(level - median, 1))]
        )
        {
            MedianDb = median,
        };
    }

    private static double[] Levels(MonoSound sound)
    {
        var step = (int)(StepSeconds * sound.SampleRate);
        var levels = new double[sound.Samples.Length / step];
        for (var i = 0; i < levels.Length; i++)
        {
            // Differences of neighbours leave hum and handling behind and keep the hiss of air.
            var sum = 0.0;
            for (var at = Math.Max(1, i * step); at < (i + 1) * step; at++)
            {
                var change = (double)sound.Samples[at] - sound.Samples[at - 1];
                sum += change * change;
            }

            levels[i] = 10 * Math.Log10((sum / step) + 1e-14);
        }

        return levels;
    }

    private static StreamHeard Nothing { get; } = new(null, 0, null, [], []);

    private static int Start(double[] levels, int first, int last, double floor)
    {
        for (var i = first; i + 2 < last; i++)
            if (levels[i] > floor && levels[i + 1] > floor && levels[i + 2] > floor)
                return i;
        return -1;
    }

    private static int End(double[] levels, int start, int last, double floor)
    {
        var hole = (int)Math.Round(HoleSeconds / StepSeconds);
        var quiet = 0;
        for (var i = start; i < last; i++)
        {
            quiet = levels[i] > floor ? 0 : quiet + 1;
            if (quiet == hole)
                return i - hole + 1;
        }

        return last - quiet;
    }

    private static List<StreamSag> Sagging(double[] held, double median)
    {
        var sags = new List<StreamSag>();
        var smooth = held.Select((_, i) => held.Skip(Math.Max(0, i - 1)).Take(3).Average()).ToArray();
        for (var i = 0; i < smooth.Length; i++)
        {
            var from = i;
            while (i < smooth.Length && smooth[i] < median - SagDb)
                i++;
            if ((i - from) * StepSeconds >= SagSeconds)
                sags.Add(
                    new StreamSag(OnsetSeconds + (from * StepSeconds), OnsetSeconds + (i * StepSeconds), median - smooth[from..i].Min())
                );
        }

        return sags;
    }
}
