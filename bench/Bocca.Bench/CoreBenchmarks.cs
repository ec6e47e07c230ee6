using BenchmarkDotNet.Attributes;
using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Practice;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;

namespace Bocca.Bench;

/// <summary>One second's worth of the main jobs; the plain difference function of every lag is the reference.</summary>
[MemoryDiagnoser]
public class CoreBenchmarks
{
    private readonly MonoSound _sound = SimulatedPlayer.Play(Catalogue.Get("trumpet-bb"), SoundStage.Mouthpiece, new CuePlan(60, 4, 4, 1), [], 1).Sound;

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

    [Benchmark(Description = "chart of a trumpet")]
    public int Chart() => FingeringChart.Of(Catalogue.Get("trumpet-bb"), Catalogue.Get("trumpet-bb").Readings[0]).Count;
}
