using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>Tries of each kind: how many sounded, how long the longest lasted, how quickly a tongued one was there.</summary>
internal static class AlikeAim
{
    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var aims = new List<AskedHeard>();
        foreach (var kind in take.Measures.Asked.Where(attempt => attempt.Asked is not null).GroupBy(attempt => attempt.Asked!.Label))
        {
            var spoke = kind.Where(attempt => attempt.Spoke).ToList();
            if (kind.First().Asked!.AsLongAsItLasts)
                aims.Add(Longest(kind.Key, spoke, take.Bands));
            else if (kind.First().Asked!.Tongued)
                aims.Add(Tongued(kind.Key, spoke, kind.Count(), take.Bands));
            else if (kind.Key.Length > 0)
                aims.Add(new AskedHeard(kind.Key, $"{kind.Count()} tries", $"{spoke.Count} sounded", null));
        }

        return aims;
    }

    private static AskedHeard Longest(string label, List<AttemptMeasures> spoke, StageBands bands)
    {
        var longest = spoke.Select(attempt => attempt.SoundingSeconds ?? 0).DefaultIfEmpty(0).Max();
        var least = spoke.Count == 0 ? bands.HoldSeconds : SymptomFinder.Shortest(spoke[0], bands);
        return new AskedHeard(
            label,
            $"{least:0.#} s or more",
            $"longest {longest:0.0} s",
            longest >= least,
            "Let a full breath go slowly, on one height."
        );
    }

    private static AskedHeard Tongued(string label, List<AttemptMeasures> spoke, int asked, StageBands bands)
    {
        var rises = spoke.Select(attempt => attempt.RiseMs).OfType<double>().ToList();
        var rise = rises.Count == 0 ? 0 : rises.Median();
        return new AskedHeard(
            label,
            $"{asked} starts, each there within {bands.TonguedRiseMs:0} ms",
            $"{spoke.Count} starts, {rise:0} ms",
            rise <= bands.TonguedRiseMs && spoke.Count >= 0.8 * asked,
            "Let only the tip of the tongue touch the air."
        );
    }
}
