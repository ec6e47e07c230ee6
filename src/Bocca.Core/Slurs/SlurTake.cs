using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Listening;

namespace Bocca.Core.Slurs;

/// <summary>A take of a slur, heard and judged.</summary>
/// <param name="Asked">What was asked.</param>
/// <param name="Heard">Its notes and changes held against those written.</param>
/// <param name="Verdict">What it comes to.</param>
/// <param name="FirstCueSeconds">When the first note was due, seconds into the sound; null where nobody knows.</param>
public sealed record SlurTake(AskedSlur Asked, HeardSlur Heard, Verdict Verdict, double? FirstCueSeconds)
{
    /// <summary>What of it is drawn and kept.</summary>
    public RowTrace Trace =>
        field ??= RowTrace.Of(Heard.Row, new AskedRow(Asked.Plan, Asked.Player, Asked.Pupil) { FirstCueSeconds = FirstCueSeconds });

    /// <summary>Hears a take out and judges it: what a page, a command and a demonstration do with a slur.</summary>
    /// <param name="sound">The recording.</param>
    /// <param name="asked">What was asked.</param>
    /// <param name="pupil">Who is judged.</param>
    /// <param name="onward">The slur that comes after it; null for none.</param>
    /// <param name="firstCueSeconds">When the first note was due, seconds into the sound; null where nobody knows.</param>
    /// <param name="missingSeconds">How much of the recording did not arrive.</param>
    public static SlurTake Hear(
        MonoSound sound,
        AskedSlur asked,
        JudgedPupil pupil,
        Slur? onward,
        double? firstCueSeconds = null,
        double missingSeconds = 0
    )
    {
        var heard = HeardSlur.Hear(sound, asked, firstCueSeconds, missingSeconds);
        return new SlurTake(asked, heard, SlurJudge.Judge(heard, asked, pupil, onward), firstCueSeconds);
    }
}
