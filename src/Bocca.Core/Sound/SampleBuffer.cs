namespace Bocca.Core.Sound;

/// <summary>Samples of a stream, addressed by their index since its start; the oldest can be forgotten.</summary>
internal sealed class SampleBuffer
{
    private float[] _samples = new float[16384];
    private long _first;
    private int _count;

    /// <summary>Index one past the newest sample.</summary>
    public long End => _first + _count;

    public void Add(float sample)
    {
        if (_count == _samples.Length)
            Array.Resize(ref _samples, _samples.Length * 2);
        _samples[_count++] = sample;
    }

    /// <summary>Copies samples from an index on; what lies before the start or after the end is silence.</summary>
    public void CopyTo(long from, Span<float> target)
    {
        target.Clear();
        var start = Math.Max(from, _first);
        var end = Math.Min(from + target.Length, End);
        if (end > start)
            _samples.AsSpan((int)(start - _first), (int)(end - start)).CopyTo(target[(int)(start - from)..]);
    }

    /// <summary>Forgets the samples before an index, when that is worth moving the rest.</summary>
    public void ForgetBefore(long index)
    {
        var drop = (int)Math.Clamp(index - _first, 0, _count);
        if (drop < _samples.Length / 2)
            return;
        _samples.AsSpan(drop, _count - drop).CopyTo(_samples);
        _first += drop;
        _count -= drop;
    }
}
