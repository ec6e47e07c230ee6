using System.Numerics;
using System.Numerics.Tensors;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;

namespace Bocca.Core.Sound;

/// <summary>
/// The squared difference between a sound and itself a lag later, summed over one block of samples, for every lag
/// (the difference function of de Cheveigné and Kawahara 2002). The two samples of a pair lie half a lag to either
/// side of the block, so a glide is measured at the block's own time. Windows of any length are sums of blocks,
/// so no pair is ever computed twice.
/// </summary>
internal sealed class BlockDifferences
{
    /// <summary>How many lags are measured at once: of an even lag and the next three, two and two share one side of their pairs.</summary>
    private const int AtOnce = 4;
    private readonly int _longestLag;
    private readonly int _before;
    private readonly float[] _around;
    private readonly double[] _sumBefore;
    private readonly double[] _energy;

    /// <param name="longestLag">The longest lag in samples.</param>
    /// <param name="longestBlock">The longest block in samples.</param>
    public BlockDifferences(int longestLag, int longestBlock)
    {
        _longestLag = longestLag;
        // The last lags measured at once may be longer than the longest.
        _before = (longestLag + AtOnce) / 2;
        _around = new float[longestBlock + (2 * (_before + 1))];
        _sumBefore = new double[_around.Length + 1];
        _energy = new double[_around.Length];
    }

    /// <summary>Samples that must be known past a block's end.</summary>
    public int Beyond => (_longestLag / 2) + 1;

    /// <summary>Measures one block.</summary>
    /// <param name="samples">The sound.</param>
    /// <param name="start">Index of the block's first sample.</param>
    /// <param name="length">Samples in the block.</param>
    /// <param name="block">Where the sums go.</param>
    public void Measure(SampleBuffer samples, long start, int length, LagBlock block)
    {
        var around = _around.AsSpan(0, length + (2 * (_before + 1)));
        samples.CopyTo(start - _before, around);
        SumEnergies(around, length);
        block.MeanSquare = _energy[_before] / length;
        for (var lag = 1; lag <= _longestLag; lag++)
        {
            var early = _before - (lag / 2);
            block.Energy[lag] = (float)(_energy[early] + _energy[early + lag]);
        }

        var tail = Tail(length);
        Span<float> four = stackalloc float[AtOnce];
        for (var lag = 0; lag <= _longestLag; lag += AtOnce)
        {
            SquaredDistances(around[(_before - (lag / 2) - 1)..], lag, length, tail, four);
            four[..Math.Min(AtOnce, _longestLag + 1 - lag)].CopyTo(block.Difference.AsSpan(lag));
        }
    }

    /// <summary>The sum of squares of every stretch of so many samples.</summary>
    private void SumEnergies(ReadOnlySpan<float> around, int length)
    {
        // Two at a time: each sum waits only for every second one.
        var sum = 0.0;
        for (var i = 0; i + 1 < around.Length; i += 2)
        {
            var square = (double)around[i] * around[i];
            _sumBefore[i + 1] = sum + square;
            sum += square + ((double)around[i + 1] * around[i + 1]);
            _sumBefore[i + 2] = sum;
        }

        var last = around.Length - length - 1;
        TensorPrimitives.Subtract(_sumBefore.AsSpan(length, last + 1), _sumBefore.AsSpan(0, last + 1), _energy);
    }

    /// <summary>
    /// Sums of squared differences of a block at least a vector long, of a lag that is a multiple of four and the three that follow. Of
    /// such lags two and two begin at the same sample, and two end at the same: each sample is fetched once for all of them.
    /// </summary>
    /// <param name="around">The sound, from one sample before the earlier side of the first lag on.</param>
    /// <param name="lag">The first lag, samples.</param>
    /// <param name="length">Samples in the block.</param>
    /// <param name="tail">Which samples of the last vector count.</param>
    /// <param name="into">The four sums.</param>
    private static void SquaredDistances(ReadOnlySpan<float> around, int lag, int length, Vector<float> tail, Span<float> into)
    {
        ref var early = ref MemoryMarshal.GetReference(around);
        ref var late = ref MemoryMarshal.GetReference(around[(lag + 1)..]);
        var width = (nuint)Vector<float>.Count;
        var whole = (nuint)length / width * width;
        Vector<float> first = default,
            second = default,
            third = default,
            fourth = default;
        for (nuint i = 0; i < whole; i += width)
        {
            var (a, b, c, d) = Differences(ref early, ref late, i);
            (first, second, third, fourth) = (Add(first, a), Add(second, b), Add(third, c), Add(fourth, d));
        }

        // The last vector overlaps what is counted already; the tail lets only the rest through.
        var last = Differences(ref early, ref late, (nuint)length - width);
        into[0] = Vector.Sum(Add(first, last.First * tail));
        into[1] = Vector.Sum(Add(second, last.Second * tail));
        into[2] = Vector.Sum(Add(third, last.Third * tail));
        into[3] = Vector.Sum(Add(fourth, last.Fourth * tail));
    }

    /// <summary>A vector of differences for each of four lags.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private static (Vector<float> First, Vector<float> Second, Vector<float> Third, Vector<float> Fourth) Differences(
        ref float early,
        ref float late,
        nuint at
    )
    {
        var (before, here) = (Vector.LoadUnsafe(ref early, at), Vector.LoadUnsafe(ref early, at + 1));
        var (near, next) = (Vector.LoadUnsafe(ref late, at), Vector.LoadUnsafe(ref late, at + 1));
        return (here - near, here - next, before - next, before - Vector.LoadUnsafe(ref late, at + 2));
    }

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private static Vector<float> Add(Vector<float> sum, Vector<float> difference) => Vector.FusedMultiplyAdd(difference, difference, sum);

    /// <summary>Ones where the last vector of a span holds samples that whole vectors from its start do not.</summary>
    private static Vector<float> Tail(int length)
    {
        var width = Vector<float>.Count;
        Span<float> lanes = stackalloc float[width];
        lanes[(width - (length % width))..].Fill(1);
        return new Vector<float>(lanes);
    }
}

/// <summary>The sums of one block, by lag in samples.</summary>
internal sealed class LagBlock(int longestLag)
{
    /// <summary>Sum of squared differences.</summary>
    public float[] Difference { get; } = new float[longestLag + 1];

    /// <summary>Sum of the energies of both sides.</summary>
    public float[] Energy { get; } = new float[longestLag + 1];

    /// <summary>Mean square of the block itself.</summary>
    public double MeanSquare { get; set; }
}
