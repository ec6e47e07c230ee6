using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;

namespace Bocca.Web.Live;

/// <summary>
/// Hears one short take soon after the application starts, so that the first pupil's line is as quick as the next one's.
/// </summary>
public sealed class WarmUp(FirstPage first) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await first.WaitAsync(stoppingToken);
        await Task.Run(() => Hear(stoppingToken), stoppingToken);
    }

    private static void Hear(CancellationToken stopping)
    {
        var (instrument, drill) = (Catalogue.All[0], BuzzDrill.All[0]);
        var plan = new CuePlan(160, 4, 4, 1);
        var take = SimulatedPlayer.Play(instrument, SoundStage.Mouthpiece, plan, [], 1, PlayingConditions.Usual.Tuning);
        var thread = LiveThread.For(instrument, take.Sound.SampleRate, PlayingConditions.Usual.Tuning);
        var points = new List<LivePoint>();
        // Often enough for the runtime to compile the inner loops for good.
        for (var block = 0; block + 882 <= take.Sound.Samples.Length && !stopping.IsCancellationRequested; block += 882)
            thread.Push(take.Sound.Samples.AsSpan(block, 882), points);
        TakeListener.Hear(take.Sound, new AskedTake(drill, plan, SoundStage.Mouthpiece, LearningStage.FirstNotes), SoundingPupil.Unknown);
    }
}
