using BenchmarkDotNet.Attributes;
using Bocca.Core.Counting;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;

namespace Bocca.Bench;

/// <summary>
/// A row of four cards said and clapped, judged (to be under 150 ms), beside its pitch alone; thirty cards written (to be under 5 ms).
/// </summary>
public class CountBenchmarks
{
    private const double Lead = 0.5;
    private CountAsked _asked = null!;
    private MonoSound _sound = null!;

    [GlobalSetup]
    public void Make()
    {
        string[] cards = ["q. e q q", "q q e e q", "h q rq", "e e q h"];
        _asked = new CountAsked([.. cards.Select(card => RhythmCard.Parse(card, Metre.Common))], 80, 2, CountWays.Said | CountWays.Clapped);
        _sound = ClappingHands.Play(_asked, CountCharacter.Get("right"), 1, Lead);
    }

    [Benchmark]
    public string Judged() => CountListener.Hear(_sound, _asked, Lead, 60).Sentence;

    [Benchmark(Baseline = true)]
    public int PitchAlone() => PitchTrack.Of(_sound).Frames.Count;

    [Benchmark]
    public int Written() => Enumerable.Range(0, 30).Sum(seed => CardWriter.Write(Metre.Common, RhythmValue.All, 1, seed).Notes.Count);
}
