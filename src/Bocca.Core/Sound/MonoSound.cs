using System.Numerics.Tensors;

namespace Bocca.Core.Sound;

/// <summary>A sound with one channel.</summary>
/// <param name="Samples">Samples, full scale at -1 and 1.</param>
/// <param name="SampleRate">Samples a second.</param>
/// <param name="CueSeconds">Moments marked in the sound, ascending, when each try was due; null if none are marked.</param>
public sealed record MonoSound(float[] Samples, int SampleRate, IReadOnlyList<double>? CueSeconds = null)
{
    /// <summary>Length in seconds.</summary>
    public double Seconds => (double)Samples.Length / SampleRate;

    /// <summary>A part of it, with the cues that lie in it.</summary>
    /// <param name="from">Where it begins, seconds; not before the beginning.</param>
    /// <param name="until">Where it ends, seconds; what lies behind the end is left out.</param>
    public MonoSound Between(double from, double until)
    {
        var (first, last) = ((int)(from * SampleRate), Math.Min(Samples.Length, (int)(until * SampleRate)));
        return this with
        {
            Samples = Samples[first..last],
            CueSeconds = CueSeconds?.Where(cue => cue >= from && cue < until).Select(cue => cue - from).ToList(),
        };
    }

    /// <summary>The largest distance of a sample from zero.</summary>
    public float Peak => Samples.Length == 0 ? 0 : Math.Abs(TensorPrimitives.MaxMagnitude<float>(Samples));

    /// <summary>
    /// The share of samples, 0 to 1, that lie in runs of three or more at full scale (within 0.1 %): what a microphone
    /// or a converter cut off.
    /// </summary>
    public double ClippedShare()
    {
        var peak = Peak;
        if (peak < 0.98f)
            return 0;
        var limit = 0.999f * peak;
        var clipped = 0;
        var run = 0;
        foreach (var sample in Samples)
        {
            if (Math.Abs(sample) >= limit)
            {
                run++;
                clipped +=
                    run == 3 ? 3
                    : run > 3 ? 1
                    : 0;
            }
            else
            {
                run = 0;
            }
        }

        return Samples.Length == 0 ? 0 : (double)clipped / Samples.Length;
    }
}
