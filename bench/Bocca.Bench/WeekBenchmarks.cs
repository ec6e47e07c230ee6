using BenchmarkDotNet.Attributes;
using Bocca.Core.Breath;
using Bocca.Core.Health;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Practice.Week;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Bench;

/// <summary>A usual week of twelve items, planned; the week that planning begins with, made greedily, is the reference.</summary>
[MemoryDiagnoser]
public class WeekBenchmarks
{
    private const int Items = 12;

    private static readonly double[] Minutes = [20, 20, 20, 20, 20, 20, 0];

    private WeekAsked? _asked;

    [GlobalSetup]
    public void Ask()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var pupil = new WeekPupil(
            new PlayerSituation(trumpet, trumpet.Readings[0], new Tuning(440)),
            Approach.Of(ApproachPreset.MouthpieceFirst),
            LearningStage.Second,
            new BreathingPupil(11, BreathHealth.None, false),
            OwnSettings.None
        );
        var items = StandardWeek
            .Items(pupil)
            .Concat(StandardWeek.Drills(pupil, "buzz").Concat(StandardWeek.Drills(pupil, "notes")))
            .DistinctBy(item => item.Id)
            .Take(Items)
            .ToList();
        var asked = new WeekAsked(Minutes, items, PlayingLimits.For(LearningStage.Second, 100));
        _asked = asked with { Items = StandardWeek.Filling(items, Minutes[0], asked) };
    }

    [Benchmark(Baseline = true, Description = "a week made greedily")]
    public double Greedy() => WeekPlanner.Plan(_asked!, mostNodes: 1).Worth;

    [Benchmark(Description = "a week planned")]
    public double Planned() => WeekPlanner.Plan(_asked!).Worth;
}
