using System.Numerics.Tensors;

namespace Bocca.Core.Sound;

/// <summary>The level of a sound at any moment, over a window of any length.</summary>
public sealed class Envelope
{
    private const double FloorDb = -120;

    /// <summary>Samples between two sums that are kept: a sum for every sample would weigh twice what the sound does.</summary>
    private const int Stride = 32;

    private readonly float[] _samples;
    private readonly double[] _squares;
    private readonly int _rate;

    /// <summary>Reads a sound once; every level after that costs the same, however long its window.</summary>
    public Envelope(MonoSound sound)
    {
        (_samples, _rate) = (sound.Samples, sound.SampleRate);
        _squares = new double[(_samples.Length / Stride) + 1];
        for (var i = 1; i < _squares.Length; i++)
            _squares[i] = _squares[i - 1] + Squares((i - 1) * Stride, i * Stride);
    }

    /// <summary>Length of the sound, seconds.</summary>
    public double Seconds => (double)_samples.Length / _rate;

    /// <summary>RMS level in decibels below full scale over a window about a moment; -120 for silence and outside the sound.</summary>
    /// <param name="seconds">The window's middle.</param>
    /// <param name="windowSeconds">Its length.</param>
    public double LevelDb(double seconds, double windowSeconds)
    {
        var from = Math.Clamp((int)Math.Round((seconds - (windowSeconds / 2)) * _rate), 0, _samples.Length);
        var to = Math.Clamp((int)Math.Round((seconds + (windowSeconds / 2)) * _rate), 0, _samples.Length);
        return to <= from ? FloorDb : Math.Max(FloorDb, 10 * Math.Log10(((Before(to) - Before(from)) / (to - from)) + 1e-12));
    }

    /// <summary>The sum of the squares of all samples before one.</summary>
    private double Before(int sample) => _squares[sample / Stride] + Squares(sample / Stride * Stride, sample);

    /// <summary>The sum of the squares of at most a stride of samples; double, for those of a file may be of any size.</summary>
    private double Squares(int from, int to)
    {
        Span<double> wide = stackalloc double[Stride];
        TensorPrimitives.ConvertChecked<float, double>(_samples.AsSpan(from, to - from), wide);
        return TensorPrimitives.SumOfSquares<double>(wide[..(to - from)]);
    }

    /// <summary>
    /// The first moment from one to another, stepping by a millisecond either way, at which a level passes a height; null if it does not.
    /// </summary>
    /// <param name="from">Where to begin, seconds.</param>
    /// <param name="to">Where to end; before <paramref name="from"/> to walk back.</param>
    /// <param name="db">The height.</param>
    /// <param name="above">Whether a level at or above it is looked for, or one below.</param>
    /// <param name="windowSeconds">Over which window.</param>
    public double? First(double from, double to, double db, bool above, double windowSeconds)
    {
        var step = to >= from ? 0.001 : -0.001;
        for (var (at, left) = (from, (int)Math.Abs((to - from) / step)); left >= 0; left--, at += step)
            if (LevelDb(at, windowSeconds) >= db == above)
                return at;
        return null;
    }
}
