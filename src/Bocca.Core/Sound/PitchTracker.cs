namespace Bocca.Core.Sound;

/// <summary>
/// Follows the pitch of one voice, in frames of 10 ms, from a stream or a file: the frames depend on the samples
/// alone, not on how they arrive. It knows nothing of brass. See METHODS for the formulas and their sources.
/// </summary>
/// <remarks>
/// A frame is given out once the path has looked ahead (<see cref="PitchTrackerSettings.LookAheadFrames"/>).
/// Not safe for use from two threads at once.
/// </remarks>
public sealed class PitchTracker
{
    private const double LowestDb = -120;
    private const double TargetRate = 11025;
    private static readonly float[] WindowWeights = [0.5f, 1, 1, 1, 0.5f];
    private static readonly double[] LevelWeights = [0, 0.25, 0.5, 0.25, 0];
    private readonly double _hop;
    private readonly int _sampleRate;
    private readonly int _factor;
    private readonly Decimator _decimator;
    private readonly SampleBuffer _samples = new();
    private readonly BlockDifferences _differences;
    private readonly LagBlock[] _window;
    private readonly PeriodFinder _periods;
    private readonly PitchPath _path;
    private readonly PeriodCandidate[] _candidates = new PeriodCandidate[PeriodFinder.Most];
    private long _received;
    private long _blocks;

    /// <summary>A tracker for one stream.</summary>
    /// <param name="sampleRate">Samples a second, 8000 to 192000.</param>
    /// <param name="settings">What to listen for; the usual range of brass by default.</param>
    /// <exception cref="ArgumentOutOfRangeException">A rate or a pitch lies outside its range.</exception>
    public PitchTracker(int sampleRate, PitchTrackerSettings? settings = null)
    {
        settings ??= new PitchTrackerSettings();
        ArgumentOutOfRangeException.ThrowIfLessThan(sampleRate, 8000);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(sampleRate, 192_000);
        ArgumentOutOfRangeException.ThrowIfLessThan(settings.LowestHz, 20);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(settings.HighestHz, 2000);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(settings.LowestHz, settings.HighestHz);
        _sampleRate = sampleRate;
        _factor = Math.Max(1, (int)Math.Round(sampleRate / TargetRate));
        var rate = (double)sampleRate / _factor;
        _hop = rate * PitchTrack.HopSeconds;
        var longest = (int)Math.Ceiling(rate / settings.LowestHz) + 2;
        var shortest = Math.Max(2, (int)(rate / settings.HighestHz) - 1);
        _decimator = new Decimator(_factor, sampleRate);
        _differences = new BlockDifferences(longest, (int)Math.Ceiling(_hop) + 1);
        _window = [.. WindowWeights.Select(_ => new LagBlock(longest))];
        _periods = new PeriodFinder(rate, shortest, longest, settings);
        _path = new PitchPath(settings);
    }

    /// <summary>Takes the next samples in and appends the frames that are decided by now.</summary>
    /// <param name="samples">Samples, full scale at -1 and 1.</param>
    /// <param name="into">Where frames go.</param>
    public void Push(ReadOnlySpan<float> samples, ICollection<PitchFrame> into)
    {
        _received += samples.Length;
        _decimator.Push(samples, _samples);
        while (_samples.End >= BlockStart(_blocks + 1) + _differences.Beyond)
            MeasureBlock(into);
    }

    /// <summary>
    /// Appends a guess at the frames that have been heard but are not decided yet, up to the newest. The next
    /// <see cref="Push"/> may decide them otherwise.
    /// </summary>
    public void Preview(ICollection<PitchFrame> into) => _path.Preview(into);

    /// <summary>Appends the last frames; the tracker takes no more samples.</summary>
    public void Finish(ICollection<PitchFrame> into)
    {
        _decimator.Finish(_samples);
        var frames = (long)Math.Ceiling(_received / (_sampleRate * PitchTrack.HopSeconds) - 1e-9);
        while (_blocks < frames + (WindowWeights.Length / 2))
            MeasureBlock(into);
        while (_path.Flush(out var frame))
            into.Add(frame);
    }

    private long BlockStart(long block) => (long)Math.Round(block * _hop);

    private void MeasureBlock(ICollection<PitchFrame> into)
    {
        var oldest = _window[0];
        Array.Copy(_window, 1, _window, 0, _window.Length - 1);
        _window[^1] = oldest;
        var start = BlockStart(_blocks);
        _differences.Measure(_samples, start, (int)(BlockStart(_blocks + 1) - start), oldest);
        _blocks++;
        _samples.ForgetBefore(BlockStart(_blocks) - _differences.Beyond - 1);
        var frame = _blocks - 1 - (WindowWeights.Length / 2);
        if (frame < 0)
            return;
        var count = _periods.Find(_window, WindowWeights, _candidates);
        var time = (frame + 0.5) * PitchTrack.HopSeconds;
        if (_path.Push(time, Level(), _candidates.AsSpan(0, count), out var decided))
            into.Add(decided);
    }

    private double Level()
    {
        var power = 0.0;
        for (var i = 0; i < _window.Length; i++)
            power += LevelWeights[i] * _window[i].MeanSquare;
        return Math.Max(LowestDb, 10 * Math.Log10(power + 1e-20));
    }
}
