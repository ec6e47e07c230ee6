using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Aims;

/// <summary>Buzzes before and after something that is done with the face: what it changed, beyond the spread of the repeats.</summary>
internal static class PairAim
{
    /// <summary>A tone is told to be there sooner or later from this much on (ms; ours, editable).</summary>
    private const double SoonerMs = 30;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var (before, after) = (take.Of(DrillPart.Before), take.Of(DrillPart.After));
        if (before.Count == 0 || after.Count == 0)
            return
            [
                new AskedHeard(
                    "after",
                    "beside before",
                    "one of the two did not sound",
                    false,
                    "Buzz as usual first, then once more after."
                ),
            ];
        var told = new Differences<AttemptMeasures>(before, after)
            .In(attempt => attempt.HarmonicToNoiseDb, 1, "dB", "clearer", "airier")
            .In(attempt => attempt.SteadinessCents, 5, "cents", "less steady", "steadier")
            .In(attempt => attempt.SoundingSeconds, 0.3, "s", "longer", "shorter")
            .In(attempt => attempt.AirBeforeToneMs, SoonerMs, "ms", "more air first", "less air first")
            .In(attempt => attempt.LevelDb, 1, "dB", "louder", "softer")
            .Told;
        var asked = take.Measures.Asked.Count(attempt => attempt.Asked?.Part == DrillPart.After);
        return
        [
            new AskedHeard(
                "after",
                "beside before",
                told.Count == 0 ? "no difference beyond the spread of the repeats" : string.Join(", ", told),
                null
            ),
            new AskedHeard(
                "spoke",
                $"{asked} after it",
                $"{after.Count}",
                after.Count == asked,
                "Keep the face as it was: only add the air."
            ),
        ];
    }
}
