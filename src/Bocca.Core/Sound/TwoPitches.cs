using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>
/// Whether two pitches sound at once: the spectrum has strong peaks between the harmonics of the pitch heard, or that
/// pitch is a phantom, of which only high harmonics sound, those that two notes have in common (ours, editable).
/// </summary>
public static class TwoPitches
{
    private const int Length = 8192,
        LongLength = 16384;
    private const double HighestHz = 3000;

    /// <summary>Harmonics lie at least so many bins of the spectrum apart.</summary>
    private const int BinsApart = 8;

    /// <summary>Peaks left are counted down to so far under the strongest (dB).</summary>
    private const double PeakDb = 25;

    /// <summary>From so many strong peaks between the harmonics on it is another sound.</summary>
    private const int FewestPeaks = 3;

    /// <summary>A pitch that moves by more smears its own harmonics (cents).</summary>
    private const double SteadyCents = 30;

    /// <summary>A tone of its own has a strong harmonic among its first three.</summary>
    private const int LowestOfTones = 3;

    /// <summary>
    /// Intervals whose common period is heard as a pitch of nobody's: a fifth, a fourth, a major sixth. All that sounds then are multiples
    /// of the one number or the other, at least so many and up to this at least, where a tone of its own has those between them too.
    /// </summary>
    private static readonly (int Low, int High)[] Intervals = [(2, 3), (3, 4), (3, 5)];

    private const int FewestOfInterval = 4,
        HighestOfInterval = 8;

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
        // Low notes have their harmonics too close for the shorter window to show anything between.
        var isLow = note.MedianHz < BinsApart * sound.SampleRate / Length;
        var length = isLow ? LongLength : Length;
        var hertzABin = (double)sound.SampleRate / length;
        if (note.MedianHz < BinsApart * hertzABin || (isLow && note.Seconds * sound.SampleRate < length))
            return false;
        var magnitudes = Magnitudes(sound, length, (int)((note.StartSeconds + note.EndSeconds) / 2 * sound.SampleRate) - (length / 2));
        var last = Math.Min(magnitudes.Length - 2, (int)(HighestHz / hertzABin));
        var strongest = magnitudes.Take(last).Max();
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

        return between >= FewestPeaks || IsPhantom(numbers);
    }

    private static bool IsPhantom(HashSet<int> numbers) =>
        (numbers.Count >= FewestPeaks && numbers.Min() > LowestOfTones)
        || (
            numbers.Count >= FewestOfInterval
            && numbers.Max() >= HighestOfInterval
            && Intervals.Any(of =>
                numbers.Contains(of.Low) && numbers.Contains(of.High) && numbers.All(each => each % of.Low == 0 || each % of.High == 0)
            )
        );

    private static double[] Magnitudes(MonoSound sound, int length, int start)
    {
        var magnitudes = new double[length / 2];
        var power = new PowerSpectrum(length).Of(sound.Samples, start);
        for (var bin = 0; bin < magnitudes.Length; bin++)
            magnitudes[bin] = Math.Sqrt(power[bin]);
        return magnitudes;
    }
}
