using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>
/// The rim a little up, a little down, or where it was: what came of each try, and which place spoke most often and steadiest. Places
/// whose steadiness differs by less than a quarter are one (ours, editable): the pupil's own feeling decides between them.
/// </summary>
internal static class SearchAim
{
    private const double SameShare = 1.25;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var tries = take.Measures.Asked.Where(attempt => attempt.Asked is not null).ToList();
        var aims = tries.ConvertAll(attempt => new AskedHeard(
            $"try {attempt.Number}, {attempt.Asked!.Label}",
            "a tone",
            Came(attempt),
            null
        ));
        var places = tries
            .GroupBy(attempt => attempt.Asked!.Label)
            .Select(place => new Tried(place.Key, place.Count(), [.. place.Where(attempt => attempt.Spoke)]))
            .OrderByDescending(place => place.Share)
            .ThenBy(place => place.Cents)
            .ToList();
        aims.Insert(0, Best(places, take.Bands));
        return aims;
    }

    private static AskedHeard Best(List<Tried> places, StageBands bands)
    {
        if (places is not [{ Spoke.Count: > 0 } first, ..])
            return new AskedHeard(
                "where it sits best",
                "the place that speaks and is steady",
                "no place spoke",
                false,
                "Let the air go first."
            );
        var best = places.FindAll(place => place.Share == first.Share && place.Cents <= SameShare * first.Cents);
        var steady = best[0].Spoke.Count(attempt => (bands.Steadiness(attempt) ?? double.MaxValue) <= bands.SteadyCents);
        return new AskedHeard(
            "where it sits best",
            "the place that speaks and is steady",
            best.Count == 1
                ? $"{best[0].Label}: {best[0].Spoke.Count} of {best[0].All} spoke, {steady} alike and steady"
                : $"{string.Join(", ", best.Select(place => place.Label))}, too close to call",
            null
        );
    }

    private static string Came(AttemptMeasures attempt) =>
        !attempt.Spoke
            ? attempt.AirOnly
                ? "air without a tone"
                : "no sound"
            : attempt.SteadinessCents is { } cents
                ? $"steady within {cents:0} cents{(attempt.AirBeforeToneMs is >= 1 and var air ? $", {air:0} ms of air first" : "")}"
                : "too short to say how steady";

    private sealed record Tried(string Label, int All, IReadOnlyList<AttemptMeasures> Spoke)
    {
        public double Share => (double)Spoke.Count / All;

        public double Cents { get; } =
            Spoke.Select(attempt => attempt.SteadinessCents).OfType<double>().DefaultIfEmpty(double.MaxValue).Median();
    }
}
