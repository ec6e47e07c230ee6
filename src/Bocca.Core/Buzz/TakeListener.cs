using Bocca.Core.Buzz.Aims;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz;

/// <summary>A take, heard and judged.</summary>
/// <param name="Track">Its pitch.</param>
/// <param name="Measures">What it says.</param>
/// <param name="Bands">What is good enough.</param>
/// <param name="Verdict">What it comes to.</param>
public sealed record HeardTake(PitchTrack Track, TakeMeasures Measures, StageBands Bands, Verdict Verdict)
{
    /// <summary>The whole take on one line; null where threads alone tell it.</summary>
    public TakeStrip? Strip { get; init; }
}

/// <summary>Listens to a take from end to end: tracks, measures, judges.</summary>
public static class TakeListener
{
    /// <summary>Hears a take out; what cannot be measured is not judged.</summary>
    public static HeardTake Hear(MonoSound sound, AskedTake asked, SoundingPupil pupil)
    {
        var bands = pupil.Bands.For(asked.On, asked.Pupil).Under(pupil.Approach);
        var track = PitchTrack.Of(sound);
        IReadOnlyList<double>? cues = asked.FirstCueSeconds is { } first
            ? [.. asked.Plan.Cues.Select(cue => cue + first)]
            : sound.CueSeconds;
        var measures = TakeMeasures.Of(sound, track, bands, asked.Plan, cues) with { MissingSeconds = asked.MissingSeconds };
        if (Disturbance.Find(sound, track, Quiet(asked.Plan, cues), asked.Plan.Tries.Any(cue => cue.Voice || cue.Glides)) is { } problem)
            return new HeardTake(track, measures, bands, TakeJudge.Unreadable(measures, bands, asked.Drill, problem));
        var aimed = new AimedTake(asked, measures, track, bands, pupil.Bands);
        var aims = DrillAims.Of(aimed);
        var strip = TakeStrip.Fits(asked.Plan) ? TakeStrip.Of(aimed, cues) : null;
        return new HeardTake(track, measures, bands, TakeJudge.Judge(measures, bands, asked.Drill, aims, pupil)) { Strip = strip };
    }

    /// <summary>The rests, each less half a second at either end for those who start early or end late.</summary>
    private static IReadOnlyList<(double From, double To)> Quiet(CuePlan plan, IReadOnlyList<double>? cues)
    {
        const double Edge = 0.5;
        return cues is null
            ? []
            :
            [
                .. plan
                    .Tries.Zip(cues)
                    .Select(pair =>
                        (
                            From: pair.Second + plan.SecondsOf(pair.First) + Edge,
                            To: pair.Second + ((pair.First.SoundBeats + pair.First.RestBeats) * plan.BeatSeconds) - Edge
                        )
                    )
                    .Where(span => span.To > span.From),
            ];
    }
}
