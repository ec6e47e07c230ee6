using System.Numerics;
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
    private readonly int _longestLag;
    private readonly float[] _around;
    private readonly double[] _energyBefore;

    /// <param name="longestLag">The longest lag in samples.</param>
    /// <param name="longestBlock">The longest block in samples.</param>
    public BlockDifferences(int longestLag, int longestBlock)
    {
        _longestLag = longestLag;
        _around = new float[longestBlock + longestLag + 2];
        _energyBefore = new double[_around.Length + 1];
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
        var before = _longestLag / 2;
        var around = _around.AsSpan(0, length + _longestLag + 2);
        samples.CopyTo(start - before, around);
        for (var i = 0; i < around.Length; i++)
            _energyBefore[i + 1] = _energyBefore[i] + ((double)around[i] * around[i]);
        block.MeanSquare = (_energyBefore[before + length] - _energyBefore[before]) / length;
        var tail = Tail(length);
        for (var lag = 1; lag <= _longestLag; lag++)
        {
            var early = before - (lag / 2);
            var late = early + lag;
            block.Difference[lag] = SquaredDistance(around.Slice(early, length), around.Slice(late, length), tail);
            block.Energy[lag] = (float)(
                _energyBefore[early + length] - _energyBefore[early] + _energyBefore[late + length] - _energyBefore[late]
            );
        }
    }

    /// <summary>Sum of squared differences of two spans of one length, at least a vector long.</summary>
    private static float SquaredDistance(ReadOnlySpan<float> a, ReadOnlySpan<float> b, Vector<float> tail)
    {
        ref var first = ref MemoryMarshal.GetReference(a);
        ref var second = ref MemoryMarshal.GetReference(b);
        var width = (nuint)Vector<float>.Count;
        var length = (nuint)a.Length;
        Vector<float> even = default,
            odd = default;
        nuint i = 0;
        for (; i + (2 * width) <= length; i += 2 * width)
        {
            var here = Vector.LoadUnsafe(ref first, i) - Vector.LoadUnsafe(ref second, i);
            var next = Vector.LoadUnsafe(ref first, i + width) - Vector.LoadUnsafe(ref second, i + width);
            even = Vector.FusedMultiplyAdd(here, here, even);
            odd = Vector.FusedMultiplyAdd(next, next, odd);
        }

        if (i + width <= length)
        {
            var here = Vector.LoadUnsafe(ref first, i) - Vector.LoadUnsafe(ref second, i);
            even = Vector.FusedMultiplyAdd(here, here, even);
        }

        // The last vector overlaps what is counted already; the tail lets only the rest through.
        var last = (Vector.LoadUnsafe(ref first, length - width) - Vector.LoadUnsafe(ref second, length - width)) * tail;
        return Vector.Sum(Vector.FusedMultiplyAdd(last, last, even + odd));
    }

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
