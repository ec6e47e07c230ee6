using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Record;

namespace Bocca.Web.Tests.Record;

/// <summary>Takes for tests of the record: heard once, then dated and given to whom they are wanted for.</summary>
internal static class BuzzTakes
{
    private static readonly Lazy<(AskedTake Asked, HeardTake Heard)> Once = new(() =>
    {
        var drill = BuzzDrill.All[0];
        var asked = new AskedTake(drill, drill.Plan.At(160), SoundStage.Mouthpiece, LearningStage.FirstNotes);
        var trumpet = Core.Instruments.Catalogue.Get("trumpet-bb");
        var sound = SimulatedPlayer.Play(trumpet, asked.On, asked.Plan, [Fault.Parse("wander=12")], 1, Tuning.Standard).Sound;
        return (asked, TakeListener.Hear(sound, asked, SoundingPupil.Unknown));
    });

    public static (Entry Entry, BuzzPayload Payload) Of(Pupil pupil, DateTime at, int seed) =>
        BuzzStop.Take(pupil, Once.Value.Asked, EntrySource.Microphone, Once.Value.Heard, at.AddSeconds(seed));
}
