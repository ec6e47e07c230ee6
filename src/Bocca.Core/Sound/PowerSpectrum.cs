using System.Collections.Concurrent;
using System.Numerics;
using System.Runtime.InteropServices;
using MathNet.Numerics;

namespace Bocca.Core.Sound;

/// <summary>
/// Power by frequency of a stretch of sound under a Hann window: a real transform of a power of two, computed as a complex one
/// of half the length (Cooley and Tukey 1965, decimation in time). Its buffers are used again and again, its tables by
/// all spectra of the length.
/// </summary>
/// <remarks>Not safe for use from two threads at once.</remarks>
public sealed class PowerSpectrum
{
    // One for each length that was ever asked for, which are powers of two and so a handful.
    private static readonly ConcurrentDictionary<int, Tables> Known = [];
    private readonly int[] _order;
    private readonly Tables _tables;
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
        _tables = Known.GetOrAdd(length, static asked => new Tables(asked));
        _order = _tables.Order;
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
        if (start >= 0 && start <= samples.Length - Length)
            Take(samples.Slice(start, Length));
        else
            TakeOutside(samples, start);
        Transform();
        Unfold();
        return _power;
    }

    /// <summary>Even samples stand as the real part, odd ones as the imaginary.</summary>
    private void Take(ReadOnlySpan<float> samples)
    {
        var (evenWeights, oddWeights) = (_tables.EvenWeights, _tables.OddWeights);
        for (var i = 0; i < _order.Length; i++)
        {
            var at = 2 * _order[i];
            (_real[i], _imaginary[i]) = (samples[at] * evenWeights[i], samples[at + 1] * oddWeights[i]);
        }
    }

    private void TakeOutside(ReadOnlySpan<float> samples, int start)
    {
        var window = new float[Length];
        var (from, to) = (Math.Max(0, start), (int)Math.Min(samples.Length, (long)start + Length));
        if (from < to)
            samples[from..to].CopyTo(window.AsSpan(from - start));
        Take(window);
    }

    private void Transform()
    {
        var middle = 1;
        if (_real.Length >= 4)
        {
            JoinFours();
            middle = 4;
        }

        for (; middle < _real.Length; middle *= 2)
        {
            if (middle < Vector<double>.Count)
                JoinShort(middle);
            else
                JoinLong(middle);
        }
    }

    /// <summary>The first two passes at once, which turn by quarters and so multiply nothing.</summary>
    private void JoinFours()
    {
        for (var from = 0; from + 3 < _real.Length; from += 4)
        {
            var real = _real.AsSpan(from, 4);
            var imaginary = _imaginary.AsSpan(from, 4);
            var (sumReal, sumImaginary) = (real[0] + real[1], imaginary[0] + imaginary[1]);
            var (leftReal, leftImaginary) = (real[0] - real[1], imaginary[0] - imaginary[1]);
            var (otherReal, otherImaginary) = (real[2] + real[3], imaginary[2] + imaginary[3]);
            var (restReal, restImaginary) = (real[2] - real[3], imaginary[2] - imaginary[3]);
            (real[0], imaginary[0]) = (sumReal + otherReal, sumImaginary + otherImaginary);
            (real[2], imaginary[2]) = (sumReal - otherReal, sumImaginary - otherImaginary);
            (real[1], imaginary[1]) = (leftReal + restImaginary, leftImaginary - restReal);
            (real[3], imaginary[3]) = (leftReal - restImaginary, leftImaginary + restReal);
        }
    }

    /// <summary>Joins transforms of so many values, of what lies even and odd, to such of twice the length.</summary>
    private void JoinShort(int middle)
    {
        for (var from = 0; from < _real.Length; from += 2 * middle)
        for (var k = 0; k < middle; k++)
        {
            var (low, high) = (from + k, from + k + middle);
            var (cosine, sine) = (_tables.PassCosines[middle - 1 + k], _tables.PassSines[middle - 1 + k]);
            var real = (_real[high] * cosine) + (_imaginary[high] * sine);
            var imaginary = (_imaginary[high] * cosine) - (_real[high] * sine);
            (_real[high], _imaginary[high]) = (_real[low] - real, _imaginary[low] - imaginary);
            (_real[low], _imaginary[low]) = (_real[low] + real, _imaginary[low] + imaginary);
        }
    }

    /// <summary>The same, several values at a time, where there are as many.</summary>
    private void JoinLong(int middle)
    {
        var cosines = Vectors(_tables.PassCosines.AsSpan(middle - 1, middle));
        var sines = Vectors(_tables.PassSines.AsSpan(middle - 1, middle));
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

    /// <summary>From the transform of the pairs to the power of the whole: a bin and its mirror come from the same two values.</summary>
    private void Unfold()
    {
        var half = _real.Length;
        var (cosines, sines) = (_tables.Cosines, _tables.Sines);
        for (var bin = 0; bin <= half / 2; bin++)
        {
            var mirror = (half - bin) & (half - 1);
            var (evenReal, evenImaginary) = ((_real[bin] + _real[mirror]) / 2, (_imaginary[bin] - _imaginary[mirror]) / 2);
            var (oddReal, oddImaginary) = ((_imaginary[bin] + _imaginary[mirror]) / 2, (_real[mirror] - _real[bin]) / 2);
            var turnedReal = (oddReal * cosines[bin]) + (oddImaginary * sines[bin]);
            var turnedImaginary = (oddImaginary * cosines[bin]) - (oddReal * sines[bin]);
            _power[bin] = Square(evenReal + turnedReal) + Square(evenImaginary + turnedImaginary);
            _power[half - bin] = Square(evenReal - turnedReal) + Square(evenImaginary - turnedImaginary);
        }

        static double Square(double value) => value * value;
    }

    /// <summary>What is the same for every spectrum of a length.</summary>
    private sealed class Tables
    {
        public Tables(int length)
        {
            var half = length / 2;
            var window = Window.Hann(length);
            Order = Reversed(half);
            EvenWeights = [.. Order.Select(at => window[2 * at])];
            OddWeights = [.. Order.Select(at => window[(2 * at) + 1])];
            Cosines = [.. Enumerable.Range(0, half).Select(i => Math.Cos(2 * Math.PI * i / length))];
            Sines = [.. Enumerable.Range(0, half).Select(i => Math.Sin(2 * Math.PI * i / length))];
            (PassCosines, PassSines) = (ByPass(Cosines), ByPass(Sines));
        }

        /// <summary>Which pair of samples the transform takes in at each place.</summary>
        public int[] Order { get; }

        /// <summary>The window's weights of the even samples, in the order in which the transform takes them in.</summary>
        public double[] EvenWeights { get; }

        /// <summary>Those of the odd ones.</summary>
        public double[] OddWeights { get; }

        public double[] Cosines { get; }

        public double[] Sines { get; }

        /// <summary>
        /// The cosines that each pass of the transform needs, the shortest pass first: those of one that joins pairs of m begin at m - 1.
        /// </summary>
        public double[] PassCosines { get; }

        /// <summary>The sines likewise.</summary>
        public double[] PassSines { get; }

        /// <summary>The steps that each pass needs of a table, one pass after the other: one of half as many takes every second.</summary>
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
}
