using Bocca.Core.Sound;

namespace Bocca.Core.Ear;

/// <summary>How far a voice reaches.</summary>
/// <param name="LowestHz">From where, hertz.</param>
/// <param name="HighestHz">To where.</param>
public sealed record VoiceRange(double LowestHz, double HighestHz)
{
    /// <summary>A child's singing voice where nobody has slid it yet: about A3 to D5 (common practice).</summary>
    public static VoiceRange Usual { get; } = new(220, 587);

    /// <summary>Shares of the voiced time left out at either end, so that a squeak is no range: as on the mouthpiece.</summary>
    private const double Below = 0.02,
        Above = 0.98;

    /// <summary>Less of a voice than this is none, seconds.</summary>
    private const double LeastSeconds = 1;

    /// <summary>Semitones from end to end.</summary>
    public double Semitones => 12 * Math.Log2(HighestHz / LowestHz);

    /// <summary>The range of a voice that slid; null where too little of one was heard.</summary>
    public static VoiceRange? Of(MonoSound sound)
    {
        var voiced = Slid(sound).Frames.Where(frame => frame.Voiced).Select(frame => frame.FrequencyHz).Order().ToList();
        return voiced.Count * PitchTrack.HopSeconds < LeastSeconds
            ? null
            : new VoiceRange(voiced[(int)(Below * (voiced.Count - 1))], voiced[(int)(Above * (voiced.Count - 1))]);
    }

    /// <summary>
    /// The pitch of a sliding voice. Where a formant lies on its second harmonic, that is heard for the pitch for a while; no voice leaps
    /// an octave in a hundredth of a second, so such a leap is taken back.
    /// </summary>
    public static PitchTrack Slid(MonoSound sound)
    {
        const double Leap = 150;
        var frames = PitchTrack.Of(sound, EarListener.Voice).Frames.ToArray();
        double before = 0,
            octaves = 0;
        for (var at = 0; at < frames.Length; at++)
        {
            var hertz = frames[at].FrequencyHz;
            if (!frames[at].Voiced)
            {
                (before, octaves) = (0, 0);
                continue;
            }

            if (before > 0 && 1200 * Math.Log2(hertz / before) is var step && Math.Abs(Math.Abs(step) - 1200) < Leap)
                octaves += Math.Sign(step);
            before = hertz;
            frames[at] = frames[at] with { FrequencyHz = hertz / Math.Pow(2, octaves) };
        }

        return new PitchTrack(frames);
    }

    /// <summary>By how many octaves notes are moved so that the voice reaches them all; null where no octave does.</summary>
    /// <param name="hertz">The notes.</param>
    public int? Octaves(IReadOnlyList<double> hertz)
    {
        const double Leeway = 1.03;
        const int Furthest = 4;
        foreach (var octaves in Enumerable.Range(-Furthest, (2 * Furthest) + 1).OrderBy(Math.Abs))
        {
            var by = Math.Pow(2, octaves);
            if (hertz.Min() * by >= LowestHz / Leeway && hertz.Max() * by <= HighestHz * Leeway)
                return octaves;
        }

        return null;
    }
}
