using System.Numerics.Tensors;

namespace Bocca.Core.Sound;

/// <summary>One period that a frame may have.</summary>
/// <param name="FrequencyHz">The frequency it stands for.</param>
/// <param name="Clarity">How alike neighbouring periods of that length are, up to 1.</param>
/// <param name="Strength">Clarity, raised for higher pitches by the octave cost, so that a period is not taken for two.</param>
internal readonly record struct PeriodCandidate(double FrequencyHz, double Clarity, double Strength);

/// <summary>
/// Finds the periods of a frame: peaks of the normalised square difference n = 1 - difference / energy
/// (published: McLeod and Wyvill 2005), each made exact by a parabola through a peak several periods on.
/// </summary>
internal sealed class PeriodFinder(double rate, int shortestLag, int longestLag, PitchTrackerSettings settings)
{
    /// <summary>The most candidates a frame keeps.</summary>
    public const int Most = 8;

    private const double LeastClarity = 0.2;

    // Before it repeats, a sound is once unlike itself; a low tone in noise is alike at every short lag, by ripples of the noise.
    private const float LeastRise = 0.15f;

    // Further multiples sharpen a steady tone no more and blur an unsteady one.
    private const double FurthestMultipleSeconds = 0.016;

    private readonly float[] _likeness = new float[longestLag + 2];
    private readonly float[] _difference = new float[longestLag + 1];
    private readonly float[] _energy = new float[longestLag + 1];

    /// <summary>Fills in the candidates of a window of blocks, weighted; returns how many there are.</summary>
    public int Find(ReadOnlySpan<LagBlock> blocks, ReadOnlySpan<float> weights, Span<PeriodCandidate> into)
    {
        Combine(blocks, weights);
        var count = 0;
        var least = 1f;
        for (var lag = 1; lag < shortestLag; lag++)
            least = Math.Min(least, _likeness[lag]);
        for (var lag = shortestLag; lag < longestLag; lag++)
        {
            var here = _likeness[lag];
            least = Math.Min(least, here);
            if (here < LeastClarity || here < least + LeastRise || here <= _likeness[lag - 1] || here < _likeness[lag + 1])
                continue;
            var (period, clarity) = Sharpen(lag);
            var hertz = rate / period;
            var candidate = new PeriodCandidate(
                hertz,
                Math.Min(clarity, 1),
                clarity + (settings.OctaveCost * Math.Log2(hertz / settings.HighestHz))
            );
            if (count < into.Length)
            {
                into[count++] = candidate;
                continue;
            }

            var weakest = 0;
            for (var i = 1; i < count; i++)
                if (into[i].Strength < into[weakest].Strength)
                    weakest = i;
            if (into[weakest].Strength < candidate.Strength)
                into[weakest] = candidate;
        }

        return count;
    }

    private void Combine(ReadOnlySpan<LagBlock> blocks, ReadOnlySpan<float> weights)
    {
        Array.Clear(_difference);
        Array.Clear(_energy);
        for (var i = 0; i < blocks.Length; i++)
        {
            TensorPrimitives.MultiplyAdd(blocks[i].Difference, weights[i], _difference, _difference);
            TensorPrimitives.MultiplyAdd(blocks[i].Energy, weights[i], _energy, _energy);
        }

        for (var lag = 1; lag <= longestLag; lag++)
            _likeness[lag] = 1 - (_difference[lag] / (_energy[lag] + 1e-9f));
        _likeness[0] = 1;
        _likeness[longestLag + 1] = 0;
    }

    /// <summary>The exact period: the peak's own parabola, then those at twice, four times ... the lag while they stay as clear.</summary>
    private (double Period, double Clarity) Sharpen(int lag)
    {
        var (period, clarity) = Parabola(lag);
        var furthest = Math.Min(longestLag - 2, FurthestMultipleSeconds * rate);
        for (var times = 2; times * period <= furthest; times *= 2)
        {
            var peak = Climb((int)Math.Round(times * period), lag);
            var (at, there) = Parabola(peak);
            if (there < 0.95 * clarity || Math.Abs((at / times) - period) > 0.02 * period)
                break;
            period = at / times;
        }

        return (period, clarity);
    }

    private int Climb(int lag, int within)
    {
        var left = within / 4;
        while (left-- > 0 && lag < longestLag - 1 && _likeness[lag + 1] > _likeness[lag])
            lag++;
        while (left-- > 0 && lag > 2 && _likeness[lag - 1] > _likeness[lag])
            lag--;
        return lag;
    }

    private (double At, double Height) Parabola(int lag)
    {
        double before = _likeness[lag - 1],
            here = _likeness[lag],
            after = _likeness[lag + 1];
        var bend = before - (2 * here) + after;
        if (bend >= 0)
            return (lag, here);
        var shift = Math.Clamp(0.5 * (before - after) / bend, -0.5, 0.5);
        return (lag + shift, here - (0.25 * (before - after) * shift));
    }
}
