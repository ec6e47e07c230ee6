using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>
/// Whether two pitches sound at once: the spectrum has strong peaks between the harmonics of the pitch heard, or that
/// pitch is a phantom, of which only high harmonics sound, those that two notes have in common (ours, editable).
/// </summary>
public static class TwoPitches
{
    private const int Length = 8192;
    private const double HighestHz = 3000;

    /// <summary>Peaks left are counted down to so far under the strongest (dB).</summary>
    private const double PeakDb = 25;

    /// <summary>From so many strong peaks between the harmonics on it is another sound.</summary>
    private const int FewestPeaks = 3;

    /// <summary>A pitch that moves by more smears its own harmonics (cents).</summary>
    private const double SteadyCents = 30;

    /// <summary>A tone of its own has a strong harmonic among its first three.</summary>
    private const int LowestOfTones = 3;

    /// <summary>A peak so close to a harmonic belongs to it (share of the pitch).</summary>
    private const double OfHarmonic = 0.12;

    /// <summary>Whether more than half of the longer notes have another pitch beside their own.</summary>
    public static bool Heard(MonoSound sound, IReadOnlyList<SoundedNote> notes)
    {
        var judged = notes
            .Where(note => note.SpreadCents < SteadyCents && note.Seconds * sound.SampleRate >= Length + (0.1 * sound.SampleRate))
            .Take(12)
            .ToList();
        return judged.Count > 0 && 2 * judged.Count(note => In(sound, note)) > judged.Count;
    }

    /// <summary>Whether a note has another pitch beside its own.</summary>
    public static bool In(MonoSound sound, SoundedNote note)
    {
        var magnitudes = Magnitudes(sound, (int)((note.StartSeconds + note.EndSeconds) / 2 * sound.SampleRate) - (Length / 2));
        var hertzABin = (double)sound.SampleRate / Length;
        var last = Math.Min(magnitudes.Length - 2, (int)(HighestHz / hertzABin));
        var strongest = magnitudes.Take(last).Max();
        // Low notes have their harmonics too close for this window to show anything between.
        if (note.MedianHz < 8 * hertzABin)
            return false;
        var noise = magnitudes.Take(last).Median();
        var least = Math.Max(strongest * Math.Pow(10, -PeakDb / 20), 8 * noise);
        var between = 0;
        var numbers = new HashSet<int>();
        for (var bin = 2; bin < last; bin++)
        {
            if (magnitudes[bin] < least || magnitudes[bin] < magnitudes[bin - 1] || magnitudes[bin] < magnitudes[bin + 1])
                continue;
            var harmonic = bin * hertzABin / note.MedianHz;
            if (Math.Abs(harmonic - Math.Round(harmonic)) > OfHarmonic)
                between++;
            else
                numbers.Add((int)Math.Round(harmonic));
        }

        var phantom = numbers.Count >= FewestPeaks && numbers.Min() > LowestOfTones;
        return between >= FewestPeaks || phantom;
    }

    private static double[] Magnitudes(MonoSound sound, int start)
    {
        var magnitudes = new double[Length / 2];
        var power = new PowerSpectrum(Length).Of(sound.Samples, start);
        for (var bin = 0; bin < magnitudes.Length; bin++)
            magnitudes[bin] = Math.Sqrt(power[bin]);
        return magnitudes;
    }
}
