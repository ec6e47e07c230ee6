using System.Numerics.Tensors;

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

    // How full the history is when the next output comes.
    private int _next;
    private float _last;
    private float _blocked;

    public Decimator(int factor, int sampleRate)
    {
        _factor = factor;
        _taps = factor == 1 ? [1f] : LowPass(factor, sampleRate);
        // The history starts half a filter full of silence, so that output i is centred on input i x factor.
        _history = new float[_taps.Length * 8];
        _filled = _taps.Length / 2;
        _next = _taps.Length;
        _dcKeep = (float)Math.Exp(-2 * Math.PI * 10 / sampleRate);
    }

    /// <summary>Takes samples in and appends what comes out.</summary>
    public void Push(ReadOnlySpan<float> samples, SampleBuffer into)
    {
        var (last, blocked, filled) = (_last, _blocked, _filled);
        foreach (var sample in samples)
        {
            blocked = sample - last + (_dcKeep * blocked);
            last = sample;
            if (filled == _history.Length)
                filled = MakeRoom();
            _history[filled++] = blocked;
            if (filled != _next)
                continue;
            into.Add(TensorPrimitives.Dot(_history.AsSpan(filled - _taps.Length, _taps.Length), _taps));
            _next += _factor;
        }

        (_last, _blocked, _filled) = (last, blocked, filled);
    }

    /// <summary>Keeps of a full history what the filter still needs.</summary>
    /// <returns>How much is kept.</returns>
    private int MakeRoom()
    {
        var kept = _taps.Length - 1;
        _history.AsSpan(_history.Length - kept).CopyTo(_history);
        _next -= _history.Length - kept;
        return kept;
    }

    /// <summary>Pushes silence through until the last sample has come out.</summary>
    public void Finish(SampleBuffer into)
    {
        Span<float> silence = stackalloc float[_taps.Length / 2];
        silence.Fill(_last);
        Push(silence, into);
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
