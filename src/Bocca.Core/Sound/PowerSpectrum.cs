using MathNet.Numerics;

namespace Bocca.Core.Sound;

/// <summary>
/// Power by frequency of a stretch of sound under a Hann window: a real transform of a power of two, computed as a complex one
/// of half the length (Cooley and Tukey 1965, decimation in time). Its buffers are used again and again.
/// </summary>
/// <remarks>Not safe for use from two threads at once.</remarks>
public sealed class PowerSpectrum
{
    private readonly double[] _window;
    private readonly double[] _cosines;
    private readonly double[] _sines;
    private readonly int[] _order;
    private readonly double[] _real;
    private readonly double[] _imaginary;
    private readonly double[] _power;

    /// <summary>A spectrum over so many samples.</summary>
    /// <param name="length">A power of two, at least 4.</param>
    /// <exception cref="ArgumentOutOfRangeException">It is none.</exception>
    public PowerSpectrum(int length)
    {
        if (length < 4 || (length & (length - 1)) != 0)
            throw new ArgumentOutOfRangeException(nameof(length), $"A spectrum is over a power of two of samples, not {length}.");
        var half = length / 2;
        Length = length;
        _window = Window.Hann(length);
        _cosines = [.. Enumerable.Range(0, half).Select(i => Math.Cos(2 * Math.PI * i / length))];
        _sines = [.. Enumerable.Range(0, half).Select(i => Math.Sin(2 * Math.PI * i / length))];
        _order = Reversed(half);
        _real = new double[half];
        _imaginary = new double[half];
        _power = new double[half + 1];
    }

    /// <summary>Samples in a window.</summary>
    public int Length { get; }

    /// <summary>
    /// The power in each bin from 0 to half the sample rate; bin i lies at i × rate / length hertz. Good until the next call.
    /// </summary>
    /// <param name="samples">The sound; what lies outside it counts as silence.</param>
    /// <param name="start">Where the window begins, samples; may lie outside.</param>
    public ReadOnlySpan<double> Of(ReadOnlySpan<float> samples, int start)
    {
        for (var i = 0; i < _order.Length; i++)
        {
            // Even samples stand as the real part, odd ones as the imaginary.
            var at = 2 * _order[i];
            _real[i] = At(samples, start, at);
            _imaginary[i] = At(samples, start, at + 1);
        }

        Transform();
        Unfold();
        return _power;
    }

    private double At(ReadOnlySpan<float> samples, int start, int at) =>
        (uint)(start + at) < (uint)samples.Length ? samples[start + at] * _window[at] : 0;

    private void Transform()
    {
        var half = _real.Length;
        for (var size = 2; size <= half; size *= 2)
        {
            // A turn of the half-length transform is two steps of the tables, which hold a turn of the whole length.
            var (middle, step) = (size / 2, 2 * (half / size));
            for (var from = 0; from < half; from += size)
            for (var k = 0; k < middle; k++)
            {
                var (low, high) = (from + k, from + k + middle);
                var (cosine, sine) = (_cosines[k * step], _sines[k * step]);
                var real = (_real[high] * cosine) + (_imaginary[high] * sine);
                var imaginary = (_imaginary[high] * cosine) - (_real[high] * sine);
                (_real[high], _imaginary[high]) = (_real[low] - real, _imaginary[low] - imaginary);
                (_real[low], _imaginary[low]) = (_real[low] + real, _imaginary[low] + imaginary);
            }
        }
    }

    /// <summary>From the transform of the pairs to the power of the whole.</summary>
    private void Unfold()
    {
        var half = _real.Length;
        for (var bin = 0; bin <= half; bin++)
        {
            var (here, mirror) = (bin % half, (half - bin) % half);
            var (evenReal, evenImaginary) = ((_real[here] + _real[mirror]) / 2, (_imaginary[here] - _imaginary[mirror]) / 2);
            var (oddReal, oddImaginary) = ((_imaginary[here] + _imaginary[mirror]) / 2, (_real[mirror] - _real[here]) / 2);
            var (cosine, sine) = bin == half ? (-1, 0) : (_cosines[bin], _sines[bin]);
            var real = evenReal + (oddReal * cosine) + (oddImaginary * sine);
            var imaginary = evenImaginary + (oddImaginary * cosine) - (oddReal * sine);
            _power[bin] = (real * real) + (imaginary * imaginary);
        }
    }

    private static int[] Reversed(int count)
    {
        var order = new int[count];
        for (var i = 1; i < count; i++)
            order[i] = (order[i / 2] / 2) | ((i & 1) == 1 ? count / 2 : 0);
        return order;
    }
}
