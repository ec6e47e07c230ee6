using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;

namespace Bocca.Core.Buzz.Aims;

/// <summary>The pupil's own tight, centred and open sound: whether they differ by more than their repeats do.</summary>
internal static class ReferenceAim
{
    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var scale = OwnScale.From(take.Measures);
        if (scale is null)
            return [new AskedHeard("samples", "two of each", "not all sounded", false, "Play all six: two tight, two good, two open.")];
        return
        [
            new AskedHeard(
                "too tight",
                "apart from centred",
                scale.Tight.Against(scale.Centred),
                scale.TellsTight,
                "Make the tight ones tighter than you ever would."
            )
            {
                Pull = Pull.Firm,
            },
            new AskedHeard("centred", "as good as it gets", scale.Centred.ToString(), null),
            new AskedHeard(
                "too open",
                "apart from centred",
                scale.Open.Against(scale.Centred),
                scale.TellsOpen,
                "Make the open ones so open that they nearly stop."
            ),
        ];
    }
}
