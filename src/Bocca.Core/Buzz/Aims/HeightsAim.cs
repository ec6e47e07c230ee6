using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>Middle, higher and lower: how far apart, and whether one breath joins them.</summary>
internal static class HeightsAim
{
    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var aims = new List<AskedHeard>();
        var least = take.Bands.SeparationSemitones;
        foreach (
            var (part, label, sign, cue, pull) in new[]
            {
                (DrillPart.Higher, "higher", 1, "Think of a smaller, faster stream for the higher one.", Pull.Firm),
                (DrillPart.Lower, "lower", -1, "Let the jaw give a little for the lower one.", Pull.Ease),
            }
        )
        {
            var heights = take.Of(part)
                .Select(attempt => attempt.MedianHz)
                .OfType<double>()
                .Select(hertz => Tuning.Cents(take.MiddleHz, hertz) / 100)
                .ToList();
            if (heights.Count == 0)
                aims.Add(new AskedHeard(label, Asked(least), "nothing sounded", false, cue) { Pull = pull });
            else
                aims.Add(
                    new AskedHeard(
                        label,
                        Asked(least),
                        $"{Math.Abs(heights.Median()):0.0} semitones {(heights.Median() >= 0 ? "above" : "below")}",
                        sign * heights.Median() >= least,
                        cue
                    )
                    {
                        Pull = pull,
                    }
                );
        }

        foreach (var joined in take.Of(DrillPart.Joined))
        {
            var heard = take.Frames(joined).Select(frame => Tuning.Cents(take.MiddleHz, frame.FrequencyHz) / 100).ToList();
            var range = heard.Count < 10 ? 0 : heard.Percentile(98) - heard.Percentile(2);
            aims.Add(
                new AskedHeard(
                    "joined in one breath",
                    $"{2 * least:0} semitones or more, no hole",
                    $"{range:0.0} semitones, {Holes(joined.Breaks)}",
                    range >= 2 * least && joined.Breaks == 0,
                    "Slide slowly from place to place."
                )
            );
        }

        return aims;
    }

    /// <summary>Holes in words.</summary>
    internal static string Holes(int count) =>
        count switch
        {
            0 => "no hole",
            1 => "one hole",
            _ => $"{count} holes",
        };

    private static string Asked(double least) => least > 0 ? $"{least:0} semitones or more from the middle" : "apart from the middle";
}
