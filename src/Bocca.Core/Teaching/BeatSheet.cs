namespace Bocca.Core.Teaching;

/// <summary>What a beat of a drill is for.</summary>
public enum BeatPhase
{
    /// <summary>It sounds.</summary>
    Sound,

    /// <summary>It is sung.</summary>
    Sing,

    /// <summary>It rests.</summary>
    Rest,

    /// <summary>The breath for the next sound is taken.</summary>
    Breathe,
}

/// <summary>A beat as it is counted.</summary>
/// <param name="Count">Its number within what it belongs to, from 1.</param>
/// <param name="Label">What is played, or what to do in the rest; empty for nothing.</param>
/// <param name="Phase">What it is for.</param>
public sealed record CountedBeat(int Count, string Label, BeatPhase Phase);

/// <summary>A drill counted beat by beat, so that nobody has to.</summary>
public static class BeatSheet
{
    /// <summary>Beats before a sound on which to breathe in (common practice).</summary>
    private const int BreathBeats = 2;

    /// <summary>The beats of a plan, from the first cue to the end of the last rest.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="restWords">What to do in a rest; empty for nothing.</param>
    public static IReadOnlyList<CountedBeat> Of(CuePlan plan, string restWords = "")
    {
        var beats = new List<CountedBeat>();
        var inARow = 0;
        for (var i = 0; i < plan.Times; i++)
        {
            var cue = plan.Tries[i];
            var last = i == plan.Times - 1;
            var (sounding, all) = ((int)Math.Ceiling(cue.SoundBeats), (int)Math.Round(cue.SoundBeats + cue.RestBeats));
            // Single beats in a row are counted in fours, as a set; the last of them may be followed by a rest.
            var first = sounding == 1 ? inARow % 4 : 0;
            inARow = all == 1 ? inARow + 1 : 0;
            for (var beat = 0; beat < sounding; beat++)
                beats.Add(new CountedBeat(first + beat + 1, cue.Label, cue.Voice ? BeatPhase.Sing : BeatPhase.Sound));
            for (var beat = sounding; beat < all; beat++)
                beats.Add(
                    !last && all - beat <= BreathBeats
                        ? new CountedBeat(beat - sounding + 1, "breathe", BeatPhase.Breathe)
                        : new CountedBeat(beat - sounding + 1, restWords, BeatPhase.Rest)
                );
        }

        return beats;
    }

    /// <summary>What an approach does with the mouthpiece in the rests; empty off the mouthpiece.</summary>
    public static string RestWords(Approach approach, SoundStage on) =>
        on == SoundStage.Lips ? ""
        : approach.Of(Points.MouthpieceInRests) == MouthpieceInRests.StaysOn ? "the rim stays on"
        : "take it off, set it anew";
}
