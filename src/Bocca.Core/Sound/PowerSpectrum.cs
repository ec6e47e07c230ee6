using System.Numerics;
using System.Runtime.InteropServices;
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

    // The same for each pass of the transform, the shortest first: those of a pass that joins pairs of m begin at m - 1.
    private readonly double[] _passCosines;
    private readonly double[] _passSines;
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
        (_passCosines, _passSines) = (ByPass(_cosines), ByPass(_sines));
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
        for (var middle = 1; middle < _real.Length; middle *= 2)
        {
            if (middle < Vector<double>.Count)
                JoinShort(middle);
            else
                JoinLong(middle);
        }
    }

    /// <summary>Joins transforms of so many values, of what lies even and odd, to such of twice the length.</summary>
    private void JoinShort(int middle)
    {
        for (var from = 0; from < _real.Length; from += 2 * middle)
        for (var k = 0; k < middle; k++)
        {
            var (low, high) = (from + k, from + k + middle);
            var (cosine, sine) = (_passCosines[middle - 1 + k], _passSines[middle - 1 + k]);
            var real = (_real[high] * cosine) + (_imaginary[high] * sine);
            var imaginary = (_imaginary[high] * cosine) - (_real[high] * sine);
            (_real[high], _imaginary[high]) = (_real[low] - real, _imaginary[low] - imaginary);
            (_real[low], _imaginary[low]) = (_real[low] + real, _imaginary[low] + imaginary);
        }
    }

    /// <summary>The same, several values at a time, where there are as many.</summary>
    private void JoinLong(int middle)
    {
        var cosines = Vectors(_passCosines.AsSpan(middle - 1, middle));
        var sines = Vectors(_passSines.AsSpan(middle - 1, middle));
        for (var from = 0; from < _real.Length; from += 2 * middle)
        {
            var lowReal = Vectors(_real.AsSpan(from, middle));
            var highReal = Vectors(_real.AsSpan(from + middle, middle));
            var lowImaginary = Vectors(_imaginary.AsSpan(from, middle));
            var highImaginary = Vectors(_imaginary.AsSpan(from + middle, middle));
            for (var k = 0; k < cosines.Length; k++)
            {
                var real = (highReal[k] * cosines[k]) + (highImaginary[k] * sines[k]);
                var imaginary = (highImaginary[k] * cosines[k]) - (highReal[k] * sines[k]);
                (highReal[k], highImaginary[k]) = (lowReal[k] - real, lowImaginary[k] - imaginary);
                (lowReal[k], lowImaginary[k]) = (lowReal[k] + real, lowImaginary[k] + imaginary);
            }
        }
    }

    private static Span<Vector<double>> Vectors(Span<double> values) => MemoryMarshal.Cast<double, Vector<double>>(values);

    /// <summary>From the transform of the pairs to the power of the whole.</summary>
    private void Unfold()
    {
        var half = _real.Length;
        for (var bin = 0; bin <= half; bin++)
        {
            var (here, mirror) = (bin & (half - 1), (half - bin) & (half - 1));
            var (evenReal, evenImaginary) = ((_real[here] + _real[mirror]) / 2, (_imaginary[here] - _imaginary[mirror]) / 2);
            var (oddReal, oddImaginary) = ((_imaginary[here] + _imaginary[mirror]) / 2, (_real[mirror] - _real[here]) / 2);
            var (cosine, sine) = bin == half ? (-1, 0) : (_cosines[bin], _sines[bin]);
            var real = evenReal + (oddReal * cosine) + (oddImaginary * sine);
            var imaginary = evenImaginary + (oddImaginary * cosine) - (oddReal * sine);
            _power[bin] = (real * real) + (imaginary * imaginary);
        }
    }

    /// <summary>The steps that each pass needs of a table, laid one after the other: a pass of half as many takes every second.</summary>
    private static double[] ByPass(double[] turns)
    {
        var passes = new double[Math.Max(0, turns.Length - 1)];
        for (var middle = 1; middle < turns.Length; middle *= 2)
        for (var k = 0; k < middle; k++)
            passes[middle - 1 + k] = turns[k * (turns.Length / middle)];
        return passes;
    }

    private static int[] Reversed(int count)
    {
        var order = new int[count];
        for (var i = 1; i < count; i++)
            order[i] = (order[i / 2] / 2) | ((i & 1) == 1 ? count / 2 : 0);
        return order;
    }
}
