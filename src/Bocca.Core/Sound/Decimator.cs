namespace Bocca.Core.Sound;

/// <summary>
/// Lowers the sample rate by a whole factor after a linear-phase low-pass at 3 kHz (windowed sinc, Blackman), and takes out
/// what lies below 10 Hz. Streams: the output depends on the samples alone, not on how they were cut into blocks.
/// </summary>
internal sealed class Decimator
{
    private const int TapsPerFactor = 24;

    /// <summary>What lies higher says nothing of a pitch under 1200 Hz that its lower harmonics do not say with less noise.</summary>
    private const double HighestHz = 3000;
    private readonly int _factor;
    private readonly float[] _taps;
    private readonly float[] _history;
    private readonly float _dcKeep;
    private int _filled;
    private int _phase;
    private float _last;
    private float _blocked;

    public Decimator(int factor, int sampleRate)
    {
        _factor = factor;
        _taps = factor == 1 ? [1f] : LowPass(factor, sampleRate);
        // The history starts half a filter full of silence, so that output i is centred on input i x factor.
        _history = new float[_taps.Length * 8];
        _filled = _taps.Length / 2;
        _dcKeep = (float)Math.Exp(-2 * Math.PI * 10 / sampleRate);
    }

    /// <summary>Takes samples in and appends what comes out.</summary>
    public void Push(ReadOnlySpan<float> samples, SampleBuffer into)
    {
        foreach (var sample in samples)
        {
            _blocked = sample - _last + (_dcKeep * _blocked);
            _last = sample;
            if (_filled == _history.Length)
            {
                _history.AsSpan(_filled - _taps.Length + 1).CopyTo(_history);
                _filled = _taps.Length - 1;
            }

            _history[_filled++] = _blocked;
            if (_filled < _taps.Length)
                continue;
            if (_phase == 0)
                into.Add(Dot(_history.AsSpan(_filled - _taps.Length, _taps.Length), _taps));
            _phase = (_phase + 1) % _factor;
        }
    }

    /// <summary>Pushes silence through until the last sample has come out.</summary>
    public void Finish(SampleBuffer into)
    {
        Span<float> silence = stackalloc float[_taps.Length / 2];
        silence.Fill(_last);
        Push(silence, into);
    }

    private static float Dot(ReadOnlySpan<float> a, ReadOnlySpan<float> b)
    {
        var sum = System.Numerics.Vector<float>.Zero;
        var width = System.Numerics.Vector<float>.Count;
        var i = 0;
        for (; i <= a.Length - width; i += width)
            sum += new System.Numerics.Vector<float>(a[i..]) * new System.Numerics.Vector<float>(b[i..]);
        var total = System.Numerics.Vector.Sum(sum);
        for (; i < a.Length; i++)
            total += a[i] * b[i];
        return total;
    }

    private static float[] LowPass(int factor, int sampleRate)
    {
        var length = (TapsPerFactor * factor) + 1;
        var cutoff = Math.Min(0.45 / factor, HighestHz / sampleRate);
        var window = MathNet.Numerics.Window.Blackman(length);
        var taps = new double[length];
        for (var i = 0; i < length; i++)
        {
            var x = i - ((length - 1) / 2);
            taps[i] = window[i] * (x == 0 ? 2 * cutoff : Math.Sin(2 * Math.PI * cutoff * x) / (Math.PI * x));
        }

        var gain = taps.Sum();
        return [.. taps.Select(tap => (float)(tap / gain))];
    }
}
