using Bocca.Core.Practice;
using Bocca.Core.Sound;

namespace Bocca.Core.Buzz;

/// <summary>What was asked of the player of a take.</summary>
/// <param name="Drill">The drill.</param>
/// <param name="Plan">The drill's cues at the tempo played.</param>
/// <param name="On">What it was played on.</param>
/// <param name="Pupil">How far the pupil has come.</param>
/// <param name="FirstCueSeconds">When the first try was due, seconds into the sound; null to use the sound's own marks, or none.</param>
public sealed record AskedTake(BuzzDrill Drill, CuePlan Plan, SoundStage On, LearningStage Pupil, double? FirstCueSeconds = null);

/// <summary>A take, heard and judged.</summary>
/// <param name="Track">Its pitch.</param>
/// <param name="Measures">What it says.</param>
/// <param name="Bands">What is good enough.</param>
/// <param name="Verdict">What it comes to.</param>
public sealed record HeardTake(PitchTrack Track, TakeMeasures Measures, StageBands Bands, TakeVerdict Verdict);

/// <summary>Listens to a take from end to end: tracks, measures, judges.</summary>
public static class TakeListener
{
    /// <summary>Hears a take out.</summary>
    public static HeardTake Hear(MonoSound sound, AskedTake asked, JudgedPupil pupil)
    {
        var bands = StageBands.For(asked.On, asked.Pupil).Under(pupil.Approach);
        var track = PitchTrack.Of(sound);
        IReadOnlyList<double>? cues = asked.FirstCueSeconds is { } first ? [.. asked.Plan.Cues.Select(cue => cue + first)] : sound.CueSeconds;
        var measures = TakeMeasures.Of(sound, track, bands, cues);
        return new HeardTake(track, measures, bands, TakeJudge.Judge(measures, bands, asked.Drill, asked.Plan.SoundSeconds, pupil));
    }
}
