using Bocca.Core.Judging;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>Air first on purpose: it speaks sooner at the end of the take than at its start.</summary>
internal static class SpeakingAim
{
    /// <summary>The last tries take at most this share of the time of the first (ours, editable).</summary>
    private const double Sooner = 0.85;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var airs = take.Measures.Spoken.Select(attempt => attempt.AirBeforeToneMs).OfType<double>().ToList();
        if (airs.Count < 3)
            return
            [
                new AskedHeard(
                    "air before tone",
                    "shorter each time",
                    $"only {airs.Count} tries spoke",
                    false,
                    "Air first, then bring the lips together slowly."
                ),
            ];
        var early = airs.Take(2).Mean();
        var late = airs.TakeLast(2).Mean();
        return
        [
            new AskedHeard(
                "air before tone",
                "shorter each time",
                $"{early:0} ms at first, {late:0} ms at the end",
                late <= Sooner * early || late <= take.Bands.AirBeforeToneMs,
                "Begin with the lips a little nearer than last time."
            )
            {
                Pull = Pull.Firm,
            },
        ];
    }
}
