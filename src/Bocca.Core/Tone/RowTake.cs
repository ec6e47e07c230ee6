using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Listening;

namespace Bocca.Core.Tone;

/// <summary>A take of a row of notes, heard and judged.</summary>
/// <param name="Asked">What was asked.</param>
/// <param name="Heard">Its notes held against those meant.</param>
/// <param name="Verdict">What it comes to.</param>
public sealed record RowTake(AskedRow Asked, HeardRow Heard, Verdict Verdict)
{
    /// <summary>What of it is drawn and kept.</summary>
    public RowTrace Trace => field ??= RowTrace.Of(Heard, Asked);

    /// <summary>Hears a take out and judges it: what a page, a command and a demonstration do with a row.</summary>
    /// <param name="sound">The recording.</param>
    /// <param name="asked">What was asked.</param>
    /// <param name="pupil">Who is judged.</param>
    /// <param name="passesBefore">Passes of the drill at this tempo in a row before this take.</param>
    public static RowTake Hear(MonoSound sound, AskedRow asked, SoundingPupil pupil, int passesBefore = 0)
    {
        var heard = RowListener.Hear(sound, asked);
        return new RowTake(asked, heard, RowJudge.Judge(heard, asked, pupil, passesBefore));
    }
}
