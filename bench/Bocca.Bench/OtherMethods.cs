using System.Numerics;
using Bocca.Core.Sound;
using MathNet.Numerics;
using MathNet.Numerics.IntegralTransforms;

namespace Bocca.Bench;

/// <summary>
/// Other ways to hear a pitch, written plainly from their papers, each frame by itself: what Bocca's tracker was chosen
/// against. A frame every 10 ms; 0 where it finds no pitch.
/// </summary>
internal static class OtherMethods
{
    private const double Lowest = 30,
        Highest = 1100;

    /// <summary>The methods by name.</summary>
    public static IReadOnlyList<(string Name, Func<MonoSound, List<(double Time, double Hz)>> Track)> All { get; } =
    [
        ("YIN, by FFT (de Cheveigné and Kawahara 2002)", sound => Each(sound, Yin)),
        ("normalised square difference (McLeod and Wyvill 2005)", sound => Each(sound, Mpm)),
        ("subharmonic sum (Hermes 1988)", sound => Spectral(sound, SubharmonicSum, 0.12)),
        ("sawtooth template in the manner of SWIPE' (Camacho and Harris 2008)", sound => Spectral(sound, Sawtooth, 0.25)),
        ("sawtooth guess, refined in time", Refined),
    ];

    private static List<(double, double)> Each(MonoSound sound, Func<double[], int, double> method)
    {
        var longest = (int)(sound.SampleRate / Lowest);
        return [.. Frames(sound, 3 * longest).Select(frame => (frame.Time, method(frame.Samples, sound.SampleRate)))];
    }

    private static IEnumerable<(double Time, double[] Samples)> Frames(MonoSound sound, int length)
    {
        for (var frame = 0; (frame + 0.5) * 0.01 < sound.Seconds; frame++)
        {
            var time = (frame + 0.5) * 0.01;
            var from = (int)(time * sound.SampleRate) - (length / 2);
            var samples = new double[length];
            for (var i = Math.Max(0, -from); i < length && from + i < sound.Samples.Length; i++)
                samples[i] = sound.Samples[from + i];
            yield return (time, samples);
        }
    }

    /// <summary>Correlation of the first third against the whole, and the energies, by FFT.</summary>
    private static (double[] Correlation, double[] Energy) Correlate(double[] samples)
    {
        var window = samples.Length / 3;
        var size = (int)BitOperations.RoundUpToPowerOf2((uint)(2 * samples.Length));
        var (head, all) = (new Complex[size], new Complex[size]);
        for (var i = 0; i < samples.Length; i++)
        {
            all[i] = samples[i];
            head[i] = i < window ? samples[i] : 0;
        }

        Fourier.Forward(head, FourierOptions.NoScaling);
        Fourier.Forward(all, FourierOptions.NoScaling);
        for (var i = 0; i < size; i++)
            all[i] *= Complex.Conjugate(head[i]);
        Fourier.Inverse(all, FourierOptions.NoScaling);
        var energy = new double[window + 1];
        for (var i = 0; i < window; i++)
            energy[0] += samples[i] * samples[i];
        for (var lag = 1; lag <= window; lag++)
            energy[lag] = energy[lag - 1] - (samples[lag - 1] * samples[lag - 1]) + (samples[lag + window - 1] * samples[lag + window - 1]);
        return ([.. all.Take(window + 1).Select(value => value.Real / size)], energy);
    }

    private static double Yin(double[] samples, int rate)
    {
        const double Threshold = 0.15;
        var (correlation, energy) = Correlate(samples);
        var cumulative = new double[correlation.Length];
        var sum = 0.0;
        for (var lag = 1; lag < correlation.Length; lag++)
        {
            var difference = energy[0] + energy[lag] - (2 * correlation[lag]);
            sum += difference;
            cumulative[lag] = sum > 0 ? difference * lag / sum : 1;
        }

        for (var lag = Math.Max(2, (int)(rate / Highest)); lag < cumulative.Length - 1; lag++)
        {
            if (cumulative[lag] >= Threshold)
                continue;
            while (lag < cumulative.Length - 2 && cumulative[lag + 1] < cumulative[lag])
                lag++;
            return rate / (lag + Vertex(cumulative[lag - 1], cumulative[lag], cumulative[lag + 1]));
        }

        return 0;
    }

    private static double Mpm(double[] samples, int rate)
    {
        const double Share = 0.93,
            Clear = 0.5;
        var (correlation, energy) = Correlate(samples);
        var likeness = new double[correlation.Length];
        for (var lag = 0; lag < likeness.Length; lag++)
            likeness[lag] = energy[0] + energy[lag] > 1e-9 ? 2 * correlation[lag] / (energy[0] + energy[lag]) : 0;
        var peaks = Enumerable
            .Range(Math.Max(2, (int)(rate / Highest)), Math.Max(0, likeness.Length - 3 - (int)(rate / Highest)))
            .Where(lag => likeness[lag] > 0 && likeness[lag] >= likeness[lag - 1] && likeness[lag] > likeness[lag + 1])
            .ToList();
        if (peaks.Count == 0)
            return 0;
        var best = peaks.Max(lag => likeness[lag]);
        if (best < Clear)
            return 0;
        var chosen = peaks.First(lag => likeness[lag] >= Share * best);
        return rate / (chosen + Vertex(likeness[chosen - 1], likeness[chosen], likeness[chosen + 1]));
    }

    private static double Vertex(double before, double here, double after) =>
        Math.Abs(before - (2 * here) + after) < 1e-12 ? 0 : 0.5 * (before - after) / (before - (2 * here) + after);

    private static List<(double, double)> Spectral(MonoSound sound, Func<double[], double, double, double> strength, double least)
    {
        const int Length = 8192;
        var window = Window.Hann(Length / 2);
        var candidates = Enumerable.Range(0, (int)(48 * Math.Log2(Highest / Lowest))).Select(i => Lowest * Math.Pow(2, i / 48.0)).ToList();
        var track = new List<(double, double)>();
        foreach (var (time, samples) in Frames(sound, Length / 2))
        {
            var bins = new Complex[Length];
            for (var i = 0; i < samples.Length; i++)
                bins[i] = samples[i] * window[i];
            Fourier.Forward(bins, FourierOptions.NoScaling);
            var magnitudes = bins.Take(Length / 2).Select(bin => Math.Sqrt(bin.Magnitude)).ToArray();
            var norm = Math.Sqrt(magnitudes.Take((int)(5000.0 * Length / sound.SampleRate)).Sum(value => value * value));
            var scores = candidates.ConvertAll(hertz =>
                norm < 0.5 ? 0 : strength(magnitudes, hertz, (double)Length / sound.SampleRate) / norm
            );
            var best = scores.IndexOf(scores.Max());
            var fine = best > 0 && best < scores.Count - 1 ? Vertex(scores[best - 1], scores[best], scores[best + 1]) : 0;
            track.Add((time, scores[best] < least ? 0 : Lowest * Math.Pow(2, (best + fine) / 48)));
        }

        return track;
    }

    private static double SubharmonicSum(double[] magnitudes, double hertz, double binsAHertz)
    {
        double sum = 0,
            weight = 1,
            weights = 0;
        for (var harmonic = 1; harmonic <= 15 && harmonic * hertz < 5000; harmonic++, weight *= 0.84)
        {
            sum += weight * At(magnitudes, harmonic * hertz * binsAHertz);
            weights += weight;
        }

        return sum / Math.Sqrt(weights);
    }

    /// <summary>Cosine lobes at the first and the prime harmonics, valleys between, falling as one over the root of frequency.</summary>
    private static double Sawtooth(double[] magnitudes, double hertz, double binsAHertz)
    {
        double sum = 0,
            weights = 0;
        foreach (var harmonic in (int[])[1, 2, 3, 5, 7, 11, 13, 17, 19, 23, 29])
        {
            if (harmonic * hertz > 5000)
                break;
            var weight = 1 / Math.Sqrt(harmonic);
            sum +=
                weight
                * (
                    At(magnitudes, harmonic * hertz * binsAHertz)
                    - (0.5 * At(magnitudes, (harmonic - 0.5) * hertz * binsAHertz))
                    - (0.5 * At(magnitudes, (harmonic + 0.5) * hertz * binsAHertz))
                );
            weights += weight * weight;
        }

        return sum / Math.Sqrt(weights);
    }

    private static double At(double[] magnitudes, double bin)
    {
        var low = (int)bin;
        return low + 1 >= magnitudes.Length ? 0 : magnitudes[low] + ((bin - low) * (magnitudes[low + 1] - magnitudes[low]));
    }

    /// <summary>The spectral guess taken as right to a semitone, the period then read off the likeness.</summary>
    private static List<(double Time, double Hz)> Refined(MonoSound sound)
    {
        var longest = (int)(sound.SampleRate / Lowest);
        return
        [
            .. Spectral(sound, Sawtooth, 0.25)
                .Zip(Frames(sound, 3 * longest))
                .Select(pair =>
                {
                    var ((time, guess), (_, samples)) = pair;
                    if (guess <= 0)
                        return (time, 0.0);
                    var (correlation, energy) = Correlate(samples);
                    double Likeness(int lag) => energy[0] + energy[lag] > 1e-9 ? 2 * correlation[lag] / (energy[0] + energy[lag]) : 0;
                    var (from, to) = (
                        Math.Max(2, (int)(sound.SampleRate / guess / 1.06)),
                        Math.Min(energy.Length - 2, (int)(sound.SampleRate / guess * 1.06))
                    );
                    if (to <= from)
                        return (time, guess);
                    var best = Enumerable.Range(from, to - from).MaxBy(Likeness);
                    return (time, sound.SampleRate / (best + Vertex(Likeness(best - 1), Likeness(best), Likeness(best + 1))));
                }),
        ];
    }
}
