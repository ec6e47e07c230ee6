using MathNet.Numerics.Statistics;

namespace Bocca.Core.Embouchure;

/// <summary>A placement with the takes made under it.</summary>
/// <param name="ShareAbove">Share of the ring above the lip line.</param>
/// <param name="SteadinessCents">Steadiness of each take made before the next placement.</param>
public sealed record PlacedTakes(double ShareAbove, IReadOnlyList<double> SteadinessCents)
{
    /// <summary>What its takes came to, in words; null where there is none.</summary>
    public string? Sentence =>
        SteadinessCents.Count == 0
            ? null
            : $"{SteadinessCents.Count} {(SteadinessCents.Count == 1 ? "take" : "takes")} under it, steady within "
                + $"{SteadinessCents.Median():0} cents.";
}

/// <summary>Whether higher or lower placements went with steadier takes.</summary>
/// <param name="LowerCents">Median steadiness under the lower half of the placements; null if there is too little.</param>
/// <param name="HigherCents">The same under the higher half.</param>
/// <param name="Differs">Whether they differ by more than their spread.</param>
/// <param name="Sentence">What that says.</param>
public sealed record PlacementOutcome(double? LowerCents, double? HigherCents, bool Differs, string Sentence)
{
    private const int FewestTakes = 3;

    /// <summary>
    /// Compares the takes under the lower placements with those under the higher; a difference counts only beyond their spread.
    /// </summary>
    public static PlacementOutcome Of(IReadOnlyList<PlacedTakes> placed)
    {
        var used = placed.Where(each => each.SteadinessCents.Count > 0).ToList();
        if (used.Count < 2)
            return TooFew;
        var middle = used.Select(each => each.ShareAbove).Median();
        var lower = used.Where(each => each.ShareAbove < middle).SelectMany(each => each.SteadinessCents).ToList();
        var higher = used.Where(each => each.ShareAbove > middle).SelectMany(each => each.SteadinessCents).ToList();
        if (lower.Count < FewestTakes || higher.Count < FewestTakes)
            return TooFew;
        var (low, high) = (lower.Median(), higher.Median());
        var spread = (Spread(lower) + Spread(higher)) / 2;
        if (Math.Abs(low - high) <= spread)
            return new PlacementOutcome(
                low,
                high,
                false,
                $"No difference beyond the spread: steady within {low:0} cents under the lower placements, {high:0} under the higher."
            );
        return new PlacementOutcome(
            low,
            high,
            true,
            $"{(high < low ? "A little higher" : "A little lower")}: steadier, {Math.Min(low, high):0} cents against "
                + $"{Math.Max(low, high):0}."
        );
    }

    private static PlacementOutcome TooFew { get; } =
        new(
            null,
            null,
            false,
            $"{FewestTakes} takes under a higher and {FewestTakes} under a lower placement are needed before they can be compared."
        );

    private static double Spread(List<double> values) => values.InterquartileRange();
}
