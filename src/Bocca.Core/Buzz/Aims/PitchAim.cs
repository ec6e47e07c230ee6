using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>
/// The pitch of a buzz against what the approach holds it against: a model's, or the pupil's own last; where it only
/// has to lie above or below the own middle, nothing is said here. An octave off is told apart and not counted against it.
/// </summary>
internal static class PitchAim
{
    public static AskedHeard? Of(TakeMeasures take, StageBands bands, SoundingPupil pupil)
    {
        var own = pupil.Approach.Of(Points.BuzzPitch);
        var heights = take
            .Spoken.Where(attempt => attempt.IsLevel && (attempt.Asked?.Heights[0] ?? 0) == 0)
            .Select(attempt => attempt.MedianHz)
            .OfType<double>()
            .ToList();
        if (own == BuzzPitch.AboveOrBelowOwnMiddle || pupil.HeldAgainstHz is not { } model || heights.Count == 0)
            return null;
        var heard = heights.Median();
        var cents = Tuning.Cents(model, heard);
        var octaves = (int)Math.Round(cents / 1200);
        var off = cents - (1200 * octaves);
        var where =
            octaves == 0 ? "" : $", {Math.Abs(octaves)} octave{(Math.Abs(octaves) == 1 ? "" : "s")} {(octaves < 0 ? "lower" : "higher")}";
        var told = $"{heard:0} Hz, {off:+0;-0;0} cents{where}";
        return own == BuzzPitch.AModels
            ? new AskedHeard(
                "pitch",
                $"the model's {model:0} Hz, {bands.PitchCents:0} cents either way",
                told,
                Math.Abs(off) <= bands.PitchCents,
                "Sing or hum the model's note, then buzz that."
            )
            {
                Unsung = "Hear the model's note inside, then buzz that.",
            }
            : new AskedHeard("pitch", $"your last, {model:0} Hz", told, null);
    }
}
