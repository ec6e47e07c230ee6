using BenchmarkDotNet.Attributes;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;

namespace Bocca.Bench;

/// <summary>One second's worth of the main jobs; the plain difference function of every lag is the reference.</summary>
[MemoryDiagnoser]
public class CoreBenchmarks
{
    private readonly MonoSound _sound = SimulatedPlayer
        .Play(Catalogue.Get("trumpet-bb"), SoundStage.Mouthpiece, new CuePlan(60, 4, 4, 1), [], 1, Tuning.Standard)
        .Sound;

    private readonly PitchTracker _tracker = new(44100);
    private readonly List<PitchFrame> _frames = new(1000);

    [Benchmark(Baseline = true, Description = "difference function, plain, 8 s")]
    public double PlainDifference()
    {
        var samples = _sound.Samples;
        var total = 0.0;
        for (var start = 0; start + 4096 < samples.Length; start += 441)
        for (var lag = 36; lag < 1575; lag++)
        for (var i = 0; i < 1102; i += 4)
            total += (samples[start + i] - samples[start + i + lag]) * (samples[start + i] - samples[start + i + lag]);
        return total;
    }

    [Benchmark(Description = "pitch track, 8 s")]
    public int Track() => PitchTrack.Of(_sound).Frames.Count;

    /// <summary>A stream that has run for a while: a hundred blocks of 20 ms, without new memory.</summary>
    [Benchmark(Description = "live line, 100 blocks of 20 ms")]
    public int Live()
    {
        _frames.Clear();
        for (var i = 0; i < 100; i++)
            _tracker.Push(_sound.Samples.AsSpan(882 * i, 882), _frames);
        return _frames.Count;
    }

    [Benchmark(Description = "practice player, one try of 4 s")]
    public int Player() =>
        SimulatedPlayer
            .Play(Catalogue.Get("trumpet-bb"), SoundStage.Mouthpiece, new CuePlan(60, 4, 4, 1), [], 1, Tuning.Standard)
            .Tones.Count;
}
